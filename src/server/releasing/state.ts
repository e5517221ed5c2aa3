import { sql } from 'drizzle-orm';
import { database } from '../database/client';

/**
 * What a review of the draft depends on, as a short text: the revision, the release in force, and the people with what
 * they hold, by the newest of the transactions that wrote them (PostgreSQL's `xmin`) and how many there are.
 */
export async function stateOf(applicationId: string): Promise<string> {
  const { rows } = await database().execute<{ state: string }>(sql`
    select concat_ws(' ', id, head_revision, release, (
      select concat_ws(' ', count(*), max(people.xmin::text::bigint)) from people where application_id = applications.id
    ), (
      select concat_ws(' ', count(*), max(assignments.xmin::text::bigint))
      from assignments join people on people.id = person_id where application_id = applications.id
    )) as state from applications where id = ${applicationId}`);
  return rows[0]?.state ?? '';
}
