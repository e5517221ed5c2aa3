import { and, eq, sql } from 'drizzle-orm';
import type { Assignment } from '@/core/access/viewer';
import type { Definition } from '@/core/model/definition';
import { database, type Executor } from '../database/client';
import { assignments, auditEvents, people, sessions } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { hashPassword, randomPassword } from '../security/password';
import { checkPerson, type PersonInput } from './input';

/** Who looks after people, for the audit trail: a builder, or a person of the application. */
export type Keeper = { readonly builderId: string } | { readonly personId: string };

function checked(definition: Definition, input: PersonInput): PersonInput {
  const result = checkPerson(definition, input);
  if ('value' in result) return result.value;
  throw new Refused(422, 'values', 'Nothing was changed: some values need another look.', {
    errors: result.problems,
  });
}

const audit = (tx: Executor, applicationId: string, keeper: Keeper, what: string, person: string) =>
  tx.insert(auditEvents).values({ applicationId, ...keeper, what, detail: { person } });

async function requireFree(tx: Executor, applicationId: string, email: string, id?: string): Promise<void> {
  const [taken] = await tx
    .select({ id: people.id })
    .from(people)
    .where(and(eq(people.applicationId, applicationId), eq(people.email, email)));
  if (taken && taken.id !== id)
    throw new Refused(422, 'values', 'Nothing was changed: some values need another look.', {
      errors: [{ field: 'email', detail: 'Somebody has this email address already.' }],
    });
}

/** A random password, to be told once, and its hash. */
export async function newPassword(): Promise<{ password: string; passwordHash: string }> {
  const password = randomPassword();
  return { password, passwordHash: await hashPassword(password) };
}

/** Makes an account, with the roles that every new person gets unless others are given. Returns its id. */
export async function createPerson(
  tx: Executor,
  applicationId: string,
  definition: Definition,
  keeper: Keeper,
  input: PersonInput,
  passwordHash: string,
): Promise<string> {
  const { name = '', email = '', ...rest } = checked(definition, { name: '', email: '', ...input });
  await requireFree(tx, applicationId, email);
  const [row] = await tx
    .insert(people)
    .values({
      applicationId,
      name,
      email,
      passwordHash,
      active: rest.active ?? true,
      homeUnit: rest.homeUnit ?? null,
      startScreen: rest.startScreen ?? null,
      attributes: rest.attributes ?? {},
    })
    .returning({ id: people.id });
  if (!row) throw new Error('The person was not stored');
  await putAssignments(tx, row.id, rest.assignments ?? givenToNew(definition));
  await audit(tx, applicationId, keeper, 'person-created', row.id);
  return row.id;
}

export const givenToNew = (definition: Definition): Assignment[] =>
  definition.roles.filter((role) => role.givenToNew).map((role) => ({ role: role.id }));

/** Changes a person. Switching off ends all their sessions at once. */
export async function updatePerson(
  tx: Executor,
  applicationId: string,
  definition: Definition,
  keeper: Keeper,
  id: string,
  input: PersonInput,
): Promise<void> {
  const { assignments: given, attributes, ...rest } = checked(definition, input);
  const [row] = await tx
    .select()
    .from(people)
    .where(and(eq(people.applicationId, applicationId), eq(people.id, id)))
    .for('update');
  if (!row) throw notThere();
  if (rest.email !== undefined) await requireFree(tx, applicationId, rest.email, id);
  const change = { ...rest, ...(attributes && { attributes: { ...row.attributes, ...attributes } }) };
  if (Object.keys(change).length > 0) await tx.update(people).set(change).where(eq(people.id, id));
  if (given) {
    await tx.delete(assignments).where(eq(assignments.personId, id));
    await putAssignments(tx, id, given);
  }
  if (rest.active === false) await endSessionsOf(tx, id);
  const what = rest.active === false ? 'person-switched-off' : 'person-changed';
  await audit(tx, applicationId, keeper, what, id);
}

/** Ends the person's sessions, and what they have unlocked in those of others. */
async function endSessionsOf(tx: Executor, id: string): Promise<void> {
  await tx.delete(sessions).where(eq(sessions.personId, id));
  await tx
    .update(sessions)
    .set({
      unlocked: sql`(select coalesce(jsonb_agg(one), '[]') from jsonb_array_elements(${sessions.unlocked}) one
        where one ->> 'by' <> ${id})`,
    })
    .where(sql`${sessions.unlocked} @> ${JSON.stringify([{ by: id }])}::jsonb`);
}

async function putAssignments(tx: Executor, personId: string, given: readonly Assignment[]): Promise<void> {
  if (given.length === 0) return;
  await tx.insert(assignments).values(
    given.map(({ role, unit, from, until }) => ({
      personId,
      roleId: role,
      unitId: unit ?? null,
      from: from ? new Date(from) : null,
      until: until ? new Date(until) : null,
    })),
  );
}

/** Gives a person a new random password, which is told once, and ends their sessions. */
export async function resetPassword(applicationId: string, keeper: Keeper, id: string): Promise<string> {
  const { password, passwordHash } = await newPassword();
  await database().transaction(async (tx) => {
    const done = await tx
      .update(people)
      .set({ passwordHash })
      .where(and(eq(people.applicationId, applicationId), sql`${people.id} = ${id}`))
      .returning({ id: people.id });
    if (done.length === 0) throw notThere();
    await endSessionsOf(tx, id);
    await audit(tx, applicationId, keeper, 'password-reset', id);
  });
  return password;
}
