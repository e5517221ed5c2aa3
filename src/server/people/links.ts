import { randomBytes } from 'node:crypto';
import { and, eq, gt, sql } from 'drizzle-orm';
import { liveAddress } from '../hosts.mjs';
import { database, type Executor } from '../database/client';
import {
  applications,
  auditEvents,
  confirmations,
  memberships,
  outbox,
  people,
  sessions,
} from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { forgetTries, liveAccount } from '../security/attempts';
import { hashPassword } from '../security/password';
import { passwordFault } from '../security/password-fault';
import { hashToken } from '../security/sessions';

/** How long a link can be opened, in hours: one that was asked for, and one that comes unasked. */
const HOURS = { asked: 24, sent: 7 * 24 } as const;

/** What a message says around its link. `{link}` stands where the link is. */
const MESSAGES = {
  asked: {
    subject: 'Choose a password',
    body: 'Welcome. To activate your account, open this link within 24 hours, choose a password and sign in: {link}',
  },
  welcome: {
    subject: 'Your new account',
    body: 'An administrator has created an account for you. To activate it, open this link within 7 days and choose a password: {link}',
  },
  again: {
    subject: 'Choose a new password',
    body: 'To choose a new password, open this link within 7 days: {link}. If you did not expect this message, contact your administrator.',
  },
} as const;

/** Whom a link is for. */
export interface Addressee {
  readonly id: string;
  readonly email: string;
}

/** Links with their messages, ready to be stored: a token is in the message only, else as its hash. */
export async function linksFor(
  tx: Executor,
  applicationId: string,
  to: readonly Addressee[],
  why: keyof typeof MESSAGES,
): Promise<{
  readonly links: (typeof confirmations.$inferInsert)[];
  readonly messages: (typeof outbox.$inferInsert)[];
}> {
  const [application] = await tx.select().from(applications).where(eq(applications.id, applicationId));
  if (!application) throw new Error('There is no such application');
  const base = liveAddress(application.slug);
  const hours = HOURS[why === 'asked' ? 'asked' : 'sent'];
  const { subject, body } = MESSAGES[why];
  const made = to.map(({ id, email }) => {
    const token = randomBytes(32).toString('base64url');
    return {
      link: {
        tokenHash: hashToken(token),
        personId: id,
        expiresAt: sql`now() + make_interval(hours => ${hours})` as unknown as Date,
      },
      message: {
        applicationId,
        to: email,
        subject: `${application.name}: ${subject}`,
        body,
        link: `${base}/confirm?token=${token}`,
      },
    };
  });
  return { links: made.map(({ link }) => link), messages: made.map(({ message }) => message) };
}

/** Sends a person a link to choose a password. Links that were sent before are no keys any more. */
export async function sendLink(
  tx: Executor,
  applicationId: string,
  to: Addressee,
  why: keyof typeof MESSAGES,
  name?: string,
): Promise<void> {
  const { links, messages } = await linksFor(tx, applicationId, [to], why);
  await tx.delete(confirmations).where(eq(confirmations.personId, to.id));
  await tx.insert(confirmations).values(links.map((one) => ({ ...one, name })));
  await tx.insert(outbox).values(messages);
}

/** Whose link it is, if it can be opened: of this application, not used, and in time. Looking uses nothing up. */
export async function addresseeOf(
  applicationId: string,
  token: string,
  on: Executor = database(),
): Promise<(Addressee & { readonly name: string | null }) | undefined> {
  const [row] = await on
    .select({ id: people.id, email: people.email, name: confirmations.name })
    .from(confirmations)
    .innerJoin(people, eq(people.id, confirmations.personId))
    .where(
      and(
        eq(confirmations.tokenHash, hashToken(token)),
        gt(confirmations.expiresAt, sql`now()`),
        eq(people.applicationId, applicationId),
        sql`not exists (select from unnest(${confirmations.shownTo}) as shown where shown not in
          (select ${memberships.builderId} from ${memberships}
            where ${memberships.applicationId} = ${applicationId} and ${memberships.people}))`,
      ),
    );
  return row;
}

/** The link of a message to a person, for a builder to see, who could open it: each time is in the audit trail. */
export async function showLink(applicationId: string, builderId: string, message: string): Promise<string> {
  return database().transaction(async (tx) => {
    const [row] = await tx
      .select()
      .from(outbox)
      .where(
        and(eq(outbox.applicationId, applicationId), eq(outbox.id, message), eq(outbox.forBuilder, false)),
      );
    if (!row?.link) throw notThere();
    const token = new URL(row.link).searchParams.get('token') ?? '';
    await tx
      .update(confirmations)
      .set({ shownTo: sql`array_append(array_remove(${confirmations.shownTo}, ${builderId}), ${builderId})` })
      .where(eq(confirmations.tokenHash, hashToken(token)));
    await tx
      .insert(auditEvents)
      .values({ applicationId, builderId, what: 'link-shown', detail: { to: row.to } });
    return row.link;
  });
}

/**
 * Whoever opened the link chooses the password: the account is theirs from now on, and counts as somebody. All
 * links to it are used up, and its sessions end.
 */
export async function choosePassword(applicationId: string, token: string, password: string): Promise<void> {
  const whose = await addresseeOf(applicationId, token);
  if (!whose) throw usedUp();
  const fault = passwordFault(password, [whose.email, whose.name ?? '']);
  if (fault !== undefined)
    throw new Refused(422, 'values', 'Choose a different password.', {
      errors: [{ field: 'password', detail: fault }],
    });
  const passwordHash = await hashPassword(password);
  await database().transaction(async (tx) => {
    const found = await addresseeOf(applicationId, token, tx);
    const taken = found
      ? await tx
          .delete(confirmations)
          .where(eq(confirmations.personId, found.id))
          .returning({ hash: confirmations.tokenHash })
      : [];
    // Of two at once, one finds it.
    if (!found || !taken.some(({ hash }) => hash === hashToken(token))) throw usedUp();
    await tx
      .update(people)
      .set({ passwordHash, confirmed: true, ...(found.name !== null && { name: found.name }) })
      .where(eq(people.id, found.id));
    await tx.delete(sessions).where(eq(sessions.personId, found.id));
    await forgetTries(liveAccount(applicationId, found.email), tx);
    await tx.insert(auditEvents).values({ applicationId, personId: found.id, what: 'password-chosen' });
  });
}

const usedUp = (): Refused =>
  new Refused(410, 'link-used', 'This link has already been used or has expired. Ask for a new one.');
