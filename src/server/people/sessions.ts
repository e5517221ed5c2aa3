import { and, eq, gt, sql } from 'drizzle-orm';
import type { RunningSession } from '@/contract/studio/people';
import { database } from '../database/client';
import { sessions } from '../database/schema';

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
