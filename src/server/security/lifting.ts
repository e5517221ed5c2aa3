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
    throw new Refused(403, 'own-waits', 'Nobody lifts their own wait. Ask somebody else who may, or wait.');
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
      'The wait was lifted within the last hour already. It can be lifted once an hour.',
      { headers: { 'Retry-After': '3600' } },
    );
  await tx.insert(outbox).values({
    ...message,
    subject: 'You need not wait to sign in any more',
    body: 'After wrong tries to sign in as you, somebody who looks after accounts has lifted the wait. If you did not ask them to, tell them: somebody may be guessing your password.',
  });
}
