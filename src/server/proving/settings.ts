import { eq } from 'drizzle-orm';
import type { ProofSettings } from '@/contract/studio/proving';
import { database } from '../database/client';
import { applications, auditEvents } from '../database/schema';
import { notThere } from '../http/problem';

/** What holds for releases and for what was signed off. */
export async function proofSettingsOf(applicationId: string): Promise<ProofSettings> {
  const [row] = await database()
    .select({ mayBreak: applications.mayBreak, remindDays: applications.remindDays })
    .from(applications)
    .where(eq(applications.id, applicationId));
  if (!row) throw notThere();
  return row;
}

/** Sets some of it, and writes that into the audit trail. */
export async function setProofSettings(
  applicationId: string,
  builderId: string,
  change: { readonly [K in keyof ProofSettings]?: ProofSettings[K] | undefined },
): Promise<void> {
  const to = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined));
  if (Object.keys(to).length === 0) return;
  const detail = Object.fromEntries(Object.entries(to).map(([key, value]) => [key, String(value)]));
  await database().transaction(async (tx) => {
    await tx.update(applications).set(to).where(eq(applications.id, applicationId));
    await tx.insert(auditEvents).values({ applicationId, builderId, what: 'proof-settings', detail });
  });
}
