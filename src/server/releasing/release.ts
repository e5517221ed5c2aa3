import { eq } from 'drizzle-orm';
import { findInvalidState } from '@/core';
import { conversionsOf } from '@/core/converting';
import type { Definition } from '@/core/model';
import { patientDatabase, type Executor } from '../database/client';
import { applications, auditEvents, releases } from '../database/schema';
import { Refused } from '../http/problem';
import type { Tell } from '../http/progress';
import { today } from '../today';
import { notifyChange } from '../notifications/notices';
import { breaksOf } from '../proving/breaking';
import { convertRecords } from '../records/convert';
import { waitForWriters } from '../records/store';
import { draftAt, revisionsSince } from '../drafts/draft';
import { releasedDefinition } from '../releases';

/** The note and reasons entered for a release. */
interface ReleaseNotes {
  /** What it is for. */
  readonly note?: string;
  /** Why it may be that what is expected does not hold. */
  readonly despite?: string;
}

/**
 * Releases the draft at the revision that was reviewed. Refused where the draft has moved on since, so
 * that nothing goes out that nobody looked at; and where it breaks what is expected, unless that may be and a reason is
 * given. Live records are converted with it, or nothing is done. Returns the
 * release's number.
 */
export async function release(
  applicationId: string,
  builderId: string,
  reviewed: number,
  { note = '', despite = '' }: ReleaseNotes = {},
  tell?: Tell,
  signal?: AbortSignal,
): Promise<number> {
  return patientDatabase().transaction(async (tx) => {
    const [application] = await tx
      .select()
      .from(applications)
      .where(eq(applications.id, applicationId))
      .for('update');
    if (!application) throw new Error(`There is no application ${applicationId}`);
    if (application.headRevision !== reviewed)
      throw new Refused(
        409,
        'changed-meanwhile',
        'The draft has changed since your review. Review it again before you release.',
        {
          members: { since: await revisionsSince(applicationId, reviewed, tx) },
        },
      );
    const { definition, revision } = await draftAt(applicationId, reviewed, tx);
    const problems = findInvalidState(definition, { screens: true });
    if (problems[0])
      throw new Refused(422, 'unsound', `Nothing was released. ${problems[0].message}`, { problems });
    const broken = await breaksOf(applicationId, definition);
    if (broken.length > 0) requireReason(application.mayBreak, broken, despite);
    if (application.release !== null) {
      const before = await releasedDefinition(applicationId, application.release);
      await convertLive(applicationId, before, definition, tx, tell, signal);
    }
    const number = (application.release ?? 0) + 1;
    await tx
      .insert(releases)
      .values({ applicationId, number, revision, definition, author: builderId, note });
    await tx.update(applications).set({ release: number }).where(eq(applications.id, applicationId));
    await tx.insert(auditEvents).values({
      applicationId,
      builderId,
      what: 'release',
      detail: { number, revision, ...(broken.length > 0 && { broken: broken.length, despite }) },
    });
    await notifyChange(tx, applicationId, 'release');
    return number;
  });
}

function requireReason(mayBreak: boolean, broken: readonly { name: string }[], despite: string): void {
  const names = [...new Set(broken.map(({ name }) => `“${name}”`))];
  const said = `${names.slice(0, 3).join(', ')}${names.length > 3 ? ` and ${names.length - 3} more` : ''}`;
  if (!mayBreak)
    throw new Refused(
      409,
      'expectations',
      `Nothing was released, because the draft breaks expectations: ${said}. Change the draft or the expectations.`,
    );
  if (despite.trim() === '')
    throw new Refused(
      409,
      'expectations',
      `Nothing was released, because the draft breaks expectations: ${said}. To release it anyway, give a reason.`,
    );
}

/** Live records follow the release: where a field holds another type, they are turned, and what does not fit is kept. */
async function convertLive(
  applicationId: string,
  before: Definition,
  after: Definition,
  tx: Executor,
  tell: Tell | undefined,
  signal: AbortSignal | undefined,
): Promise<void> {
  const changes = conversionsOf(before, after);
  if (changes.length === 0) return;
  await waitForWriters(applicationId, tx);
  const of = { applicationId, kind: 'live' } as const;
  await convertRecords(of, before, after, changes, tx, { write: true, today: today(), tell, signal });
}
