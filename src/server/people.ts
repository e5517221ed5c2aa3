import { and, asc, eq, sql } from 'drizzle-orm';
import { SIGNED_OUT, viewerOfPerson, viewerOfRole, type Person, type Viewer } from '@/core/access/viewer';
import { database } from './database/client';
import { people } from './database/schema';

/**
 * The roles whose assignments count at this moment, as SQL on `people`. One that is for a unit only does
 * not count yet: what cannot be told is closed. The names are written out: in a query on one table the
 * query builder would leave the table's name away, and `id` would be the assignment's.
 */
export const rolesNow = sql<string[]>`(
  select coalesce(array_agg(distinct assignments.role_id order by assignments.role_id), '{}')
  from assignments
  where assignments.person_id = people.id and assignments.unit_id is null
    and (assignments.from is null or assignments.from <= now())
    and (assignments.until is null or assignments.until > now()))`;

/** Everybody of an application, by name. */
export async function peopleOf(applicationId: string): Promise<Person[]> {
  return database()
    .select({ id: people.id, name: people.name, active: people.active, roles: rolesNow })
    .from(people)
    .where(eq(people.applicationId, applicationId))
    .orderBy(asc(people.name));
}

/** Reads a viewer from its key: `signed-out`, `signed-in`, `role:ID` or `person:ID`. */
export async function viewerByKey(applicationId: string, key: string): Promise<Viewer | undefined> {
  if (key === 'signed-out') return SIGNED_OUT;
  if (key === 'signed-in') return { kind: 'signed-in', roles: [] };
  const [kind, id = ''] = key.split(/:(.*)/s);
  if (kind === 'role') return viewerOfRole(id);
  if (kind !== 'person' || !/^[0-9a-f-]{36}$/.test(id)) return undefined;
  const [person] = await database()
    .select({ id: people.id, roles: rolesNow })
    .from(people)
    .where(and(eq(people.applicationId, applicationId), eq(people.id, id)));
  return person && viewerOfPerson(person);
}
