import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Person } from '@/core/access';
import { type Definition, sameJson } from '@/core/model';
import type { PersonInput } from '@/contract/people-input';
import type { Executor } from '../database/client';
import { assignments, auditEvents, confirmations, outbox, people } from '../database/schema';
import { Refused } from '../http/problem';
import { linksFor } from './links';
import { personColumns, personOf } from './read';
import { assignmentRows, endSessionsOf, givenToNew, type PeopleManager } from './write';

/** Makes many accounts at once, each with its link. What is given is checked already. */
export async function addPeople(
  tx: Executor,
  applicationId: string,
  definition: Definition,
  keeper: PeopleManager,
  inputs: readonly PersonInput[],
): Promise<void> {
  const rows = await tx
    .insert(people)
    .values(
      inputs.map((one) => ({
        applicationId,
        name: one.name ?? '',
        email: one.email ?? '',
        confirmed: false,
        active: one.active ?? true,
        homeUnit: one.homeUnit ?? null,
        attributes: one.attributes ?? {},
      })),
    )
    .onConflictDoNothing()
    .returning({ id: people.id, email: people.email });
  if (rows.length < inputs.length) throw meanwhile();
  const idOf = new Map(rows.map(({ id, email }) => [email, id]));
  const given = inputs.flatMap((one) =>
    assignmentRows(idOf.get(one.email ?? '') ?? '', one.assignments ?? givenToNew(definition)),
  );
  if (given.length > 0) await tx.insert(assignments).values(given);
  const { links, messages } = await linksFor(tx, applicationId, rows, 'welcome');
  await tx.insert(confirmations).values(links);
  await tx.insert(outbox).values(messages);
  await audit(tx, applicationId, keeper, 'person-created', rows);
}

/** Changes many people at once, if each is still as they were when it was planned. */
export async function changePeople(
  tx: Executor,
  applicationId: string,
  keeper: PeopleManager,
  changes: readonly { readonly person: Person; readonly input: PersonInput }[],
): Promise<void> {
  const ids = changes.map(({ person }) => person.id);
  await tx
    .select({ id: people.id })
    .from(people)
    .where(and(eq(people.applicationId, applicationId), inArray(people.id, ids)))
    .orderBy(people.id)
    .for('no key update');
  const now = await tx.select(personColumns).from(people).where(inArray(people.id, ids));
  const byId = new Map(now.map((row) => [row.id, { ...personOf(row), active: row.active }]));
  if (changes.some(({ person }) => !sameJson(byId.get(person.id), person))) throw meanwhile();
  const values = changes.map(({ person, input }) => {
    const { name: _, email: __, home_unit: home, ...attributes } = person.attributes;
    return {
      id: person.id,
      name: input.name ?? person.name,
      active: input.active ?? person.active,
      home_unit: input.homeUnit === undefined ? home : input.homeUnit,
      attributes: { ...attributes, ...input.attributes },
    };
  });
  await tx.execute(sql`
    update people set name = v.name, active = v.active, home_unit = v.home_unit, attributes = v.attributes
    from jsonb_to_recordset(${JSON.stringify(values)}::jsonb)
      as v(id uuid, name text, active boolean, home_unit text, attributes jsonb)
    where people.id = v.id`);
  const regiven = changes.filter(({ input }) => input.assignments);
  if (regiven.length > 0) {
    await tx.delete(assignments).where(
      inArray(
        assignments.personId,
        regiven.map(({ person }) => person.id),
      ),
    );
    const given = regiven.flatMap(({ person, input }) => assignmentRows(person.id, input.assignments ?? []));
    if (given.length > 0) await tx.insert(assignments).values(given);
  }
  const off = changes.filter(({ input }) => input.active === false).map(({ person }) => person.id);
  await endSessionsOf(tx, off);
  await audit(
    tx,
    applicationId,
    keeper,
    'person-changed',
    changes.map(({ person }) => person),
  );
}

const audit = (
  tx: Executor,
  applicationId: string,
  keeper: PeopleManager,
  what: string,
  of: readonly { readonly id: string }[],
) =>
  tx
    .insert(auditEvents)
    .values(of.map(({ id }) => ({ applicationId, ...keeper, what, detail: { person: id } })));

const meanwhile = (): Refused =>
  new Refused(
    409,
    'changed-meanwhile',
    'Nothing was changed, because someone else has changed people in the meantime. Upload the file again.',
  );
