import { randomBytes } from 'node:crypto';
import { and, asc, eq, gt, sql } from 'drizzle-orm';
import { accountFault } from '@/core/model';
import type { Invitation } from '@/contract/studio/builders';
import { database, type Executor } from '../database/client';
import { applications, builders, invitations, memberships, outbox } from '../database/schema';
import { studioAddress } from '../hosts.mjs';
import { notThere, Refused } from '../http/problem';
import { hashPassword } from '../security/password';
import { passwordFault } from '../security/password-fault';
import { hashToken } from '../security/sessions';
import type { Builder, Workplace } from './builder';
import { tellAudit } from './builders';

/** How long the link of an invitation can be opened, in hours. */
const HOURS = 7 * 24;

/** Who was let in and has not opened their link yet. */
export async function invitationsOf({ applicationId }: Workplace): Promise<readonly Invitation[]> {
  const { id, email, name, role } = invitations;
  return database()
    .select({ id, email, name, role })
    .from(invitations)
    .where(eq(invitations.applicationId, applicationId))
    .orderBy(asc(name));
}

const wrong = (errors: readonly { readonly field: string; readonly detail: string }[]): Refused =>
  new Refused(422, 'values', 'Some values are not valid. Check the marked fields.', { errors });

const there = (detail: string): Refused =>
  new Refused(409, 'there', detail, { errors: [{ field: 'email', detail }] });

/**
 * Lets somebody in. It takes effect by the link in the message to their address, which nobody else is shown: so an account
 * that is made by it is whose address it is.
 */
export async function inviteBuilder(
  workplace: Workplace,
  { email: written, name, role }: Omit<Invitation, 'id'>,
): Promise<void> {
  const { applicationId, builder: own } = workplace;
  const email = written.trim().toLowerCase();
  const errors = (['email', 'name'] as const).flatMap((field) => {
    const fault = accountFault(field, field === 'email' ? email : name);
    return fault === undefined ? [] : [{ field, detail: fault }];
  });
  if (errors.length > 0) throw wrong(errors);
  await database().transaction(async (tx) => {
    await requireStillOwner(tx, workplace);
    const [member] = await tx
      .select()
      .from(memberships)
      .innerJoin(builders, eq(builders.id, memberships.builderId))
      .where(and(eq(memberships.applicationId, applicationId), eq(builders.email, email)));
    if (member) throw there('This person is already a builder of this application.');
    const { link, ...key } = newKey();
    const [added] = await tx
      .insert(invitations)
      .values({ applicationId, email, name: name.trim(), role, invitedBy: own.id, ...key })
      .onConflictDoNothing({ target: [invitations.applicationId, invitations.email] })
      .returning();
    if (!added)
      throw there(
        'This person has already been invited but has not accepted yet. Send the invitation again.',
      );
    await sendTo(tx, workplace, added, link);
    await tellAudit(tx, applicationId, own.id, 'builder-let-in', { email, role });
  });
}

/** Whoever has just ceased to be an owner lets nobody in: their rights are held fast until it is done. */
async function requireStillOwner(tx: Executor, { applicationId, builder }: Workplace): Promise<void> {
  const [still] = await tx
    .select({ role: memberships.role })
    .from(memberships)
    .where(and(eq(memberships.applicationId, applicationId), eq(memberships.builderId, builder.id)))
    .for('share');
  if (still?.role !== 'owner')
    throw new Refused(403, 'owner', 'Only an owner of the application can invite builders.');
}

async function sendTo(
  tx: Executor,
  { applicationId, name, builder }: Workplace,
  { email, role }: Pick<Invitation, 'email' | 'role'>,
  link: string,
): Promise<void> {
  await tx.insert(outbox).values({
    applicationId,
    to: email,
    subject: `Invitation to build ${name}`,
    body: `${builder.name} has invited you to build this application as ${role}. To accept, open this link within 7 days: {link}`,
    link,
    forBuilder: true,
  });
}

