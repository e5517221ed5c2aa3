import { createHash } from 'node:crypto';
import { and, asc, desc, eq, gt, lte } from 'drizzle-orm';
import { applyEdit, inverseOf, findInvalidState, wideningOf } from '@/core';
import { deletesSomething, EDIT_FORMAT, type UndoState, undoStateOf, wideningInWords } from '@/core/edit';
import { conversionsOf } from '@/core/converting';
import type { Definition } from '@/core/model';
import { database, type Executor } from '../database/client';
import { applications, builders, edits, snapshots } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { today } from '../today';
import { notifyChange } from '../notifications/notices';
import { peopleCounted } from '../people/read';
import { convertRecords } from '../records/convert';
import {
  entriesFor,
  firstThatApplies,
  namesIn,
  ownEntries,
  turnInWords,
  type Ask,
  type Revision,
} from './entries';

/** A snapshot is kept every so many revisions. */
const SNAPSHOT_EVERY = 50;

export interface Draft {
  readonly revision: number;
  readonly definition: Definition;
}

/** The newest draft that this process has worked out, by application. What is newer is added from the log. */
const known = new Map<string, Draft>();

/** The draft at a revision: the nearest snapshot before it, and the edits since. */
export async function draftAt(
  applicationId: string,
  revision: number,
  on: Executor = database(),
): Promise<Draft> {
  const cached = known.get(applicationId);
  if (cached?.revision === revision) return cached;
  const start =
    cached && cached.revision < revision ? cached : await snapshotBefore(applicationId, revision, on);
  const since = await on
    .select({ edit: edits.edit })
    .from(edits)
    .where(
      and(
        eq(edits.applicationId, applicationId),
        gt(edits.revision, start.revision),
        lte(edits.revision, revision),
      ),
    )
    .orderBy(asc(edits.revision));
  let { definition } = start;
  for (const { edit } of since) {
    const made = applyEdit(definition, edit);
    if (!made.ok)
      throw new Error(`The edits of ${applicationId} cannot be applied: ${made.problems[0]?.message}`);
    definition = made.value;
  }
  return { revision, definition };
}

async function snapshotBefore(applicationId: string, revision: number, on: Executor): Promise<Draft> {
  const [row] = await on
    .select()
    .from(snapshots)
    .where(and(eq(snapshots.applicationId, applicationId), lte(snapshots.revision, revision)))
    .orderBy(desc(snapshots.revision))
    .limit(1);
  if (!row) throw new Error(`The draft of ${applicationId} has no snapshot`);
  return row;
}

/** The draft as it is now. */
export async function draftOf(applicationId: string): Promise<Draft> {
  const [row] = await database()
    .select({ revision: applications.headRevision })
    .from(applications)
    .where(eq(applications.id, applicationId));
  // It was deleted after its builder was looked up.
  if (!row) throw notThere();
  const draft = await draftAt(applicationId, row.revision);
  known.set(applicationId, draft);
  return draft;
}

/** What has come since a revision, in order. */
export async function revisionsSince(
  applicationId: string,
  revision: number,
  on: Executor = database(),
): Promise<Revision[]> {
  return on
    .select({ revision: edits.revision, edit: edits.edit, author: builders.name, at: edits.at })
    .from(edits)
    .innerJoin(builders, eq(builders.id, edits.author))
    .where(and(eq(edits.applicationId, applicationId), gt(edits.revision, revision)))
    .orderBy(asc(edits.revision));
}

/** What one builder's undo and redo would act on. */
export async function undoStateIn(
  applicationId: string,
  author: string,
  on: Executor = database(),
): Promise<UndoState> {
  return undoStateOf(await ownEntries(applicationId, author, on));
}

/** How it is asked. */
export interface ChangeOptions {
  /** What the asker's browser calls this request: sent again, it is answered again and not done again. */
  readonly request?: string | undefined;
  /** The code of a widening that the asker has seen and wants. */
  readonly confirmed?: string | undefined;
}

