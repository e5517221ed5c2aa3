import { createHash } from 'node:crypto';
import { and, eq, gt, inArray, lt, sql } from 'drizzle-orm';
import { counted } from '@/core/edit';
import { database, type Executor } from '../database/client';
import {
  auditEvents,
  builders,
  devices,
  liftedWaits,
  outbox,
  people,
  signInAttempts,
} from '../database/schema';
import { Refused } from '../http/problem';

/** Who tries to sign in, as far as the network tells. */
export interface Client {
  /** The address that the request came from. */
  readonly address: string;
  /** The token of the device's cookie, if it sent one. */
  readonly device: string | undefined;
}

/** Whose account: `studio EMAIL`, or `live APPLICATION EMAIL`. */
export const studioAccount = (email: string): string => `studio ${email.trim().toLowerCase()}`;
export const liveAccount = (applicationId: string, email: string): string =>
  `live ${applicationId} ${email.trim().toLowerCase()}`;

/** Wrong tries that cost nothing, and the longest wait in seconds: by one source into one account, by one source into any, and by anybody into one account. */
const LIMITS = {
  own: { free: 5, longest: 900 },
  source: { free: 30, longest: 900 },
  account: { free: 40, longest: 10 },
  /** Accounts that one source asks for. */
  asked: { free: 20, longest: 900 },
} as const;

/** After so many in a day, whose account it is gets a message. */
const TOLD_AFTER = 10;

/** How long to wait after so many wrong tries, in seconds: twice as long each time. */
export const waitAfter = (tries: number, { free, longest }: { free: number; longest: number }): number =>
  tries < free ? 0 : Math.min(longest, 2 ** Math.min(tries - free, 20));

/**
 * Whose address it is, as far as it tells people apart: of IPv6 the first 64 bits, since whoever has one has all that
 * begin so (RFC 6177); an IPv4 address that is written as one of IPv6 is that.
 */
export function networkOf(address: string): string {
  const plain = address.replace(/^::ffff:(?=\d+\.)/i, '').replace(/%.*$/, '');
  if (!plain.includes(':')) return plain;
  const [before = '', after] = plain.split('::');
  const parts = (text: string): string[] => text.split(':').filter(Boolean);
  const missing = 8 - parts(before).length - parts(after ?? '').length;
  const all = [...parts(before), ...Array<string>(Math.max(0, missing)).fill('0'), ...parts(after ?? '')];
  return `${all
    .slice(0, 4)
    .map((part) => part.toLowerCase().replace(/^0+(?=.)/, ''))
    .join(':')}::/64`;
}

const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/**
 * Tries to sign in to an account. Wrong tries make the next one wait, by the account and where it comes from
 * together, each time longer; a device that signed in to this account before waits for its own wrong tries only.
 * A try is written down before the password is looked at, so that many at once are counted too, and taken off
 * again if it was right. One that has to wait is refused at once and does not lengthen the wait.
 */
export async function limited<T>(
  account: string,
  client: Client,
  tryIt: () => Promise<T | undefined>,
): Promise<T> {
  const id = await begin(account, client);
  const done = await tryIt();
  if (done === undefined) {
    await keepFailure(account, client);
    await tellOf(account);
    throw new Refused(401, 'wrong-credentials', 'The email address or password is incorrect.');
  }
  const own = database()
    .select({ source: signInAttempts.source })
    .from(signInAttempts)
    .where(eq(signInAttempts.id, id));
  await database()
    .delete(signInAttempts)
    .where(and(eq(signInAttempts.account, account), inArray(signInAttempts.source, own)));
  return done;
}

async function begin(account: string, { address, device }: Client): Promise<string> {
  const on = database();
  await on.delete(signInAttempts).where(lt(signInAttempts.at, sql`now() - interval '1 day'`));
  const known = device !== undefined && (await isKnown(account, device));
  const source = known ? `device ${hashOf(device)}` : `address ${networkOf(address)}`;
  return on.transaction(async (tx) => {
    // Those of one source are counted one after another.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${source}, 1))`);
    const into = and(eq(signInAttempts.account, account), sinceLifted(account));
    const waits = [
      await waitOf(tx, and(into, eq(signInAttempts.source, source)), LIMITS.own),
      ...(known
        ? []
        : [
            await waitOf(tx, eq(signInAttempts.source, source), LIMITS.source),
            await waitOf(tx, into, LIMITS.account),
          ]),
    ];
    const seconds = Math.ceil(Math.max(...waits));
    if (seconds > 0) throw tooMany('There were many wrong tries.', seconds);
    const [row] = await tx.insert(signInAttempts).values({ account, source }).returning();
    if (!row) throw new Error('The attempt was not stored');
    return row.id;
  });
}

const tooMany = (why: string, seconds: number): Refused =>
  new Refused(429, 'too-many-attempts', `${why} Try again in ${inWords(seconds)}.`, {
    headers: { 'Retry-After': String(seconds) },
  });

