import { randomBytes } from 'node:crypto';
import { and, asc, eq, gt, sql } from 'drizzle-orm';
import { accountFault } from '@/core/model';
import { database, type Executor } from '../database/client';
import { applications, builders, invitations, memberships, outbox } from '../database/schema';
import { studioAddress } from '../hosts.mjs';
import { notThere, Refused } from '../http/problem';
import { hashPassword } from '../security/password';
import { hashToken } from '../security/sessions';
import type { Builder, Workplace } from './builder';
import { tellAudit, type BuilderRole } from './builders';

/** How long the link of an invitation can be opened, in hours. */
const HOURS = 7 * 24;

interface Invitation {
  readonly id: string;
  readonly email: string;
  readonly name: string;
  readonly role: BuilderRole;
}

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
  new Refused(422, 'values', 'Some of this is not right yet.', { errors });

const there = (detail: string): Refused =>
  new Refused(409, 'there', detail, { errors: [{ field: 'email', detail }] });

/**
 * Lets somebody in. It takes effect by the link that is given back, for their owner to send, and stands in the outbox
 * too until there is mail: an address by itself is no proof of whose account it is.
 */
export async function inviteBuilder(
  { applicationId, name: application, builder: own }: Workplace,
  { email: written, name, role }: Omit<Invitation, 'id'>,
): Promise<{ readonly link: string }> {
  const email = written.trim().toLowerCase();
  const errors = (['email', 'name'] as const).flatMap((field) => {
    const fault = accountFault(field, field === 'email' ? email : name);
    return fault === undefined ? [] : [{ field, detail: fault }];
  });
  if (errors.length > 0) throw wrong(errors);
  return database().transaction(async (tx) => {
    const [member] = await tx
      .select()
      .from(memberships)
      .innerJoin(builders, eq(builders.id, memberships.builderId))
      .where(and(eq(memberships.applicationId, applicationId), eq(builders.email, email)));
    if (member) throw there('They are a builder of this application already.');
    const { link, ...key } = newKey();
    const [added] = await tx
      .insert(invitations)
      .values({ applicationId, email, name: name.trim(), role, ...key })
      .onConflictDoNothing({ target: [invitations.applicationId, invitations.email] })
      .returning();
    if (!added) throw there('They are let in already, and have not opened their link yet. Make a new one.');
    await tx.insert(outbox).values({
      applicationId,
      to: email,
      subject: `${application}: you can build it too`,
      body: `${own.name} has let you in as ${role}. Open this link within a week: {link}`,
      link,
      ownersOnly: true,
    });
    await tellAudit(tx, applicationId, own.id, 'builder-let-in', { email, role });
    return { link };
  });
}

/** A new link for an invitation. The one before it is no key any more. */
export async function linkForInvitation(
  { applicationId, builder: own }: Workplace,
  id: string,
): Promise<string> {
  return database().transaction(async (tx) => {
    const { link, ...key } = newKey();
    const [changed] = await tx.update(invitations).set(key).where(mine(applicationId, id)).returning();
    if (!changed) throw notThere();
    await tellAudit(tx, applicationId, own.id, 'link-shown', { email: changed.email });
    return link;
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
  new Refused(410, 'used-up', 'This link cannot be used any more. Ask who let you in for another.');

/** Whoever opens the link while signed in becomes a builder of its application, once. */
export async function acceptInvitation(token: string, { id }: Pick<Builder, 'id'>): Promise<void> {
  await database().transaction(async (tx) => enter(tx, token, () => Promise.resolve(id)));
}

/** Whoever opens the link and has no account here gets one, with the password that they choose. */
export async function joinByInvitation(token: string, password: string): Promise<void> {
  const fault = accountFault('password', password);
  if (fault !== undefined) throw wrong([{ field: 'password', detail: fault }]);
  if (!(await invitationAt(token))) throw usedUp();
  const passwordHash = await hashPassword(password);
  await database().transaction(async (tx) =>
    enter(tx, token, async ({ email, name }) => {
      const [made] = await tx
        .insert(builders)
        .values({ email, name, passwordHash })
        .onConflictDoNothing({ target: builders.email })
        .returning();
      if (!made) throw new Refused(409, 'known', 'There is an account of this address. Sign in with it.');
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
  if (added.length === 0) throw there('You are a builder of this application already.');
  await tellAudit(tx, applicationId, builderId, 'builder-came-in', { email: used.email, role });
}
