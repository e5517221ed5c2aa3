import { and, eq, gt, isNull, sql } from 'drizzle-orm';
import { comparedAttributes } from '@/core/access';
import type { Definition, Id } from '@/core/model';
import { liveAddress } from '../hosts.mjs';
import { database } from '../database/client';
import { assignments, auditEvents, outbox, people } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { checkPerson } from '../people/input';
import { givenToNew } from '../people/write';
import { sendLink } from '../people/links';
import { countAskedAccount, type Client } from '../security/attempts';
import { requireOneself } from './acting-as';
import type { Visit } from './who-visits';

const MOST_MESSAGES_A_DAY = 5;
/** So long an answer takes at least, in milliseconds. */
const LEAST_MS = 150;

/**
 * Opens an account for somebody who asks for it. They are nobody until they open the link in the message that is
 * put in the outbox, and choose a password there: so the account is whose address it is. Asked again, the newest
 * link counts. The answer is the same where the address has an account already: then the message says so, and
 * nothing else happens.
 */
export async function signUp(
  visit: Visit,
  definition: Definition,
  input: { readonly name: string; readonly email: string },
  client: Client,
): Promise<void> {
  if (!definition.signUp) throw notThere();
  const checked = checkPerson(definition, { name: input.name, email: input.email });
  if ('problems' in checked)
    throw new Refused(422, 'values', 'Some values are not valid. Check the marked fields.', {
      errors: checked.problems,
    });
  await countAskedAccount(visit.applicationId, client);
  const { email = '' } = checked.value;
  // A name that access depends on is not given to oneself.
  const compared = comparedAttributes(definition).has('name');
  const name = compared ? email : (checked.value.name ?? '');
  // What is done for an address that has an account takes less: the time of the answer must not tell.
  const least = new Promise((resolve) => setTimeout(resolve, LEAST_MS));
  const [sent] = await Promise.allSettled([makeUnconfirmed(visit, definition, email, name), least]);
  if (sent.status === 'rejected') throw sent.reason;
}

async function makeUnconfirmed(
  visit: Visit,
  definition: Definition,
  email: string,
  name: string,
): Promise<void> {
  const { applicationId } = visit;
  await database().transaction(async (tx) => {
    // Requests for one address come one after another, so that they are counted.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${`${applicationId} ${email}`}, 2))`);
    const today = and(
      eq(outbox.applicationId, applicationId),
      eq(outbox.to, email),
      gt(outbox.at, sql`now() - interval '1 day'`),
    );
    if ((await tx.$count(outbox, today)) >= MOST_MESSAGES_A_DAY)
      throw new Refused(
        429,
        'too-many-messages',
        'Too many messages have been sent to this address. Try again tomorrow.',
      );
    await tx.insert(people).values({ applicationId, name, email, confirmed: false }).onConflictDoNothing();
    const [person] = await tx
      .select()
      .from(people)
      .where(and(eq(people.applicationId, applicationId), eq(people.email, email)));
    if (!person) throw new Error('The person was not stored');
    if (person.confirmed) {
      await tx.insert(outbox).values({
        applicationId,
        to: email,
        subject: `${visit.name}: you already have an account`,
        body: `Someone tried to sign up with this email address, but it already has an account. If it was you, sign in at ${liveAddress(visit.slug)}/sign-in. If not, you can ignore this message.`,
      });
      return;
    }
    const held = await tx.$count(assignments, eq(assignments.personId, person.id));
    const roles = givenToNew(definition).map(({ role: roleId }) => ({ personId: person.id, roleId }));
    if (held === 0 && roles.length > 0) await tx.insert(assignments).values(roles);
    await sendLink(tx, applicationId, person, 'asked', name);
    await tx.insert(auditEvents).values({ applicationId, personId: person.id, what: 'signed-up' });
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