/**
 * Makes an edit, or takes one's own last standing one back, or does it again. `base` is the revision that
 * the builder looked at: if what the edit expects no longer holds, it is refused with what came since. What can no
 * longer be taken back is skipped, and `said` tells of it, and of what was taken back. When this returns, the edit
 * is stored.
 */
export async function change(
  applicationId: string,
  author: string,
  base: number,
  ask: Ask,
  { request, confirmed }: ChangeOptions = {},
): Promise<{ readonly since: Revision[]; readonly standing: UndoState; readonly said?: string }> {
  const done = await database().transaction(async (tx) => {
    const [row] = await tx
      .select({ revision: applications.headRevision })
      .from(applications)
      .where(eq(applications.id, applicationId))
      .for('update');
    if (!row) throw new Error(`There is no application ${applicationId}`);
    const told = async () => ({
      since: await revisionsSince(applicationId, base, tx),
      standing: await undoStateIn(applicationId, author, tx),
    });
    if (request !== undefined && (await isDone(applicationId, author, request, tx))) return told();
    const head = await draftAt(applicationId, row.revision, tx);
    const { entry, made, skipped } = await firstThatApplies(
      head.definition,
      ask,
      await entriesFor(applicationId, author, ask, tx),
      () => revisionsSince(applicationId, base, tx),
    );
    requireSound(made);
    await convertSamples(applicationId, head.definition, made, tx);
    await requireConfirmed(applicationId, head.definition, made, confirmed, tx);
    const next: Draft = { revision: head.revision + 1, definition: made };
    await tx.insert(edits).values({
      ...entry,
      request: request ?? null,
      applicationId,
      author,
      revision: next.revision,
      inverse: inverseOf(entry.edit),
      format: EDIT_FORMAT,
    });
    await tx
      .update(applications)
      .set({ headRevision: next.revision, name: made.name })
      .where(eq(applications.id, applicationId));
    await notifyChange(tx, applicationId, `draft ${next.revision}`);
    if (next.revision % SNAPSHOT_EVERY === 0) await tx.insert(snapshots).values({ applicationId, ...next });
    const said =
      typeof ask === 'string'
        ? turnInWords(ask, head.definition, made, skipped, await namesIn(applicationId, entry.edit, tx))
        : undefined;
    return { next, said, ...(await told()) };
  });
  if (!('next' in done)) return done;
  known.set(applicationId, done.next);
  const { since, standing: stands, said } = done;
  return { since, standing: stands, ...(said !== undefined && { said }) };
}

/** Sample records follow the draft: where a field holds another type, they are turned, or get their values back. */
async function convertSamples(
  applicationId: string,
  before: Definition,
  after: Definition,
  tx: Executor,
): Promise<void> {
  const changes = conversionsOf(before, after);
  if (changes.length > 0)
    await convertRecords({ applicationId, kind: 'sample' }, before, after, changes, tx, {
      write: true,
      today: today(),
    });
}

async function isDone(
  applicationId: string,
  author: string,
  request: string,
  tx: Executor,
): Promise<boolean> {
  const [row] = await tx
    .select({ revision: edits.revision })
    .from(edits)
    .where(and(eq(edits.applicationId, applicationId), eq(edits.author, author), eq(edits.request, request)));
  return row !== undefined;
}

/** Refuses to delete what would let somebody in, until its maker has seen who that is and said so. */
async function requireConfirmed(
  applicationId: string,
  before: Definition,
  after: Definition,
  confirmed: string | undefined,
  tx: Executor,
): Promise<void> {
  if (!deletesSomething(before, after)) return;
  const people = await peopleCounted(applicationId, tx);
  const widening = wideningOf(before, after, people);
  if (!widening) return;
  const code = createHash('sha256').update(JSON.stringify(widening)).digest('hex').slice(0, 12);
  if (code === confirmed) return;
  throw new Refused(409, 'would-widen', wideningInWords(before, widening, people), {
    members: { code, who: widening.who },
  });
}

function requireSound(definition: Definition): void {
  const problems = findInvalidState(definition, { screens: false });
  const [first] = problems;
  if (first)
    throw new Refused(422, 'unsound', `Nothing was changed. ${first.place}: ${first.message}`, { problems });
}
