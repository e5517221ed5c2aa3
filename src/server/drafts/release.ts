import { and, desc, eq } from 'drizzle-orm';
import { unsound } from '@/core';
import { conversionsOf } from '@/core/converting';
import type { Definition } from '@/core/model';
import { database, patientDatabase, type Executor } from '../database/client';
import { applications, auditEvents, builders, releases } from '../database/schema';
import { Refused } from '../http/problem';
import type { Tell } from '../http/progress';
import { today } from '../making/sent-sheets';
import { tellNews } from '../news/news';
import { breaksOf } from '../proving/breaking';
import { convertRecords } from '../records/convert';
import { waitForWriters } from '../records/store';
import { draftAt, revisionsSince } from './draft';

/** Releases never change, so what was read of one stays. The newest few of each application are kept. */
const known = new Map<string, Definition>();
const MOST_KNOWN = 50;

/** The definition of a release. */
export async function releasedDefinition(applicationId: string, number: number): Promise<Definition> {
  const key = `${applicationId} ${number}`;
  const found = known.get(key);
  if (found) return found;
  const [row] = await database()
    .select({ definition: releases.definition })
    .from(releases)
    .where(and(eq(releases.applicationId, applicationId), eq(releases.number, number)));
  if (!row) throw new Error(`${applicationId} has no release ${number}`);
  known.set(key, row.definition);
  const [oldest] = known.keys();
  if (known.size > MOST_KNOWN && oldest) known.delete(oldest);
  return row.definition;
}

export interface Release {
  readonly number: number;
  readonly revision: number;
  readonly at: Date;
  /** Null: it came with the application. */
  readonly author: string | null;
  readonly note: string;
}

/** The release in force, or undefined before the first. */
export async function releaseInForce(applicationId: string): Promise<Release | undefined> {
  const [row] = await database()
    .select({
      number: releases.number,
      revision: releases.revision,
      at: releases.at,
      author: builders.name,
      note: releases.note,
    })
    .from(releases)
    .innerJoin(
      applications,
      and(eq(applications.id, releases.applicationId), eq(applications.release, releases.number)),
    )
    .leftJoin(builders, eq(builders.id, releases.author))
    .where(eq(releases.applicationId, applicationId));
  return row;
}

/** What who releases says of it. */
export interface Said {
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
  { note = '', despite = '' }: Said = {},
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
        'The draft has changed since you reviewed it. Review it again.',
        {
          members: { since: await revisionsSince(applicationId, reviewed, tx) },
        },
      );
    const { definition, revision } = await draftAt(applicationId, reviewed, tx);
    const problems = unsound(definition, { screens: true });
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
    await tellNews(tx, applicationId, 'release');
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
      `Nothing was released. It breaks what is expected: ${said}. Change the draft, or what is expected.`,
    );
  if (despite.trim() === '')
    throw new Refused(
      409,
      'expectations',
      `Nothing was released. It breaks what is expected: ${said}. Say why that may be.`,
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

/** The numbers of all releases, newest first. */
export async function releaseNumbers(applicationId: string): Promise<number[]> {
  const rows = await database()
    .select({ number: releases.number })
    .from(releases)
    .where(eq(releases.applicationId, applicationId))
    .orderBy(desc(releases.number));
  return rows.map(({ number }) => number);
}
