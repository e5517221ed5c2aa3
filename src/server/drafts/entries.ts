import { and, desc, eq, inArray } from 'drizzle-orm';
import { applyEdit, findInvalidState } from '@/core';
import { changesInShort, type Edit, type LogEntry, stacksOf } from '@/core/edit';
import type { Definition, Problem } from '@/core/model';
import { database, type Executor } from '../database/client';
import { edits, people } from '../database/schema';
import { Refused } from '../http/problem';

/** One revision, as builders are told of it. */
export interface Revision {
  readonly revision: number;
  readonly edit: Edit;
  readonly author: string;
  readonly at: Date;
}

/** What a builder asks to be done to a draft. */
export type Ask = { readonly edit: Edit } | 'undo' | 'redo';

/** So many of one's own last revisions are looked through for what can be undone. */
const LOOKED_THROUGH = 500;

/** What one builder did last, in order, as far as undoing is concerned. */
export async function ownEntries(
  applicationId: string,
  author: string,
  on: Executor = database(),
): Promise<LogEntry[]> {
  const last = await on
    .select({ revision: edits.revision, undoes: edits.undoes, redoes: edits.redoes, skips: edits.skips })
    .from(edits)
    .where(and(eq(edits.applicationId, applicationId), eq(edits.author, author)))
    .orderBy(desc(edits.revision))
    .limit(LOOKED_THROUGH);
  return last.reverse();
}

interface Entry {
  readonly edit: Edit;
  readonly undoes?: number;
  readonly redoes?: number;
  readonly skips?: number[];
}

/** The first of the entries that still applies; of undo and redo, those before it are skipped, each for its reason. */
export async function firstThatApplies(
  definition: Definition,
  ask: Ask,
  entries: readonly Entry[],
  since: () => Promise<readonly Revision[]>,
): Promise<{ entry: Entry; made: Definition; skipped: readonly Problem[] }> {
  const skipped: Problem[] = [];
  const skips: number[] = [];
  for (const entry of entries) {
    const made = applyEdit(definition, entry.edit);
    // What is asked for itself and is not sound is refused by who asked for this; what is turned is skipped.
    const problems = !made.ok
      ? made.problems
      : typeof ask === 'string'
        ? findInvalidState(made.value, { screens: false })
        : [];
    if (made.ok && problems.length === 0)
      return { entry: skips.length > 0 ? { ...entry, skips } : entry, made: made.value, skipped };
    skipped.push(...problems.slice(0, 1));
    skips.push(entry.undoes ?? entry.redoes ?? 0);
  }
  const [problem] = skipped;
  if (typeof ask === 'string')
    throw new Refused(
      409,
      `nothing-to-${ask}`,
      `Nothing to ${ask}.${problem ? ` ${skippedInWords(problem)}` : ''}`,
    );
  throw new Refused(409, 'changed-meanwhile', problem?.message ?? 'It can no longer be applied.', {
    problems: skipped,
    members: { since: await since() },
  });
}

const skippedInWords = ({ place, message }: Problem): string =>
  `Your change to ${place} was skipped because it can no longer be reversed: ${message}`;

/** The names of the people whom the edit speaks of. */
export async function namesIn(applicationId: string, edit: Edit, on: Executor): Promise<Map<string, string>> {
  const ids = [...JSON.stringify(edit).matchAll(/"person":"([0-9a-f-]{36})"/g)].map(([, id]) => id as string);
  if (ids.length === 0) return new Map();
  const rows = await on
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(and(eq(people.applicationId, applicationId), inArray(people.id, [...new Set(ids)])));
  return new Map(rows.map(({ id, name }) => [id, name]));
}

/** What was taken back or done again, in a sentence or two. */
export function turnInWords(
  ask: 'undo' | 'redo',
  before: Definition,
  after: Definition,
  skipped: readonly Problem[],
  names: ReadonlyMap<string, string>,
): string {
  const done = ask === 'undo' ? 'Undone: ' : 'Redone: ';
  return [...skipped.map(skippedInWords), `${done}${changesInShort(before, after, names)}`].join(' ');
}

/** What is asked for; of undo and redo, all that could be turned, the first to go first. */
export async function entriesFor(
  applicationId: string,
  author: string,
  ask: Ask,
  on: Executor,
): Promise<Entry[]> {
  if (typeof ask !== 'string') return [{ edit: ask.edit }];
  const revisions = stacksOf(await ownEntries(applicationId, author, on))[ask].slice(-MOST_TRIED);
  if (revisions.length === 0) return [];
  const rows = await on
    .select()
    .from(edits)
    .where(and(eq(edits.applicationId, applicationId), inArray(edits.revision, [...revisions])));
  return [...revisions].reverse().flatMap((revision): Entry[] => {
    const row = rows.find((one) => one.revision === revision);
    if (!row) return [];
    return [ask === 'undo' ? { edit: row.inverse, undoes: revision } : { edit: row.edit, redoes: revision }];
  });
}

/** So many changes are tried for one that can still be turned. */
const MOST_TRIED = 50;
