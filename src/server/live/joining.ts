import { randomBytes } from 'node:crypto';
import { and, eq, gt, isNull, sql } from 'drizzle-orm';
import type { Definition } from '@/core/model/definition';
import type { Id } from '@/core/model/id';
import { database } from '../database/client';
import { assignments, auditEvents, confirmations, outbox, people } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { checkPerson } from '../people/input';
import { givenToNew } from '../people/write';
import { hashPassword } from '../security/password';
import { hashToken } from '../security/sessions';
import { requireOneself } from './standing';
import type { Visit } from './visit';

const HOURS = 24;
const MOST_MESSAGES_A_DAY = 5;
const LEAST_PASSWORD = 10;

/**
 * Opens an account for somebody who asks for it. They are nobody until they follow the link in the message
 * that is put in the outbox. The answer is the same where the address has an account already: then the
 * message says so, and nothing else happens.
 */
export async function signUp(
  visit: Visit,
  definition: Definition,
  input: { readonly name: string; readonly email: string; readonly password: string },
  base: string,
): Promise<void> {
  if (!definition.signUp) throw notThere();
  const checked = checkPerson(definition, { name: input.name, email: input.email });
  const problems = 'problems' in checked ? [...checked.problems] : [];
  if (input.password.length < LEAST_PASSWORD)
    problems.push({
      field: 'password',
      detail: `Choose a password of at least ${LEAST_PASSWORD} characters.`,
    });
  if (problems.length > 0 || 'problems' in checked)
    throw new Refused(422, 'values', 'Some values need another look.', { errors: problems });
  const { name = '', email = '' } = checked.value;
  const { applicationId } = visit;
  // Hashed whether it is needed or not: the time must not tell who has an account.
  const passwordHash = await hashPassword(input.password);
  const token = randomBytes(32).toString('base64url');
  await database().transaction(async (tx) => {
    const to = and(
      eq(outbox.applicationId, applicationId),
      eq(outbox.to, email),
      gt(outbox.at, sql`now() - interval '1 day'`),
    );
    const sent = await tx.select({ id: outbox.id }).from(outbox).where(to);
    if (sent.length >= MOST_MESSAGES_A_DAY)
      throw new Refused(
        429,
        'too-many-messages',
        'Too many messages went to this address. Try again tomorrow.',
      );
    const [row] = await tx
      .insert(people)
      .values({ applicationId, name, email, passwordHash, confirmed: false })
      .onConflictDoNothing()
      .returning({ id: people.id });
    if (!row) {
      await tx.insert(outbox).values({
        applicationId,
        to: email,
        subject: `${visit.name}: you have an account`,
        body: `Somebody asked for an account with this address, which has one already. If it was you, sign in at ${base}/sign-in`,
      });
      return;
    }
    const roles = givenToNew(definition).map(({ role: roleId }) => ({ personId: row.id, roleId }));
    if (roles.length > 0) await tx.insert(assignments).values(roles);
    await tx.insert(confirmations).values({
      tokenHash: hashToken(token),
      personId: row.id,
      expiresAt: sql`now() + make_interval(hours => ${HOURS})`,
    });
    await tx.insert(outbox).values({
      applicationId,
      to: email,
      subject: `${visit.name}: confirm your address`,
      body: `Welcome. Follow this link within ${HOURS} hours, and sign in: ${base}/confirm?token=${token}`,
    });
    await tx.insert(auditEvents).values({ applicationId, personId: row.id, what: 'signed-up' });
  });
}

/** Confirms the address that the link was sent to. Returns whether there was one waiting. */
export async function confirm(applicationId: string, token: string): Promise<boolean> {
  return database().transaction(async (tx) => {
    const [row] = await tx
      .delete(confirmations)
      .where(and(eq(confirmations.tokenHash, hashToken(token)), gt(confirmations.expiresAt, sql`now()`)))
      .returning({ personId: confirmations.personId });
    if (!row) return false;
    const done = await tx
      .update(people)
      .set({ confirmed: true })
      .where(and(eq(people.id, row.personId), eq(people.applicationId, applicationId)))
      .returning({ id: people.id });
    return done.length > 0;
  });
}

/** The person joins a role that people may join by themselves, or leaves it. */
export async function joinOrLeave(
  visit: Visit,
  definition: Definition,
  role: Id,
  join: boolean,
): Promise<void> {
  requireOneself(visit);
  const { person, applicationId } = visit;
  if (!person || !definition.roles.some((one) => one.id === role && one.joinable)) throw notThere();
  // An assignment with a unit or a period was made by somebody else, and is not touched.
  const own = and(
    eq(assignments.personId, person.id),
    eq(assignments.roleId, role),
    isNull(assignments.unitId),
    isNull(assignments.from),
    isNull(assignments.until),
  );
  await database().transaction(async (tx) => {
    await tx.delete(assignments).where(own);
    if (join) await tx.insert(assignments).values({ personId: person.id, roleId: role });
    await tx
      .insert(auditEvents)
      .values({ applicationId, personId: person.id, what: join ? 'joined' : 'left', detail: { role } });
  });
}
