import { createHash, randomBytes } from 'node:crypto';
import { eq, lt, sql } from 'drizzle-orm';
import { database, type Executor } from '../database/client';
import { isSecure } from '../hosts.mjs';
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
  /** For https only. */
  readonly secure: boolean;
  /** How long the browser keeps it, in seconds. */
  readonly age: number;
}

let known: { name: string; demoPassword: string | null } | undefined;

/** What the installation knows of itself. It is written once, before the server starts. */
export async function theInstallation(): Promise<{ name: string; demoPassword: string | null }> {
  if (known) return known;
  const [row] = await database().select().from(installation);
  if (!row) throw new Error('The database has not been set up. Run bin/start to set it up.');
  return (known = row);
}

type Kind = 'session' | 'device';
const AGES: Readonly<Record<Kind, number>> = { session: HOURS * 3600, device: 400 * 24 * 3600 };

/**
 * Over https a cookie's name begins with `__Host-` (RFC 6265bis, section 4.1.3.2): the browser then takes it from
 * this very host only, and it is for all paths. Else it is bound to the path of its part.
 */
async function place(part: 'studio' | 'live', own: string, path: string, kind: Kind): Promise<CookiePlace> {
  const { name } = await theInstallation();
  const secure = isSecure(part);
  // Before all else, where no part of an address can stand: an application may be called `anything-device`.
  const device = kind === 'device' ? 'device.' : '';
  const age = AGES[kind];
  if (secure) return { name: `__Host-zinc-${device}${name}-${own}`, path: '/', secure, age };
  return { name: `zinc-${device}${name}-${part}`, path, secure, age };
}

export const studioCookie = (kind: Kind = 'session'): Promise<CookiePlace> =>
  place('studio', 'studio', '/studio', kind);

export const liveCookie = (slug: string, kind: Kind = 'session'): Promise<CookiePlace> =>
  place('live', `live-${slug}`, `/live/${slug}`, kind);

/** The Set-Cookie value (RFC 6265) that gives the token to the browser, or takes it away. */
export function cookieHeader({ name, path, secure, age }: CookiePlace, token: string | null): string {
  const parts = [`${name}=${token ?? ''}`, `Path=${path}`, `Max-Age=${token === null ? 0 : age}`];
  return [...parts, 'HttpOnly', 'SameSite=Lax', ...(secure ? ['Secure'] : [])].join('; ');
}
