import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Id } from '@/core/model';
import { Already, CoverageNotes } from '@/core/sweep';
import { config } from '../../config.mjs';
import { database } from '../../database/client';
import { applications, sweeps } from '../../database/schema';
import { draftAt } from '../../drafts/draft';
import { releasedDefinition } from '../../releases';
import { log, errorForLog } from '../../log';
import { notifyChange } from '../../notifications/notices';
import { peopleOf } from '../../people/read';
import { liveCookie, openSession } from '../../security/sessions';
import { Asker } from './asker';
import { askAs } from './ask';
import { Comparing } from './compare';
import { type Copy, dropCopy, knownIn, ownId, planCopy, putCopy } from './copy';
import { Progress, type Sweep } from './progress';
import { openSwept } from './session';
import { viewersOf } from './viewers';

/** So many requests are at work at once: more are no faster, and people's pages wait behind them. */
const AT_ONCE = 6;

/** Sweeps that were asked for, and those that were broken off in the middle. */
export async function sweepsToRun(): Promise<string[]> {
  const rows = await database()
    .select({ id: sweeps.id })
    .from(sweeps)
    .where(inArray(sweeps.state, ['waiting', 'running', 'stopping']))
    .orderBy(sweeps.at);
  return rows.map(({ id }) => id);
}

/** Takes away copies that no sweep needs any more. */
export async function dropLeftCopies(): Promise<void> {
  const needed = database()
    .select({ copy: sql<string>`coalesce(${sweeps.copy}, '')` })
    .from(sweeps)
    .where(inArray(sweeps.state, ['running', 'stopping']));
  await database()
    .delete(applications)
    .where(and(sql`${applications.sweepOf} is not null`, sql`${applications.id} not in ${needed}`));
}

/**
 * Carries a sweep out: asks the running server everything, as every viewer, and holds what comes against what the core
 * says. Goes on at the viewer at which it was broken off, with a copy made anew.
 */
export async function runSweep(id: string, server: string): Promise<void> {
  const [sweep] = await database().select().from(sweeps).where(eq(sweeps.id, id));
  if (!sweep || !['waiting', 'running'].includes(sweep.state)) {
    if (sweep?.state === 'stopping') await end(sweep, { state: 'stopped' });
    return;
  }
  try {
    await carryOut(sweep, server);
  } catch (error) {
    log.warn(errorForLog(error), 'A sweep failed');
    await end(sweep, {
      state: 'failed',
      failure: 'The server did not respond, or the database was unavailable.',
    });
  }
}

async function carryOut(sweep: Sweep, server: string): Promise<void> {
  const { applicationId, release, revision } = sweep;
  const definition =
    release === null
      ? (await draftAt(applicationId, revision)).definition
      : await releasedDefinition(applicationId, release);
  if (sweep.copy) await dropCopy(sweep.copy);
  const copy = planCopy(definition, await peopleOf(applicationId));
  const other = planCopy(definition, []);
  await note(sweep, { state: 'running', copy: copy.id });
  await putCopy(applicationId, copy);
  await putCopy(applicationId, { ...other, records: other.records.slice(0, 1) });
  const asker = askerFor(server);
  try {
    const state = await askAll(sweep, copy, other, asker);
    await end(sweep, { state });
  } finally {
    asker.end();
    await dropCopy(copy.id);
    await dropCopy(other.id);
  }
}

function askerFor(server: string): Asker {
  const { publicUrl, liveOrigin } = config();
  const url = liveOrigin ?? publicUrl ?? new URL(server);
  return new Asker(new URL(server), url.host, url.origin, AT_ONCE);
}

async function askAll(sweep: Sweep, copy: Copy, other: Copy, asker: Asker): Promise<'done' | 'stopped'> {
  const known = knownIn(copy);
  const { whole } = sweep;
  const comparing = new Comparing(copy);
  const notes = new CoverageNotes(copy.definition, known);
  const [person] = other.people;
  const elsewhere = () =>
    openSession({ audience: 'live', applicationId: other.id, personId: person?.person.id ?? '' });
  const viewers = viewersOf(copy, elsewhere, whole);
  const { name } = await liveCookie(copy.slug);
  const progress = new Progress(sweep, viewers.length);
  const work = { copy, known, comparing, already: new Already(known), whole, asker, progress };
  for (const [n, viewer] of viewers.entries()) {
    notes.add(viewer.access(Date.now()));
    if (n < sweep.viewers) continue;
    if (!(await askAs(viewer, await openSwept(viewer, copy, name), work))) return 'stopped';
    await progress.viewerDone();
  }
  const own = <T extends { readonly gate: Id }>(all: readonly T[]): T[] =>
    all.map((one) => ({ ...one, gate: ownId(copy, one.gate) }));
  const { neverCounted, oneSided, ...covered } = notes.told();
  await note(sweep, {
    covered: {
      ...covered,
      askedAgain: asker.askedAgain,
      leftOut: progress.leftOut,
      neverCounted: own(neverCounted),
      oneSided: own(oneSided),
    },
  });
  return 'done';
}

async function note(sweep: Sweep, set: Partial<Sweep>): Promise<void> {
  await database().update(sweeps).set(set).where(eq(sweeps.id, sweep.id));
}

async function end(
  sweep: Sweep,
  set: { readonly state: 'done' | 'stopped' | 'failed'; readonly failure?: string },
): Promise<void> {
  await note(sweep, { ...set, copy: null, endedAt: new Date() });
  await notifyChange(database(), sweep.applicationId, 'swept');
}
