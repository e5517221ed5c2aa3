import { and, asc, eq } from 'drizzle-orm';
import type { BuilderRole } from '@/contract/builder-roles';
import type { BuilderRow } from '@/contract/studio/builders';
import { database, type Executor } from '../database/client';
import { auditEvents, builders, invitations, memberships, type LiveRight } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { studioAccount } from '../security/attempts';
import { liftWaits } from '../security/lifting';
import { mayRelease, type Workplace } from './builder';

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
      releases: mayRelease,
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
      throw new Refused(409, 'last-owner', 'This is the only owner. Make someone else an owner first.');
    const where = and(eq(memberships.applicationId, applicationId), eq(memberships.builderId, builderId));
    if (role === null) await tx.delete(memberships).where(where);
    else await tx.update(memberships).set({ role }).where(where);
    // With the membership go the invitations of who is let out.
    if (role !== null && role !== 'owner')
      await tx
        .delete(invitations)
        .where(and(eq(invitations.applicationId, applicationId), eq(invitations.invitedBy, builderId)));
    const what = role === null ? 'builder-let-out' : 'builder-role';
    await tellAudit(tx, applicationId, own.id, what, { builder: builderId, ...(role && { role }) });
  });
}

/** What a builder may do besides building. */
interface Rights {
  readonly live: LiveRight;
  readonly people: boolean;
  readonly releases: boolean;
}

/** Gives a builder rights to what is live, or takes them; what is not named stays. */
export async function giveRights(
  { applicationId, builder: own }: Workplace,
  builderId: string,
  rights: { readonly [R in keyof Rights]?: Rights[R] | undefined },
): Promise<void> {
  await database().transaction(async (tx) => {
    const [changed] = await tx
      .update(memberships)
      .set(rights)
      .where(and(eq(memberships.applicationId, applicationId), eq(memberships.builderId, builderId)))
      .returning();
    if (!changed) throw notThere();
    const given: Record<string, string> = { builder: builderId };
    for (const [right, value] of Object.entries(rights)) given[right] = String(value);
    await tellAudit(tx, applicationId, own.id, 'live-right', given);
  });
}

/** A builder need not wait any more to sign in, after wrong tries. */
export async function liftBuilderWaits(
  { applicationId, builder: own }: Workplace,
  builderId: string,
): Promise<void> {
  await database().transaction(async (tx) => {
    const [one] = await tx
      .select({ email: builders.email })
      .from(memberships)
      .innerJoin(builders, eq(builders.id, memberships.builderId))
      .where(and(eq(memberships.applicationId, applicationId), eq(memberships.builderId, builderId)));
    if (!one) throw notThere();
    const waiting = { account: studioAccount(one.email), applicationId, to: one.email, forBuilder: true };
    await liftWaits(tx, waiting, builderId === own.id);
    await tellAudit(tx, applicationId, own.id, 'waits-lifted', { builder: builderId });
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

/** Whom this builder keeps in their rail. */
export async function keepPins({ applicationId, builder }: Workplace, pins: string[]): Promise<void> {
  await database()
    .update(memberships)
    .set({ pins })
    .where(and(eq(memberships.applicationId, applicationId), eq(memberships.builderId, builder.id)));
}
