import { randomBytes, randomUUID } from 'node:crypto';
import { and, eq, inArray } from 'drizzle-orm';
import { groupSimilarPeople } from '@/core';
import { type Assignment, comparedAttributes, type KnownRecord, type Person, rightNow } from '@/core/access';
import { type Definition, type Id, newId, treeOf } from '@/core/model';
import { idsByMark, marked, personMark, type SweepRecord, sweepRecords, withMarkedIds } from '@/core/sweep';
import { patientDatabase } from '../../database/client';
import { hashSecret } from '../../security/password';
import { applications, assignments, people, records, releases, snapshots } from '../../database/schema';

/** Somebody who is asked as, in the copy. */
export interface SweptPerson {
  readonly person: Person;
  /** In words: "Wren Tolliver, and 13 alike". */
  readonly name: string;
}

/** What a sweep asks: a copy of the application, with marks in its names and records, and people who stand for all. */
export interface Copy {
  readonly id: string;
  readonly slug: string;
  /** The password of everybody in it: a secret of this process, for unlocking. */
  readonly password: string;
  readonly definition: Definition;
  /** The ids of the application's elements, by what they are in the copy: their marks. */
  readonly ids: ReadonlyMap<Id, Id>;
  readonly people: readonly SweptPerson[];
  readonly records: readonly SweepRecord[];
}

/**
 * Works out the copy: one person for all who are alike now, and for each role somebody who holds just that. Nobody else
 * can sign in to it: its address and its people's password are known to this process alone.
 */
export function planCopy(definition: Definition, everybody: readonly Person[]): Copy {
  const known = new Map(everybody.map((person) => [person.id, person] as const));
  const chosen = groupSimilarPeople(definition, everybody, rightNow()).flatMap(({ some, count }) => {
    const first = known.get(some[0]?.id ?? '');
    return first ? [{ first, more: count - 1 }] : [];
  });
  for (const { id, name } of definition.roles) {
    const held = chosen.some(({ first }) => isJust(first, id));
    if (!held) chosen.push({ first: whoeverHolds([id], name), more: 0 });
  }
  const all = definition.roles.map(({ id }) => id);
  chosen.push({ first: whoeverHolds([], 'no role'), more: 0 });
  chosen.push({ first: { ...whoeverHolds(all, 'all roles, account disabled'), active: false }, more: 0 });
  const copied = new Map(chosen.map(({ first }) => [first.id, randomUUID() as string]));
  // Lines that name people name those of the copy.
  let text = JSON.stringify(definition.gates);
  for (const [id, own] of copied) text = text.replaceAll(`"${id}"`, `"${own}"`);
  const ids = idsByMark(definition);
  const whole = withMarkedIds({ ...definition, gates: JSON.parse(text) as Definition['gates'] }, ids);
  const tree = treeOf(whole);
  const compared = comparedAttributes(definition).has('name');
  const swept = chosen.map(({ first, more }, n): SweptPerson => {
    // Where access depends on names, they stay as they are.
    const name = compared ? first.name : `${first.name} ${personMark(n)}`;
    return {
      name: more === 0 ? first.name : `${first.name} and ${more} with the same access`,
      person: {
        ...first,
        id: copied.get(first.id) ?? first.id,
        name,
        attributes: { ...first.attributes, name },
      },
    };
  });
  return {
    id: newId(),
    slug: `sweep-${randomBytes(16).toString('hex')}`,
    password: randomBytes(32).toString('base64url'),
    // Nobody comes to it by opening an account.
    definition: marked({ ...whole, signUp: false }, (id) => tree.get(id)?.number ?? 0),
    ids,
    people: swept,
    records: sweepRecords(
      whole,
      swept.map(({ person }) => person),
      Date.now(),
    ),
  };
}

/** The element's id in the application. */
export const ownId = ({ ids }: Copy, id: Id): Id => ids.get(id) ?? id;

/** Does the person hold just this role, everywhere and for good? */
const isJust = ({ assignments }: Person, role: string): boolean =>
  assignments.length === 1 && assignments.every((one) => Object.keys(one).length === 1 && one.role === role);

const whoeverHolds = (roles: readonly Id[], name: string): Person => ({
  id: randomUUID(),
  name: `people with ${name}`,
  active: true,
  assignments: roles.map((role) => ({ role })),
  attributes: {},
});

/** The records as decisions know them. */
export function knownIn({ definition, records: all }: Copy): KnownRecord[] {
  const tree = treeOf(definition);
  const values = new Map(all.map((one) => [`${one.entity} ${one.id}`, one.values] as const));
  return all.flatMap(({ entity, ...one }) => {
    const of = tree.entityOf(entity);
    return of
      ? [{ ...one, entity: of, lookUp: (target: string, id: string) => values.get(`${target} ${id}`) }]
      : [];
  });
}

