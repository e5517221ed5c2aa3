import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import type { ShownSweep } from '@/contract/studio/proving';
import { database } from '../../database/client';
import { applications, builders, releases, sweeps } from '../../database/schema';
import { Refused } from '../../http/problem';
import { notifyChange } from '../../notifications/notices';

const KEPT = 30;

/** The newest sweeps of an application, the last one first. */
export async function listSweeps(applicationId: string, most = KEPT): Promise<ShownSweep[]> {
  const rows = await database()
    .select({ sweep: sweeps, by: builders.name })
    .from(sweeps)
    .leftJoin(builders, eq(builders.id, sweeps.builderId))
    .where(eq(sweeps.applicationId, applicationId))
    .orderBy(desc(sweeps.at))
    .limit(most);
  return rows.map(({ sweep, by }) => {
    const { applicationId: _, copy: __, builderId: ___, at, endedAt, ...rest } = sweep;
    return { ...rest, by, at: at.toISOString(), endedAt: endedAt?.toISOString() ?? null };
  });
}

/** Asks for a sweep of the draft as it is now, or of the release in force, with or without what is like what was asked already. One at a time for an application. */
export async function startSweep(
  applicationId: string,
  builderId: string | null,
  { released, whole }: { readonly released: boolean; readonly whole: boolean },
): Promise<string> {
  return database().transaction(async (tx) => {
    const [application] = await tx
      .select()
      .from(applications)
      .where(eq(applications.id, applicationId))
      .for('update');
    const now = await tx.$count(
      sweeps,
      and(eq(sweeps.applicationId, applicationId), inArray(sweeps.state, ['waiting', 'running', 'stopping'])),
    );
    if (now > 0) throw new Refused(409, 'sweeping', 'A sweep of this application is already running.');
    const release = released ? (application?.release ?? null) : null;
    if (released && release === null)
      throw new Refused(409, 'not-released', 'There is no release yet. Sweep the draft instead.');
    const [of] =
      release === null
        ? [{ revision: application?.headRevision ?? 0 }]
        : await tx
            .select({ revision: releases.revision })
            .from(releases)
            .where(and(eq(releases.applicationId, applicationId), eq(releases.number, release)));
    const [row] = await tx
      .insert(sweeps)
      .values({ applicationId, release, revision: of?.revision ?? 0, whole, builderId })
      .returning({ id: sweeps.id });
    await notifyChange(tx, applicationId, 'sweep');
    return row?.id ?? '';
  });
}

/** Stops what is under way; what was found until then is kept. */
export async function stopSweep(applicationId: string): Promise<void> {
  await database()
    .update(sweeps)
    .set({ state: sql`case when ${sweeps.state} = 'waiting' then 'stopped' else 'stopping' end` })
    .where(and(eq(sweeps.applicationId, applicationId), inArray(sweeps.state, ['waiting', 'running'])));
  await notifyChange(database(), applicationId, 'swept');
}
