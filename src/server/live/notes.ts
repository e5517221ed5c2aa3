import { and, eq, gt, sql } from 'drizzle-orm';
import { database } from '../database/client';
import { notes } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { notifyChange } from '../notifications/notices';
import { requireOneself } from './acting-as';
import type { Visit } from './who-visits';

const MOST_A_DAY = 20;

/**
 * Sends the builders a note of somebody who thinks that they should see what is at an address, or one locked
 * element there. The answer is the same whatever is there.
 */
export async function sendNote(
  visit: Visit,
  {
    address,
    element,
    text,
  }: { readonly address: string; readonly element?: string | undefined; readonly text: string },
): Promise<void> {
  requireOneself(visit);
  const { applicationId, person, access, circumstances, release } = visit;
  if (!person) throw notThere();
  await database().transaction(async (tx) => {
    // One person's notes come one after another, so that they are counted.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${person.id}, 4))`);
    const today = and(eq(notes.personId, person.id), gt(notes.at, sql`now() - interval '1 day'`));
    if ((await tx.$count(notes, today)) >= MOST_A_DAY)
      throw new Refused(
        429,
        'too-many-notes',
        'You have sent the maximum number of access requests for today. Try again tomorrow.',
      );
    await tx.insert(notes).values({
      applicationId,
      personId: person.id,
      address,
      element: element !== undefined && access.compiled.tree.get(element) ? element : null,
      text: text.trim(),
      release,
      session: circumstances.session ?? {},
    });
    await notifyChange(tx, applicationId, 'note');
  });
}
