import { randomBytes } from 'node:crypto';
import { and, asc, eq, gt, sql } from 'drizzle-orm';
import { accountFault } from '@/core/model';
import { database, type Executor } from '../database/client';
import {
  auditEvents,
  builderLinks,
  builders,
  memberships,
  outbox,
  sessions,
  type LiveRight,
} from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { studioAddress } from '../hosts.mjs';
import { hashPassword } from '../security/password';
import { hashToken } from '../security/sessions';
import type { Workplace } from './builder';

export const BUILDER_ROLES = ['owner', 'editor', 'reviewer'] as const;
type BuilderRole = (typeof BUILDER_ROLES)[number];

/** How long the link of somebody who was let in can be opened, in hours. */
const HOURS = 7 * 24;

interface BuilderRow {
  readonly id: string;
  readonly name: string;
  /** For owners only. */
  readonly email?: string;
  readonly role: BuilderRole;
  readonly live: LiveRight;
  readonly people: boolean;
  /** Have they not chosen a password yet? */
  readonly waiting: boolean;
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
      waiting: sql<boolean>`${builders.passwordHash} is null`,
    })
    .from(memberships)
    .innerJoin(builders, eq(builders.id, memberships.builderId))
    .where(eq(memberships.applicationId, applicationId))
    .orderBy(asc(builders.name));
  return role === 'owner' ? rows : rows.map(({ email: _, ...row }) => row);
}

interface Invited {
  readonly email: string;
  readonly name: string;
  readonly role: BuilderRole;
}

interface LetIn {
  /** For who has no account yet. */
  readonly link?: string;
  /** Whose account it is that they have. An address alone is no proof: others may have made it. */
  readonly known?: { readonly name: string; readonly since: string };
}

/**
 * Lets somebody in. Who has an account here finds the application at their home, and whose it is is given back to be
 * looked at; who has none gets one, and the link to choose its password is given back, for their owner to send: until
 * there is mail, it stands in the outbox too.
 */
export async function inviteBuilder(
  { applicationId, name: application, builder: own }: Workplace,
  { email: written, name, role }: Invited,
): Promise<LetIn> {
  const email = written.trim().toLowerCase();
  const errors = (['email', 'name'] as const).flatMap((field) => {
    const fault = accountFault(field, field === 'email' ? email : name);
    return fault === undefined ? [] : [{ field, detail: fault }];
  });
  if (errors.length > 0) throw new Refused(422, 'values', 'Some of this is not right yet.', { errors });
  return database().transaction(async (tx) => {
    await tx
      .insert(builders)
      .values({ email, name: name.trim() })
      .onConflictDoNothing({ target: builders.email });
    const [account] = await tx.select().from(builders).where(eq(builders.email, email)).for('update');
    if (!account) throw new Error('The account was not stored');
    const added = await tx
      .insert(memberships)
      .values({ applicationId, builderId: account.id, role })
      .onConflictDoNothing()
      .returning();
    if (added.length === 0)
      throw new Refused(409, 'there', 'They are a builder of this application already.', {
        errors: [{ field: 'email', detail: 'They are a builder of this application already.' }],
      });
    const link = account.passwordHash === null ? await newLink(tx, account.id) : undefined;
    await tx.insert(outbox).values({
      applicationId,
      to: email,
      subject: `${application}: you can build it too`,
      body: link
        ? `${own.name} has let you in as ${role}. Open this link within a week, and choose a password: {link}`
        : `${own.name} has let you in as ${role}. You find it in the studio.`,
      ...(link && { link }),
      ownersOnly: true,
    });
    await tellAudit(tx, applicationId, own.id, 'builder-let-in', { builder: account.id, role });
    if (link) return { link };
    return { known: { name: account.name, since: account.createdAt.toISOString() } };
  });
}

/** A new link for somebody who has not chosen a password yet. Those before it are no keys any more. */
export async function linkForBuilder(
  { applicationId, builder: own }: Workplace,
  builderId: string,
): Promise<string> {
  return database().transaction(async (tx) => {
    const [account] = await tx
      .select({ hash: builders.passwordHash })
      .from(memberships)
      .innerJoin(builders, eq(builders.id, memberships.builderId))
      .where(and(eq(memberships.applicationId, applicationId), eq(memberships.builderId, builderId)))
      .for('update', { of: builders });
    if (!account) throw notThere();
    if (account.hash !== null)
      throw new Refused(409, 'has-password', 'They have chosen a password already. It is theirs to change.');
    await tellAudit(tx, applicationId, own.id, 'link-shown', { builder: builderId });
    return newLink(tx, builderId);
  });
}

async function newLink(tx: Executor, builderId: string): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  await tx.delete(builderLinks).where(eq(builderLinks.builderId, builderId));
  await tx.insert(builderLinks).values({
    builderId,
    tokenHash: hashToken(token),
    expiresAt: sql`now() + make_interval(hours => ${HOURS})`,
  });
  return `${studioAddress()}/join?token=${token}`;
}

/** Whose link it is, if it can be opened. Looking uses nothing up. */
export async function invitedBy(
  token: string,
  on: Executor = database(),
): Promise<{ readonly id: string; readonly email: string; readonly name: string } | undefined> {
  const [row] = await on
    .select({ id: builders.id, email: builders.email, name: builders.name })
    .from(builderLinks)
    .innerJoin(builders, eq(builders.id, builderLinks.builderId))
    .where(and(eq(builderLinks.tokenHash, hashToken(token)), gt(builderLinks.expiresAt, sql`now()`)));
  return row;
}

/** Whoever opened the link chooses the password of the account, once. */
export async function join(token: string, password: string): Promise<void> {
  const fault = accountFault('password', password);
  if (fault !== undefined)
    throw new Refused(422, 'values', fault, { errors: [{ field: 'password', detail: fault }] });
  const usedUp = (): Refused =>
    new Refused(410, 'used-up', 'This link cannot be used any more. Ask who let you in for another.');
  if (!(await invitedBy(token))) throw usedUp();
  const passwordHash = await hashPassword(password);
  await database().transaction(async (tx) => {
    const [link] = await tx
      .delete(builderLinks)
      .where(and(eq(builderLinks.tokenHash, hashToken(token)), gt(builderLinks.expiresAt, sql`now()`)))
      .returning();
    if (!link) throw usedUp();
    await tx.update(builders).set({ passwordHash }).where(eq(builders.id, link.builderId));
    await tx.delete(sessions).where(eq(sessions.builderId, link.builderId));
    await tx.insert(auditEvents).values({ builderId: link.builderId, what: 'password-chosen' });
  });
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

async function tellAudit(
  tx: Executor,
  applicationId: string,
  builderId: string,
  what: string,
  detail: Record<string, string>,
): Promise<void> {
  await tx.insert(auditEvents).values({ applicationId, builderId, what, detail });
}
