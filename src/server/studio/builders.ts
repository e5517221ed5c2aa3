import { and, asc, eq } from 'drizzle-orm';
import { database, type Executor } from '../database/client';
import { auditEvents, builders, memberships, type LiveRight } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import type { Workplace } from './builder';

export const BUILDER_ROLES = ['owner', 'editor', 'reviewer'] as const;
export type BuilderRole = (typeof BUILDER_ROLES)[number];

interface BuilderRow {
  readonly id: string;
  readonly name: string;
  /** For owners only. */
  readonly email?: string;
  readonly role: BuilderRole;
  readonly live: LiveRight;
  readonly people: boolean;
}

/** Who builds an application, and what each may do there. */
export async function buildersOf({ applicationId, role }: Workplace): Promise<readonly BuilderRow[]> {
  const rows = await database()
    .select({
      id: builders.id,
      name: builders.name,
      email: builders.email,
      role: memberships.role,
      live: memberships.live,
      people: memberships.people,
    })
    .from(memberships)
    .innerJoin(builders, eq(builders.id, memberships.builderId))
    .where(eq(memberships.applicationId, applicationId))
    .orderBy(asc(builders.name));
  return role === 'owner' ? rows : rows.map(({ email: _, ...row }) => row);
}

/** Gives a builder another role in the application, or (null) lets them out of it. Its last owner stays one. */
export async function changeBuilder(
  { applicationId, builder: own }: Workplace,
  builderId: string,
  role: BuilderRole | null,
): Promise<void> {
  await database().transaction(async (tx) => {
    // All of them: of two owners who let each other out at once, one stays.
    const all = await tx
      .select({ id: memberships.builderId, role: memberships.role })
      .from(memberships)
      .where(eq(memberships.applicationId, applicationId))
      .for('update');
    const there = all.find(({ id }) => id === builderId);
    if (!there) throw notThere();
    const owners = all.filter((one) => one.role === 'owner' && one.id !== builderId);
    if (there.role === 'owner' && role !== 'owner' && owners.length === 0)
      throw new Refused(409, 'last-owner', 'They are the last owner. Make somebody else an owner first.');
    const where = and(eq(memberships.applicationId, applicationId), eq(memberships.builderId, builderId));
    if (role === null) await tx.delete(memberships).where(where);
    else await tx.update(memberships).set({ role }).where(where);
    const what = role === null ? 'builder-let-out' : 'builder-role';
    await tellAudit(tx, applicationId, own.id, what, { builder: builderId, ...(role && { role }) });
  });
}

/** Keeps in the audit trail what was done about who builds the application. */
export async function tellAudit(
  tx: Executor,
  applicationId: string,
  builderId: string,
  what: string,
  detail: Record<string, string>,
): Promise<void> {
  await tx.insert(auditEvents).values({ applicationId, builderId, what, detail });
}