/** Tries since somebody lifted the waits of the account, if anybody has. */
const sinceLifted = (account: string) =>
  gt(
    signInAttempts.at,
    sql`coalesce((select ${liftedWaits.at} from ${liftedWaits} where ${liftedWaits.account} = ${account}), '-infinity')`,
  );

const inWords = (seconds: number): string =>
  seconds < 90 ? counted(seconds, 'second') : counted(Math.ceil(seconds / 60), 'minute');

/** Counts an account that is asked for in an application. One address may ask for some; then it waits, longer each time. */
export async function countAskedAccount(applicationId: string, { address }: Client): Promise<void> {
  const such = { account: `asked ${applicationId}`, source: `asked from ${networkOf(address)}` };
  await database().transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${such.source}, 12))`);
    const these = and(eq(signInAttempts.account, such.account), eq(signInAttempts.source, such.source));
    const seconds = Math.ceil(await waitOf(tx, these, LIMITS.asked));
    if (seconds > 0) throw tooMany('Many accounts were asked for from here.', seconds);
    await tx.insert(signInAttempts).values(such);
  });
}

/** How many seconds are left to wait, by the tries that are such. */
async function waitOf(
  tx: Executor,
  such: ReturnType<typeof and>,
  limit: { free: number; longest: number },
): Promise<number> {
  const [found] = await tx
    .select({
      tries: sql<number>`count(*)::int`,
      since: sql<number>`coalesce(extract(epoch from now() - max(${signInAttempts.at})), 1e9)::float8`,
    })
    .from(signInAttempts)
    .where(and(such, gt(signInAttempts.at, sql`now() - interval '1 day'`)));
  return found ? waitAfter(found.tries, limit) - found.since : 0;
}

async function isKnown(account: string, device: string): Promise<boolean> {
  const where = and(eq(devices.tokenHash, hashOf(device)), eq(devices.account, account));
  return (await database().$count(devices, where)) > 0;
}

/** The device signed in to the account: from now on others' wrong tries do not slow it down. */
export async function knowDevice(account: string, device: string): Promise<void> {
  await database()
    .insert(devices)
    .values({ tokenHash: hashOf(device), account })
    .onConflictDoUpdate({ target: [devices.tokenHash, devices.account], set: { usedAt: sql`now()` } });
  await database()
    .delete(devices)
    .where(lt(devices.usedAt, sql`now() - interval '400 days'`));
}

/** How many wrong tries there were by others since this was last asked: to be told to whose account it is. */
export async function untoldTries(account: string): Promise<number> {
  const told = await database()
    .update(signInAttempts)
    .set({ told: true })
    .where(and(eq(signInAttempts.account, account), eq(signInAttempts.told, false)))
    .returning({ id: signInAttempts.id });
  return told.length;
}

/** Who has just shown that the account is theirs, by a link to its address, begins anew. */
export async function forgetTries(account: string, on: Executor): Promise<void> {
  await on.delete(signInAttempts).where(eq(signInAttempts.account, account));
}

/** Keeps in the audit trail that somebody failed to sign in, to which account if there is one, and from where. */
async function keepFailure(account: string, { address }: Client): Promise<void> {
  const [kind, ...rest] = account.split(' ');
  const email = rest.at(-1) ?? '';
  const [applicationId] = kind === 'live' ? rest : [];
  // An address that has no account is not kept: people write passwords there by mistake.
  const whose =
    applicationId === undefined
      ? database().select({ id: builders.id }).from(builders).where(eq(builders.email, email))
      : database()
          .select({ id: people.id })
          .from(people)
          .where(and(eq(people.applicationId, applicationId), eq(people.email, email)));
  const [of] = await whose;
  await database()
    .insert(auditEvents)
    .values({
      applicationId,
      what: 'sign-in-failed',
      detail: { from: networkOf(address), ...(of && { [kind === 'live' ? 'person' : 'builder']: of.id }) },
    });
}

/** After many wrong tries, a message to the person, once a day. */
async function tellOf(account: string): Promise<void> {
  const [kind, applicationId = '', email = ''] = account.split(' ');
  if (kind !== 'live') return;
  const recent = and(
    eq(signInAttempts.account, account),
    gt(signInAttempts.at, sql`now() - interval '1 day'`),
  );
  if ((await database().$count(signInAttempts, recent)) !== TOLD_AFTER) return;
  const person = and(eq(people.applicationId, applicationId), eq(people.email, email));
  if ((await database().$count(people, person)) === 0) return;
  await database()
    .insert(outbox)
    .values({
      applicationId,
      to: email,
      subject: 'Failed attempts to sign in to your account',
      body: `There have been ${TOLD_AFTER} failed attempts to sign in with this email address today. If this was not you, you do not need to do anything: each failed attempt makes the next one wait longer, and your own devices are not affected.`,
    });
}
