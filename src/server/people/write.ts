import { and, eq, inArray, sql, type SQL } from 'drizzle-orm';
import type { Assignment } from '@/core/access';
import type { Definition } from '@/core/model';
import type { PersonChange, PersonInput } from '@/contract/people-input';
import { database, type Executor } from '../database/client';
import { assignments, auditEvents, builders, people, sessions } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { liveAccount } from '../security/attempts';
import { liftWaits } from '../security/lifting';
import { isUuid } from '../database/uuid';
import { sendLink } from './links';
import { checkPerson } from './input';

/** Who looks after people, for the audit trail: a builder, or a person of the application. */
export type PeopleManager = { readonly builderId: string } | { readonly personId: string };

function checked(definition: Definition, input: PersonInput): PersonInput {
  const result = checkPerson(definition, input);
  if ('value' in result) return result.value;
  throw new Refused(
    422,
    'values',
    'Nothing was changed, because some values are not valid. Check the marked fields.',
    {
      errors: result.problems,
    },
  );
}

const audit = (tx: Executor, applicationId: string, keeper: PeopleManager, what: string, person: string) =>
  tx.insert(auditEvents).values({ applicationId, ...keeper, what, detail: { person } });

async function requireFree(tx: Executor, applicationId: string, email: string, id?: string): Promise<void> {
  const [taken] = await tx
    .select({ id: people.id })
    .from(people)
    .where(and(eq(people.applicationId, applicationId), eq(people.email, email)));
  if (taken && taken.id !== id)
    throw new Refused(
      422,
      'values',
      'Nothing was changed, because some values are not valid. Check the marked fields.',
      {
        errors: [{ field: 'email', detail: 'Another person already has this email address.' }],
      },
    );
}

/**
 * Makes an account, with the roles that every new person gets unless others are given, and sends a link to its
 * address. It is nobody until whose address it is has opened that, and chosen a password. Returns its id.
 */
export async function createPerson(
  tx: Executor,
  applicationId: string,
  definition: Definition,
  keeper: PeopleManager,
  input: PersonInput,
): Promise<string> {
  const { name = '', email = '', ...rest } = checked(definition, { name: '', email: '', ...input });
  await requireFree(tx, applicationId, email);
  const [row] = await tx
    .insert(people)
    .values({
      applicationId,
      name,
      email,
      confirmed: false,
      active: rest.active ?? true,
      homeUnit: rest.homeUnit ?? null,
      startScreen: rest.startScreen ?? null,
      attributes: rest.attributes ?? {},
    })
    .returning({ id: people.id });
  if (!row) throw new Error('The person was not stored');
  await putAssignments(tx, row.id, rest.assignments ?? givenToNew(definition));
  await sendLink(tx, applicationId, { id: row.id, email }, 'welcome');
  await audit(tx, applicationId, keeper, 'person-created', row.id);
  return row.id;
}

export const givenToNew = (definition: Definition): Assignment[] =>
  definition.roles.filter((role) => role.givenToNew).map((role) => ({ role: role.id }));

/** The person's row, held until the transaction ends. Signing in does not wait for it. */
async function lockedPerson(tx: Executor, applicationId: string, id: string) {
  if (!isUuid(id)) throw notThere();
  const [row] = await tx
    .select()
    .from(people)
    .where(and(eq(people.applicationId, applicationId), eq(people.id, id)))
    .for('no key update');
  if (!row) throw notThere();
  return row;
}

/**
 * Changes a person: what is given of them, and single assignments given and taken away. Switching off ends all
 * their sessions at once. A new address is its owner's only once they have opened the link that goes there: until
 * then the account is nobody, and its password is gone.
 */
export async function updatePerson(
  tx: Executor,
  applicationId: string,
  definition: Definition,
  keeper: PeopleManager,
  id: string,
  input: PersonChange,
): Promise<void> {
  const { give = [], take = [], ...plain } = input;
  const { attributes, ...rest } = checked(definition, { ...plain, assignments: give });
  const row = await lockedPerson(tx, applicationId, id);
  if (rest.email !== undefined) await requireFree(tx, applicationId, rest.email, id);
  const moved = rest.email !== undefined && rest.email !== row.email ? rest.email : undefined;
  const { assignments: _, ...change } = {
    ...rest,
    ...(attributes && { attributes: { ...row.attributes, ...attributes } }),
    ...(moved !== undefined && { confirmed: false, passwordHash: null }),
  };
  if (Object.keys(change).length > 0) await tx.update(people).set(change).where(eq(people.id, id));
  for (const one of take) await takeAssignment(tx, id, one);
  for (const one of give) await giveAssignment(tx, id, one);
  if (rest.active === false || moved !== undefined) await endSessionsOf(tx, [id]);
  if (moved !== undefined) await sendLink(tx, applicationId, { id, email: moved }, 'welcome');
  const what = rest.active === false ? 'person-switched-off' : 'person-changed';
  await audit(tx, applicationId, keeper, what, id);
}

