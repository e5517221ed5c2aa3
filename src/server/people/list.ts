import { and, asc, desc, eq, exists, inArray, or, sql, type SQL } from 'drizzle-orm';
import type { PersonRow } from '@/contract/studio/people';
import { database } from '../database/client';
import { assignments, people } from '../database/schema';
import { personColumns, personOf } from './read';

/** How the table of people is asked for. */
export interface PeopleQuery {
  readonly q?: string | undefined;
  readonly role?: string | undefined;
  /** Their home, one of these units. */
  readonly units?: readonly string[] | undefined;
  readonly state?: 'active' | 'off' | 'unconfirmed' | undefined;
  readonly sort?: string | undefined;
  readonly page: number;
  readonly size: number;
}

const BY_NAME = sql`${people.name}`;
const SORTS: ReadonlyMap<string, SQL> = new Map([
  ['name', BY_NAME],
  ['email', sql`${people.email}`],
  ['home', sql`${people.homeUnit}`],
]);

/** A page of an application's people, and how many there are in all. */
export async function listPeople(
  applicationId: string,
  query: PeopleQuery,
): Promise<{ people: PersonRow[]; total: number }> {
  const on = database();
  const words = query.q?.trim().toLowerCase();
  const where = and(
    eq(people.applicationId, applicationId),
    words
      ? or(
          sql`strpos(lower(${people.name}), ${words}) > 0`,
          sql`strpos(lower(${people.email}), ${words}) > 0`,
        )
      : undefined,
    query.role
      ? exists(
          on
            .select({ one: sql`1` })
            .from(assignments)
            .where(and(eq(assignments.personId, people.id), eq(assignments.roleId, query.role))),
        )
      : undefined,
    query.units
      ? query.units.length > 0
        ? inArray(people.homeUnit, [...query.units])
        : sql`false`
      : undefined,
    query.state === 'active' ? and(eq(people.active, true), eq(people.confirmed, true)) : undefined,
    query.state === 'off' ? eq(people.active, false) : undefined,
    query.state === 'unconfirmed' ? eq(people.confirmed, false) : undefined,
  );
  const column = SORTS.get(query.sort?.replace(/^-/, '') ?? '') ?? BY_NAME;
  const order = query.sort?.startsWith('-') ? desc(column) : asc(column);
  const [rows, total] = await Promise.all([
    on
      .select({ ...personColumns, startScreen: people.startScreen })
      .from(people)
      .where(where)
      .orderBy(order, asc(people.id))
      .limit(query.size)
      .offset((query.page - 1) * query.size),
    on.$count(people, where),
  ]);
  return {
    people: rows.map((row) => ({
      ...personOf(row),
      active: row.active,
      confirmed: row.confirmed,
      startScreen: row.startScreen,
    })),
    total,
  };
}

/** The query of a request's address. What makes no sense is as if it were not there. */
export function readPeopleQuery(params: URLSearchParams): PeopleQuery {
  const page = Number(params.get('page') ?? 1);
  const state = params.get('state');
  return {
    q: params.get('q')?.slice(0, 200),
    role: params.get('role') ?? undefined,
    units: params.get('units')?.split(','),
    state: state === 'active' || state === 'off' || state === 'unconfirmed' ? state : undefined,
    sort: params.get('sort') ?? undefined,
    page: Number.isInteger(page) && page >= 1 && page < 100_000 ? page : 1,
    size: 25,
  };
}
