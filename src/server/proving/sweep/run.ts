import { and, eq, inArray, sql } from 'drizzle-orm';
import { treeOf } from '@/core/model';
import type { KnownRecord } from '@/core/access';
import { CoverageNotes, Predictor, type Surprise } from '@/core/sweep';
import { config } from '../../config.mjs';
import { database, patientDatabase } from '../../database/client';
import { applications, records, sweeps } from '../../database/schema';
import { draftAt } from '../../drafts/draft';
import { releasedDefinition } from '../../drafts/release';
import { log, told } from '../../log';
import { tellNews } from '../../news/news';
import { peopleOf } from '../../people/read';
import { liveCookie, openSession } from '../../security/sessions';
import { Asker } from './asker';
import { type Case, casesFor } from './cases';
import { Comparing } from './compare';
import { type Copy, dropCopy, planCopy, putCopy, putRecords } from './copy';
import { type SweptViewer, viewersOf } from './viewers';

const AT_ONCE = 12;
/** So many surprises are kept one by one, of each sort and about each element only the first. */
const MOST_KEPT = 300;
const MOST_ALIKE = 3;
const TOLD_EVERY_MS = 700;

type Sweep = typeof sweeps.$inferSelect;

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
    log.warn(told(error), 'A sweep failed');
    await end(sweep, { state: 'failed', failure: 'The server did not answer, or the database was away.' });
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
  const known = knownOf(copy);
  const comparing = new Comparing(copy);
  const notes = new CoverageNotes(copy.definition, known);
  const viewers = viewersOf(copy, async () => {
    const [person] = other.people;
    return openSession({
      audience: 'live',
      applicationId: other.id,
      personId: person?.person.id ?? '',
    });
  });
  const { name } = await liveCookie(copy.slug);
  const progress = new Progress(sweep, viewers.length);
  for (const [n, viewer] of viewers.entries()) {
    notes.add(viewer.access(Date.now()));
    if (n < sweep.viewers) continue;
    const token = await viewer.open();
    const cookie = token === undefined ? undefined : `${name}=${token}`;
    const stopped = await askAs(viewer, cookie, { copy, known, comparing, asker, progress });
    if (stopped) return 'stopped';
    await progress.viewerDone(await restored(copy, viewer.name));
  }
  await note(sweep, { covered: notes.told() });
  return 'done';
}

interface Work {
  readonly copy: Copy;
  readonly known: readonly KnownRecord[];
  readonly comparing: Comparing;
  readonly asker: Asker;
  readonly progress: Progress;
}

/** Asks everything as one viewer, some at once; whether it was stopped. */
async function askAs(
  viewer: SweptViewer,
  cookie: string | undefined,
  { copy, known, comparing, asker, progress }: Work,
): Promise<boolean> {
  const at = (moment: number) => {
    const access = viewer.access(moment);
    const predictor = new Predictor(access, known, comparing.marks, viewer.signedOut);
    return {
      predictor,
      cases: casesFor({ copy, access, predictor, records: known, signedOut: viewer.signedOut }),
    };
  };
  const { predictor, cases } = at(Date.now());
  progress.expect(cases.length);
  let next = 0;
  const one = async (n: number, asked: Case, by: Predictor): Promise<void> => {
    const answer = await asker.ask({ ...asked.asking, cookie });
    let surprises = comparing.surprises(asked, answer, by);
    if (surprises.length > 0 && 'predicted' in asked) {
      // Between working it out and asking, a minute may have passed that matters.
      const again = at(Date.now());
      const same = again.cases[n];
      if (same && same.asking.path === asked.asking.path)
        surprises = comparing.surprises(same, await asker.ask({ ...same.asking, cookie }), again.predictor);
    }
    progress.add(surprises.map((each) => ({ viewer: viewer.name, ...each })));
  };
  const worker = async (): Promise<void> => {
    for (let n = next++; n < cases.length && !progress.stopped; n = next++)
      await one(n, cases[n] as Case, predictor);
  };
  await Promise.all(Array.from({ length: AT_ONCE }, worker));
  return progress.stopped;
}

