import { createHash, randomBytes } from 'node:crypto';
import { eq, lt, sql } from 'drizzle-orm';
import { database, type Executor } from '../database/client';
import { installation, sessions } from '../database/schema';

/** How long a session lasts, in hours. */
const HOURS = 12;

/** Whose session it is. The two kinds never serve for each other. */
export type SessionOf =
  | { readonly audience: 'studio'; readonly builderId: string }
  | { readonly audience: 'live'; readonly applicationId: string; readonly personId: string };

export const hashToken = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Opens a session and returns its token: 256 random bits, stored only as a hash. */
export async function openSession(of: SessionOf, on: Executor = database()): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  await on.delete(sessions).where(lt(sessions.expiresAt, sql`now()`));
  await on.insert(sessions).values({
    ...of,
    tokenHash: hashToken(token),
    expiresAt: sql`now() + make_interval(hours => ${HOURS})`,
  });
  return token;
}

export async function endSession(token: string): Promise<void> {
  await database()
    .delete(sessions)
    .where(eq(sessions.tokenHash, hashToken(token)));
}

/** A cookie's name and the addresses it is sent to. */
export interface CookiePlace {
  readonly name: string;
  readonly path: string;
}

let known: { name: string; demoPassword: string | null } | undefined;

/** What the installation knows of itself. It is written once, before the server starts. */
export async function theInstallation(): Promise<{ name: string; demoPassword: string | null }> {
  if (known) return known;
  const [row] = await database().select().from(installation);
  if (!row) throw new Error('The database is not set up. bin/start does it.');
  return (known = row);
}

export async function studioCookie(): Promise<CookiePlace> {
  return { name: `zinc-${(await theInstallation()).name}-studio`, path: '/studio' };
}

export async function liveCookie(slug: string): Promise<CookiePlace> {
  return { name: `zinc-${(await theInstallation()).name}-live`, path: `/live/${slug}` };
}

/** The Set-Cookie value (RFC 6265) that gives the token to the browser, or takes it away. */
export function cookieHeader({ name, path }: CookiePlace, token: string | null, secure: boolean): string {
  const age = token === null ? 0 : HOURS * 3600;
  const parts = [`${name}=${token ?? ''}`, `Path=${path}`, `Max-Age=${age}`, 'HttpOnly', 'SameSite=Lax'];
  return [...parts, ...(secure ? ['Secure'] : [])].join('; ');
}