const hashes = new WeakMap<Copy, Promise<string>>();

/** The hash of the password of everybody in the copy. */
function hashOf(copy: Copy): Promise<string> {
  let hash = hashes.get(copy);
  if (!hash) hashes.set(copy, (hash = hashSecret(copy.password)));
  return hash;
}

/** Puts the copy into the database. */
export async function putCopy(applicationId: string, copy: Copy): Promise<void> {
  const { id, slug, definition } = copy;
  const passwordHash = await hashOf(copy);
  await patientDatabase().transaction(async (tx) => {
    await tx
      .insert(applications)
      .values({ id, slug, name: definition.name, release: 1, sweepOf: applicationId });
    await tx.insert(snapshots).values({ applicationId: id, revision: 0, definition });
    await tx.insert(releases).values({ applicationId: id, number: 1, revision: 0, definition });
    await tx
      .insert(people)
      .values(copy.people.map(({ person }) => ({ ...rowOf(person), applicationId: id, passwordHash })));
    await putAssignments(tx, copy.people);
    await putRecords(copy, new Set(copy.records.map((one) => one.id)), tx);
  });
}

/** What is stored of a person, but for their roles. */
function rowOf({ id, name: shown, active, attributes: all }: Person) {
  const { name, email, home_unit: homeUnit, ...attributes } = all;
  return {
    id,
    name: typeof name === 'string' ? name : shown,
    email: typeof email === 'string' ? email : `${id}@sweep.invalid`,
    homeUnit: typeof homeUnit === 'string' ? homeUnit : null,
    active,
    attributes,
  };
}

async function putAssignments(tx: Transaction, of: readonly SweptPerson[]): Promise<void> {
  const rows = of.flatMap(({ person }) => person.assignments.map((one) => assignmentRow(person.id, one)));
  if (rows.length > 0) await tx.insert(assignments).values(rows);
}

const assignmentRow = (personId: string, { role, unit, from, until }: Assignment) => ({
  personId,
  roleId: role,
  unitId: unit ?? null,
  from: from === undefined ? null : new Date(from),
  until: until === undefined ? null : new Date(until),
});

/** Lets people of the copy be as they are said to be here, whatever became of them, with just these roles. */
export async function putPeople(copy: Copy, of: readonly SweptPerson[]): Promise<void> {
  const passwordHash = await hashOf(copy);
  await patientDatabase().transaction(async (tx) => {
    const ids = of.map(({ person }) => person.id);
    await tx.delete(assignments).where(inArray(assignments.personId, ids));
    await putAssignments(tx, of);
    for (const { person } of of) {
      const { id, ...row } = rowOf(person);
      await tx
        .update(people)
        .set({ ...row, passwordHash, confirmed: true })
        .where(eq(people.id, id));
    }
  });
}

type Transaction = Parameters<Parameters<ReturnType<typeof patientDatabase>['transaction']>[0]>[0];

const FIRST_MADE = Date.UTC(2020, 0, 1);

async function putRecords(
  { id, records: all }: Copy,
  which: ReadonlySet<Id>,
  tx: Transaction,
): Promise<void> {
  const rows = all.flatMap((one, n) => {
    const { entity, values: data } = one;
    const createdAt = new Date(FIRST_MADE + n);
    return which.has(one.id)
      ? [{ applicationId: id, kind: 'live' as const, entity, id: one.id, data, createdAt }]
      : [];
  });
  if (rows.length > 0) await tx.insert(records).values(rows);
}

/** Puts these of the copy's records as they were, whatever became of them; takes away those that it had not. */
export async function putBack(copy: Copy, which: ReadonlySet<Id>): Promise<void> {
  await patientDatabase().transaction(async (tx) => {
    const gone = and(eq(records.applicationId, copy.id), inArray(records.id, [...which]));
    await tx.delete(records).where(gone);
    await putRecords(copy, which, tx);
  });
}

/** Takes the copy away, with all that is in it. */
export async function dropCopy(id: string): Promise<void> {
  await patientDatabase().delete(applications).where(eq(applications.id, id));
}

/** So that what people hold in the copy is what they are decided by. */
export const personOfCopy = ({ person }: SweptPerson): Person => ({
  ...person,
  attributes: {
    ...person.attributes,
    name: person.attributes['name'] ?? person.name,
    email: person.attributes['email'] ?? `${person.id}@sweep.invalid`,
    home_unit: person.attributes['home_unit'] ?? null,
  },
});