/** What was done to the records all the same is told, and made good. */
async function restored(copy: Copy, viewer: string): Promise<Surprise[]> {
  const rows = await database()
    .select({ id: records.id, version: records.version })
    .from(records)
    .where(eq(records.applicationId, copy.id));
  const changed = rows.filter(({ version }) => version !== 1).map(({ id }) => id);
  const gone = copy.records.filter(({ id }) => !rows.some((one) => one.id === id)).map(({ id }) => id);
  const made = rows.length + gone.length - copy.records.length;
  if (changed.length + gone.length + made === 0) return [];
  await patientDatabase().transaction((tx) => putRecords(copy, tx));
  const said = `${changed.length} records were changed, ${gone.length} deleted and ${made} made, and nothing should have been.`;
  return [{ viewer, request: 'all that may not be done', what: 'did', said }];
}

/** The records as decisions know them. */
function knownOf({ definition, records: all }: Copy): KnownRecord[] {
  const tree = treeOf(definition);
  const values = new Map(all.map((one) => [`${one.entity} ${one.id}`, one.values] as const));
  return all.flatMap(({ entity, ...one }) => {
    const of = tree.entityOf(entity);
    return of
      ? [{ ...one, entity: of, lookUp: (target: string, id: string) => values.get(`${target} ${id}`) }]
      : [];
  });
}

/** Keeps what has been asked and found, and tells of it now and then. */
class Progress {
  stopped = false;
  private viewers: number;
  private asked: number;
  private toAsk = 0;
  private readonly kept: Surprise[];
  private count: number;
  private last = 0;
  private readonly alike = new Map<string, number>();
  private readonly begun = Date.now();
  private saving: Promise<void> = Promise.resolve();

  constructor(
    private readonly sweep: Sweep,
    private readonly ofViewers: number,
  ) {
    this.viewers = sweep.viewers;
    this.asked = sweep.asked;
    this.kept = [...sweep.surprises];
    this.count = sweep.surpriseCount;
  }

  /** So many requests are to be made as the next viewer: about as many as for all that come. */
  expect(requests: number): void {
    this.toAsk = this.asked + requests * (this.ofViewers - this.viewers);
  }

  add(surprises: readonly Surprise[]): void {
    this.asked++;
    this.note(surprises);
    if (Date.now() - this.last < TOLD_EVERY_MS) return;
    this.last = Date.now();
    this.saving = this.saving.then(() => this.save());
    this.saving.catch(() => undefined);
  }

  async viewerDone(more: readonly Surprise[]): Promise<void> {
    this.viewers++;
    this.note(more);
    await this.saving;
    await this.save();
  }

  private note(surprises: readonly Surprise[]): void {
    this.count += surprises.length;
    for (const one of surprises) {
      const sort = `${one.what} ${one.element ?? ''} ${one.request.replace(/Zr\d+rZ/g, 'RECORD')}`;
      const alike = this.alike.get(sort) ?? 0;
      this.alike.set(sort, alike + 1);
      if (alike < MOST_ALIKE && this.kept.length < MOST_KEPT) this.kept.push(one);
    }
  }

  private async save(): Promise<void> {
    const [row] = await database()
      .update(sweeps)
      .set({
        viewers: this.viewers,
        ofViewers: this.ofViewers,
        asked: this.asked,
        toAsk: Math.max(this.toAsk, this.asked),
        surprises: this.kept,
        surpriseCount: this.count,
        worked: this.sweep.worked + Date.now() - this.begun,
      })
      .where(eq(sweeps.id, this.sweep.id))
      .returning({ state: sweeps.state });
    // Taken back, or deleted with its application.
    if (row?.state !== 'running') this.stopped = true;
    await tellNews(database(), this.sweep.applicationId, 'swept');
  }
}

async function note(sweep: Sweep, set: Partial<Sweep>): Promise<void> {
  await database().update(sweeps).set(set).where(eq(sweeps.id, sweep.id));
}

async function end(
  sweep: Sweep,
  set: { readonly state: 'done' | 'stopped' | 'failed'; readonly failure?: string },
): Promise<void> {
  await note(sweep, { ...set, copy: null, endedAt: new Date() });
  await tellNews(database(), sweep.applicationId, 'swept');
}
