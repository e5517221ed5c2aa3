import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { Assignment, Person } from '@/core/access';
import type { Values } from '@/core/model';
import { database, type Executor } from '../database/client';
import { isUuid } from '../database/uuid';
import { people } from '../database/schema';

/**
 * A person's assignments as SQL on `people`: which of them count is decided by the core. The names are
 * written out: in a query on one table the query builder would leave the table's name away, and `id`
 * would be the assignment's.
 */
const assignmentsJson = sql<
  { role: string; unit: string | null; from: string | null; until: string | null }[]
>`(
  select coalesce(json_agg(json_build_object('role', assignments.role_id, 'unit', assignments.unit_id,
    'from', assignments.from, 'until', assignments.until) order by assignments.role_id, assignments.id), '[]')
  from assignments where assignments.person_id = people.id)`;

/** What decisions need to know of a person. */
export const personColumns = {
  id: people.id,
  name: people.name,
  email: people.email,
  homeUnit: people.homeUnit,
  attributes: people.attributes,
  active: people.active,
  confirmed: people.confirmed,
  assignments: assignmentsJson,
};

interface PersonRow {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly homeUnit: string | null;
  readonly attributes: Values;
  readonly active: boolean;
  readonly confirmed: boolean;
  readonly assignments: readonly {
    readonly role: string;
    readonly unit: string | null;
    readonly from: string | null;
    readonly until: string | null;
  }[];
}

/** A person as stored, as the core knows them. Whose address is not confirmed is not active yet. */
export function personOf(row: PersonRow): Person {
  const { id, name, email, homeUnit, attributes, active, confirmed } = row;
  return {
    id,
    name,
    active: active && confirmed,
    assignments: row.assignments.map(({ role, unit, from, until }): Assignment => ({
      role,
      ...(unit !== null && { unit }),
      ...(from !== null && { from }),
      ...(until !== null && { until }),
    })),
    attributes: { ...attributes, name, email, home_unit: homeUnit },
  };
}

const rowsOf = (applicationId: string, on: Executor) =>
  on
    .select(personColumns)
    .from(people)
    .where(eq(people.applicationId, applicationId))
    .orderBy(asc(people.name), asc(people.id));

/** Everybody of an application, by name. */
export const peopleOf = async (applicationId: string, on: Executor = database()): Promise<Person[]> =>
  (await rowsOf(applicationId, on)).map(personOf);

/**
 * Everybody of an application, by name, with what they have once they have activated their accounts: for counting and for
 * working out access. Those who have not are shown as such by their names; they cannot sign in.
 */
export async function peopleCounted(applicationId: string, on: Executor = database()): Promise<Person[]> {
  return (await rowsOf(applicationId, on)).map((row) => ({
    ...personOf({ ...row, confirmed: true }),
    name: row.confirmed ? row.name : `${row.name} (not activated)`,
  }));
}

/** One person of an application, or undefined where there is none with this id. */
export async function personById(
  applicationId: string,
  id: string,
  on: Executor = database(),
): Promise<Person | undefined> {
  if (!isUuid(id)) return undefined;
  const [row] = await on
    .select(personColumns)
    .from(people)
    .where(and(eq(people.applicationId, applicationId), eq(people.id, id)));
  return row && personOf(row);
}

/** What people are called, by their ids. */
export async function namesOf(
  applicationId: string,
  ids: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  const rows = await database()
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(and(eq(people.applicationId, applicationId), inArray(people.id, [...ids])));
  return new Map(rows.map(({ id, name }) => [id, name]));
}
