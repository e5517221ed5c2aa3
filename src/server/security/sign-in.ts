import { and, eq, gt, sql } from 'drizzle-orm';
import { database } from '../database/client';
import { auditEvents, builders, people, signInAttempts } from '../database/schema';
import { Refused } from '../http/problem';
import { isPassword } from './password';
import { openSession } from './sessions';

const MOST_FAILURES = 10;
const MINUTES = 15;

/** Signs a builder in to the studio. Returns the session's token. */
export async function signInToStudio(email: string, password: string): Promise<string> {
  return limited(`studio ${email.toLowerCase()}`, async () => {
    const [builder] = await database().select().from(builders).where(eq(builders.email, email.toLowerCase()));
    if (!(await isPassword(builder?.passwordHash, password)) || !builder) return undefined;
    await database().insert(auditEvents).values({ builderId: builder.id, what: 'studio-sign-in' });
    return openSession({ audience: 'studio', builderId: builder.id });
  });
}

/** Signs a person in to a released application. Who is switched off gets the answer of a wrong password. */
export async function signInToLive(applicationId: string, email: string, password: string): Promise<string> {
  const personId = await personWithPassword(applicationId, email, password);
  await database().insert(auditEvents).values({ applicationId, personId, what: 'sign-in' });
  return openSession({ audience: 'live', applicationId, personId });
}

/** The person whose password it is; limited as signing in is, and refused in the same words. */
export async function personWithPassword(
  applicationId: string,
  email: string,
  password: string,
): Promise<string> {
  return limited(`live ${applicationId} ${email.toLowerCase()}`, async () => {
    const [person] = await database()
      .select()
      .from(people)
      .where(
        and(
          eq(people.applicationId, applicationId),
          eq(people.email, email.toLowerCase()),
          eq(people.active, true),
          eq(people.confirmed, true),
        ),
      );
    return (await isPassword(person?.passwordHash, password)) ? person?.id : undefined;
  });
}

/**
 * Tries to sign in, at most so often for one account. The attempt is written before the password is
 * looked at, so that many at once are counted too; a right one is taken off again.
 */
async function limited(account: string, tryIt: () => Promise<string | undefined>): Promise<string> {
  const on = database();
  const [attempt] = await on.insert(signInAttempts).values({ account }).returning();
  const recent = and(
    eq(signInAttempts.account, account),
    gt(signInAttempts.at, sql`now() - make_interval(mins => ${MINUTES})`),
  );
  const attempts = await on.$count(signInAttempts, recent);
  if (attempts > MOST_FAILURES)
    throw new Refused(429, 'too-many-attempts', `Too many attempts. Try again in ${MINUTES} minutes.`, {
      headers: { 'Retry-After': String(MINUTES * 60) },
    });
  const token = await tryIt();
  if (token === undefined)
    throw new Refused(401, 'wrong-credentials', 'This e-mail address and password do not go together.');
  if (attempt) await on.delete(signInAttempts).where(eq(signInAttempts.id, attempt.id));
  await on.delete(signInAttempts).where(sql`${signInAttempts.at} < now() - interval '1 day'`);
  return token;
}