const isAssignment = (personId: string, { role, unit, from, until }: Assignment): SQL | undefined =>
  and(
    eq(assignments.personId, personId),
    eq(assignments.roleId, role),
    sql`${assignments.unitId} is not distinct from ${unit ?? null}::text`,
    sql`${assignments.from} is not distinct from ${from ?? null}::timestamptz`,
    sql`${assignments.until} is not distinct from ${until ?? null}::timestamptz`,
  );

async function takeAssignment(tx: Executor, id: string, one: Assignment): Promise<void> {
  const gone = await tx.delete(assignments).where(isAssignment(id, one)).returning({ id: assignments.id });
  if (gone.length === 0)
    throw new Refused(
      409,
      'changed-meanwhile',
      'Nothing was changed, because the person no longer has this role. Reload the page.',
    );
}

async function giveAssignment(tx: Executor, id: string, one: Assignment): Promise<void> {
  const [has] = await tx.select().from(assignments).where(isAssignment(id, one));
  if (!has) await putAssignments(tx, id, [one]);
}

/** Ends the sessions of these people, and what they have unlocked in those of others. */
export async function endSessionsOf(tx: Executor, ids: readonly string[]): Promise<void> {
  if (ids.length === 0) return;
  await tx.delete(sessions).where(inArray(sessions.personId, [...ids]));
  const by = sql`array(select jsonb_array_elements_text(${JSON.stringify(ids)}::jsonb))`;
  await tx
    .update(sessions)
    .set({
      unlocked: sql`(select coalesce(jsonb_agg(one), '[]') from jsonb_array_elements(${sessions.unlocked}) one
        where not (one ->> 'by' = any(${by})))`,
    })
    .where(
      sql`exists (select 1 from jsonb_array_elements(${sessions.unlocked}) one where one ->> 'by' = any(${by}))`,
    );
}

/** Assignments as they are stored. */
export const assignmentRows = (
  personId: string,
  given: readonly Assignment[],
): (typeof assignments.$inferInsert)[] =>
  given.map(({ role, unit, from, until }) => ({
    personId,
    roleId: role,
    unitId: unit ?? null,
    from: from ? new Date(from) : null,
    until: until ? new Date(until) : null,
  }));

async function putAssignments(tx: Executor, personId: string, given: readonly Assignment[]): Promise<void> {
  if (given.length > 0) await tx.insert(assignments).values(assignmentRows(personId, given));
}

/** Sends a person a link to choose a password anew. What they have goes on until they use it. */
export async function sendNewLink(applicationId: string, keeper: PeopleManager, id: string): Promise<void> {
  await database().transaction(async (tx) => {
    const { email, confirmed } = await lockedPerson(tx, applicationId, id);
    await sendLink(tx, applicationId, { id, email }, confirmed ? 'again' : 'welcome');
    await audit(tx, applicationId, keeper, 'link-sent', id);
  });
}

/** Nobody has to wait any more to sign in as this person, after wrong tries. The person is told; nobody does it for themselves. */
export async function liftWaitsOf(applicationId: string, keeper: PeopleManager, id: string): Promise<void> {
  await database().transaction(async (tx) => {
    const { email } = await lockedPerson(tx, applicationId, id);
    const account = liveAccount(applicationId, email);
    const own = await isOneself(tx, keeper, { id, email });
    await liftWaits(tx, { account, applicationId, to: email, forBuilder: false }, own);
    await audit(tx, applicationId, keeper, 'waits-lifted', id);
  });
}

async function isOneself(
  tx: Executor,
  keeper: PeopleManager,
  { id, email }: { readonly id: string; readonly email: string },
): Promise<boolean> {
  if ('personId' in keeper) return keeper.personId === id;
  return (await tx.$count(builders, and(eq(builders.id, keeper.builderId), eq(builders.email, email)))) > 0;
}
