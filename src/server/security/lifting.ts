import { lt, sql } from 'drizzle-orm';
import type { Executor } from '../database/client';
import { liftedWaits, outbox } from '../database/schema';
import { Refused } from '../http/problem';

/** Whose waits they are: their account, and where they are told. */
interface Waiting {
  readonly account: string;
  readonly applicationId: string;
  readonly to: string;
  readonly forBuilder: boolean;
}

/**
 * Wrong tries until now make nobody wait any more for this account; where they came from still counts them. Once an hour,
 * so that nobody guesses on and on by it, and never for oneself (`own`). Whose account it is gets a message.
 */
export async function liftWaits(tx: Executor, { account, ...message }: Waiting, own: boolean): Promise<void> {
  if (own)
    throw new Refused(
      403,
      'own-waits',
      'You cannot clear your own sign-in delay. Ask someone else who can, or wait.',
    );
  const lifted = await tx
    .insert(liftedWaits)
    .values({ account })
    .onConflictDoUpdate({
      target: liftedWaits.account,
      set: { at: sql`now()` },
      setWhere: lt(liftedWaits.at, sql`now() - interval '1 hour'`),
    })
    .returning();
  if (lifted.length === 0)
    throw new Refused(
      429,
      'lifted-lately',
      'The sign-in delay was cleared less than an hour ago. It can be cleared once an hour.',
      { headers: { 'Retry-After': '3600' } },
    );
  await tx.insert(outbox).values({
    ...message,
    subject: 'You can sign in again without waiting',
    body: 'There were failed attempts to sign in to your account, and someone who manages accounts has cleared the sign-in delay. If you did not ask for this, contact them: someone may be guessing your password.',
  });
}