/** Sends a new link, for which its sender answers from now on. The one before it is no key any more. */
export async function sendInvitationAgain(workplace: Workplace, id: string): Promise<void> {
  const { applicationId, builder: own } = workplace;
  await database().transaction(async (tx) => {
    await requireStillOwner(tx, workplace);
    const { link, ...key } = newKey();
    const [changed] = await tx
      .update(invitations)
      .set({ ...key, invitedBy: own.id })
      .where(mine(applicationId, id))
      .returning();
    if (!changed) throw notThere();
    await sendTo(tx, workplace, changed, link);
    await tellAudit(tx, applicationId, own.id, 'link-sent', { email: changed.email });
  });
}

/** Takes an invitation back: its link opens nothing any more. */
export async function takeBackInvitation(
  { applicationId, builder: own }: Workplace,
  id: string,
): Promise<void> {
  await database().transaction(async (tx) => {
    const [gone] = await tx.delete(invitations).where(mine(applicationId, id)).returning();
    if (!gone) throw notThere();
    await tellAudit(tx, applicationId, own.id, 'invitation-taken-back', { email: gone.email });
  });
}

const mine = (applicationId: string, id: string) =>
  and(eq(invitations.applicationId, applicationId), eq(invitations.id, id));

function newKey() {
  const token = randomBytes(32).toString('base64url');
  return {
    link: `${studioAddress()}/join?token=${token}`,
    tokenHash: hashToken(token),
    expiresAt: sql`now() + make_interval(hours => ${HOURS})`,
  };
}

const opens = (token: string) =>
  and(eq(invitations.tokenHash, hashToken(token)), gt(invitations.expiresAt, sql`now()`));

/** What a link leads to, if it can be opened; `known`: its address has an account here. Looking uses nothing up. */
export async function invitationAt(token: string) {
  const [row] = await database()
    .select({
      email: invitations.email,
      role: invitations.role,
      application: applications.name,
      known: sql<boolean>`${builders.id} is not null`,
    })
    .from(invitations)
    .innerJoin(applications, eq(applications.id, invitations.applicationId))
    .leftJoin(builders, eq(builders.email, invitations.email))
    .where(opens(token));
  return row;
}

const usedUp = (): Refused =>
  new Refused(410, 'used-up', 'This link no longer works. Ask the person who invited you for a new one.');

/** Whoever opens the link while signed in becomes a builder of its application, once. */
export async function acceptInvitation(token: string, { id }: Pick<Builder, 'id'>): Promise<void> {
  await database().transaction(async (tx) => enter(tx, token, () => Promise.resolve(id)));
}

/** Whoever opens the link and has no account here gets one, with the password that they choose. */
export async function joinByInvitation(token: string, password: string): Promise<void> {
  const invitation = await invitationAt(token);
  if (!invitation) throw usedUp();
  const fault = passwordFault(password, [invitation.email]);
  if (fault !== undefined) throw wrong([{ field: 'password', detail: fault }]);
  const passwordHash = await hashPassword(password);
  await database().transaction(async (tx) =>
    enter(tx, token, async ({ email, name }) => {
      const [made] = await tx
        .insert(builders)
        .values({ email, name, passwordHash })
        .onConflictDoNothing({ target: builders.email })
        .returning();
      if (!made)
        throw new Refused(
          409,
          'known',
          'There is already an account with this email address. Sign in to it.',
        );
      return made.id;
    }),
  );
}

/** Uses an invitation up for a builder; all or nothing. */
async function enter(
  tx: Executor,
  token: string,
  builderOf: (invitation: Omit<Invitation, 'role'>) => Promise<string>,
): Promise<void> {
  const [used] = await tx.delete(invitations).where(opens(token)).returning();
  if (!used) throw usedUp();
  const { applicationId, role } = used;
  const builderId = await builderOf(used);
  const added = await tx
    .insert(memberships)
    .values({ applicationId, builderId, role })
    .onConflictDoNothing()
    .returning();
  if (added.length === 0) throw there('You are already a builder of this application.');
  await tellAudit(tx, applicationId, builderId, 'builder-came-in', { email: used.email, role });
}
