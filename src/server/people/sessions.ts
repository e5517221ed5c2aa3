import { and, eq, gt, sql } from 'drizzle-orm';
import { database } from '../database/client';
import { sessions } from '../database/schema';

/** What one running session holds, as the builder sees it. */
export interface RunningSession {
  readonly since: string;
  readonly values: Readonly<Record<string, { readonly value: string | boolean; readonly until: number }>>;
  readonly unlocked: readonly { readonly element: string; readonly until: number }[];
}

/** A person's running sessions. What has ended in them is left out. */
export async function sessionsOf(personId: string): Promise<RunningSession[]> {
  const rows = await database()
    .select({ since: sessions.createdAt, values: sessions.values, unlocked: sessions.unlocked })
    .from(sessions)
    .where(and(eq(sessions.personId, personId), gt(sessions.expiresAt, sql`now()`)));
  const now = Date.now();
  return rows.map(({ since, values, unlocked }) => ({
    since: since.toISOString(),
    values: Object.fromEntries(Object.entries(values).filter(([, held]) => held.until > now)),
    unlocked: unlocked.filter((one) => one.until > now).map(({ element, until }) => ({ element, until })),
  }));
}
