import { createHash } from 'node:crypto';
import { and, desc, eq } from 'drizzle-orm';
import { applyEdit } from '@/core';
import type { Answer } from '@/core/access';
import { fullName } from '@/core/edit';
import { type Definition, sameJson, treeOf } from '@/core/model';
import { canonicalJson, type ChangedCell, changedCells, gains, type Standing } from '@/core/signing';
import { database } from '../database/client';
import { auditEvents, builders, releases, signOffs } from '../database/schema';
import { isUuid } from '../database/uuid';
import { draftAt, draftOf, revisionsSince } from '../drafts/draft';
import { changesInShort } from '../drafts/entries';
import { notThere } from '../http/problem';
import { tellNews } from '../news/news';
import { peopleOf } from '../people/read';

/** What was signed off, as it is listed. */
export interface ListedSignOff {
  readonly id: string;
  readonly title: string;
  readonly revision: number;
  readonly release: number | null;
  readonly sha256: string;
  readonly by: string;
  /** RFC 3339. */
  readonly at: string;
}

type SignOff = typeof signOffs.$inferSelect;

export async function listSignOffs(applicationId: string): Promise<ListedSignOff[]> {
  const rows = await database()
    .select({
      id: signOffs.id,
      title: signOffs.title,
      revision: signOffs.revision,
      release: signOffs.release,
      sha256: signOffs.sha256,
      by: builders.name,
      at: signOffs.at,
    })
    .from(signOffs)
    .innerJoin(builders, eq(builders.id, signOffs.author))
    .where(eq(signOffs.applicationId, applicationId))
    .orderBy(desc(signOffs.at));
  return rows.map(({ at, ...one }) => ({ ...one, at: at.toISOString() }));
}

/** Keeps the access of the draft as it is now, people's roles included, as confirmed by this builder. Returns its id. */
export async function signOff(
  applicationId: string,
  builderId: string,
  title: string,
  reviewed: number,
): Promise<string> {
  const { definition, revision } = await draftAt(applicationId, reviewed);
  const people = await peopleOf(applicationId);
  const [released] = await database()
    .select({ number: releases.number })
    .from(releases)
    .where(and(eq(releases.applicationId, applicationId), eq(releases.revision, revision)))
    .orderBy(desc(releases.number));
  const release = released?.number ?? null;
  const content = { title, revision, release, definition, people };
  return database().transaction(async (tx) => {
    const [row] = await tx
      .insert(signOffs)
      .values({ applicationId, ...content, sha256: hashOf(content), author: builderId })
      .returning({ id: signOffs.id });
    await tx
      .insert(auditEvents)
      .values({ applicationId, builderId, what: 'signed-off', detail: { revision, id: row?.id ?? '' } });
    await tellNews(tx, applicationId, 'signed');
    return row?.id ?? '';
  });
}

type Content = Pick<SignOff, 'title' | 'revision' | 'release' | 'definition' | 'people'>;

/** SHA-256 of what was signed off as canonical JSON (RFC 8785), in hexadecimal. */
const hashOf = (content: Content): string => createHash('sha256').update(contentOf(content)).digest('hex');

/** What was signed off as its file has it: whoever has that can work out its SHA-256. */
export const contentOf = ({ title, revision, release, definition, people }: Content): string =>
  canonicalJson({ title, revision, release, definition, people });

export async function signOffById(
  applicationId: string,
  id: string,
): Promise<SignOff & { readonly by: string; readonly isWhole: boolean }> {
  const [row] = isUuid(id)
    ? await database()
        .select({ signOff: signOffs, by: builders.name })
        .from(signOffs)
        .innerJoin(builders, eq(builders.id, signOffs.author))
        .where(and(eq(signOffs.applicationId, applicationId), eq(signOffs.id, id)))
    : [];
  if (!row) throw notThere();
  return { ...row.signOff, by: row.by, isWhole: hashOf(row.signOff) === row.signOff.sha256 };
}

/** By which change a cell came to be what it is: an edit, or another change of a person. */
type Cause =
  | {
      readonly revision: number;
      readonly author: string;
      readonly at: string;
      /** What the edit changed, in a sentence or two. */
      readonly says: string;
    }
  | { readonly person: true };

