import { randomBytes } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { database } from '../database/client';
import { auditEvents, builders, people } from '../database/schema';
import { knowDevice, limited, liveAccount, studioAccount, untoldTries, type Client } from './attempts';
import { isPassword } from './password';
import { openSession } from './sessions';

/** What signing in gives. */
export interface SignedIn {
  /** The session's token. */
  readonly token: string;
  /** The device's token, by which it is known the next time. */
  readonly device: string;
  /** How many wrong tries there were since the last time. */
  readonly failed: number;
}

/** Signs a builder in to the studio. */
export async function signInToStudio(email: string, password: string, client: Client): Promise<SignedIn> {
  const account = studioAccount(email);
  const builderId = await limited(account, client, async () => {
    const [builder] = await database()
      .select()
      .from(builders)
      .where(eq(builders.email, email.trim().toLowerCase()));
    return (await isPassword(builder?.passwordHash ?? undefined, password)) ? builder?.id : undefined;
  });
  await database().insert(auditEvents).values({ builderId, what: 'studio-sign-in' });
  return known(account, client, await openSession({ audience: 'studio', builderId }));
}

/** Signs a person in to a released application. Who is switched off gets the answer of a wrong password. */
export async function signInToLive(
  applicationId: string,
  email: string,
  password: string,
  client: Client,
): Promise<SignedIn> {
  const personId = await personWithPassword(applicationId, email, password, client);
  await database().insert(auditEvents).values({ applicationId, personId, what: 'sign-in' });
  const token = await openSession({ audience: 'live', applicationId, personId });
  return known(liveAccount(applicationId, email), client, token);
}

async function known(account: string, client: Client, token: string): Promise<SignedIn> {
  const device = client.device ?? randomBytes(32).toString('base64url');
  await knowDevice(account, device);
  return { token, device, failed: await untoldTries(account) };
}

/** The person whose password it is; limited as signing in is, and refused in the same words. */
export async function personWithPassword(
  applicationId: string,
  email: string,
  password: string,
  client: Client,
): Promise<string> {
  return limited(liveAccount(applicationId, email), client, async () => {
    const [person] = await database()
      .select()
      .from(people)
      .where(
        and(
          eq(people.applicationId, applicationId),
          eq(people.email, email.trim().toLowerCase()),
          eq(people.active, true),
          eq(people.confirmed, true),
        ),
      );
    return (await isPassword(person?.passwordHash ?? undefined, password)) ? person?.id : undefined;
  });
}