/** A cell that is another since something was signed off. */
interface ComparedCell {
  readonly viewer: string;
  readonly viewerName: string;
  readonly element: string;
  /** In a sentence of its own. */
  readonly elementName: string;
  readonly kind: string;
  readonly before: Answer;
  readonly after: Answer;
  readonly gains: boolean;
  readonly by?: Cause | undefined;
}

/** What differs from what was signed off. */
export interface Compared {
  readonly cells: readonly ComparedCell[];
  /** Of all, also those that are not among `cells`. */
  readonly gained: number;
  readonly lost: number;
}

const MOST_CELLS = 2000;
/** So many edits are looked at one by one for which of them did it. */
const MOST_EDITS = 300;

/** What differs between what was signed off, and now or another sign-off. */
export async function compareSignOff(applicationId: string, id: string, other?: string): Promise<Compared> {
  const signed = await signOffById(applicationId, id);
  const now =
    other === undefined ? await standingNow(applicationId) : await signOffById(applicationId, other);
  const moment = Date.now();
  const cells = changedCells(signed, now, moment);
  const shown = cells.slice(0, MOST_CELLS);
  const causes =
    other === undefined || now.revision >= signed.revision
      ? await causesOf(applicationId, signed, now, shown, moment)
      : new Map<string, Cause>();
  const trees = [treeOf(now.definition), treeOf(signed.definition)];
  const gaining = cells.filter(gains).length;
  return {
    cells: shown.map((cell) => {
      const element = trees.map((tree) => tree.get(cell.element)).find((one) => one !== undefined);
      return {
        ...cell,
        elementName: element ? fullName(element) : cell.element,
        kind: element?.kind ?? 'section',
        gains: gains(cell),
        by: causes.get(keyOf(cell)),
      };
    }),
    gained: gaining,
    lost: cells.length - gaining,
  };
}

const keyOf = ({ viewer, element }: Pick<ChangedCell, 'viewer' | 'element'>): string =>
  `${viewer} ${element}`;

async function standingNow(applicationId: string): Promise<Standing & { readonly revision: number }> {
  const { definition, revision } = await draftOf(applicationId);
  return { definition, revision, people: await peopleOf(applicationId) };
}

/**
 * Which edit made each of these cells what it is: the last one that changed it, for the people there were. What no edit
 * changed was changed by giving somebody other roles, or other values.
 */
async function causesOf(
  applicationId: string,
  signed: Standing & { readonly revision: number },
  now: Standing & { readonly revision: number },
  cells: readonly ChangedCell[],
  moment: number,
): Promise<Map<string, Cause>> {
  const causes = new Map<string, Cause>();
  if (cells.length === 0) return causes;
  const wanted = new Set(cells.map(keyOf));
  const viewers = new Set(cells.map(({ viewer }) => viewer));
  // People as they are now: what edits have changed for them since.
  const people = now.people.filter(({ id }) => viewers.has(`person:${id}`));
  for (const cell of cells) if (cell.viewer.startsWith('person:')) causes.set(keyOf(cell), { person: true });
  const names = new Map(now.people.map(({ id, name }) => [id, name]));
  const edits = (await revisionsSince(applicationId, signed.revision)).filter(
    ({ revision }) => revision <= now.revision,
  );
  if (edits.length > MOST_EDITS) return causes;
  let definition: Definition = signed.definition;
  for (const { revision, edit, author, at } of edits) {
    const made = applyEdit(definition, edit);
    if (!made.ok) return causes;
    const changed = changedCells({ definition, people }, { definition: made.value, people }, moment).filter(
      (cell) => wanted.has(keyOf(cell)),
    );
    const says = changed.length > 0 ? changesInShort(definition, made.value, names) : '';
    const cause = { revision, author, at: new Date(at).toISOString(), says };
    for (const cell of changed) causes.set(keyOf(cell), cause);
    definition = made.value;
  }
  if (!sameJson(definition, now.definition)) causes.clear();
  return causes;
}
