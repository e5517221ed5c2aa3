import { accessOf, groupSimilarPeople, compile, Numbers } from '@/core';
import {
  allAlike,
  cellOf,
  keyedGroups,
  keyedPerson,
  keyedRoles,
  type KeyedViewer,
  LOGIN_STATES,
  type Person,
  rightNow,
} from '@/core/access';
import { amongInWords, answerInWords, fullName, kindInWords } from '@/core/edit';
import { type AppElement, type Definition, isDataDoor } from '@/core/model';
import { toCsv } from '../csv';
import { draftOf } from '../drafts/draft';
import { releaseInForce } from '../releases';
import { peopleCounted, personById } from '../people/read';
import type { Workplace } from './builder';

/** The whole grid in words: for a file, and for paper. */
export interface GridSheet {
  /** What the application is called, its language and its time zone. */
  readonly about: Pick<Definition, 'name' | 'language' | 'timeZone'>;
  readonly revision: number;
  /** The release in force, when it was made (RFC 3339), and whether the draft is the same. */
  readonly release: { readonly number: number; readonly at: string; readonly same: boolean } | undefined;
  readonly columns: readonly string[];
  /** Which part of it, of how many: a large grid is printed in parts. */
  readonly part: {
    readonly number: number;
    readonly of: number;
    readonly from: number;
    readonly elements: number;
  };
  readonly rows: readonly {
    readonly id: string;
    readonly name: string;
    /** In a sentence of its own. */
    readonly fullName: string;
    readonly depth: number;
    readonly kind: string;
    readonly cells: readonly { readonly word: string; readonly own: boolean; readonly limited: boolean }[];
  }[];
}

/** So many cells are laid out by a browser in a few seconds. */
const MOST_CELLS = 30_000;

/**
 * The grid of the draft, with the columns that this builder has: login states, roles, groups, pinned people. With
 * `part`, only that part of it, from 1, as large as can be printed at once.
 */
export async function gridSheet({ applicationId, pins }: Workplace, part?: number): Promise<GridSheet> {
  const { definition, revision } = await draftOf(applicationId);
  const inForce = await releaseInForce(applicationId);
  const pinned = await Promise.all(pins.map((id) => personById(applicationId, id)));
  const release = inForce && {
    number: inForce.number,
    at: inForce.at.toISOString(),
    same: inForce.revision === revision,
  };
  const people = await peopleCounted(applicationId);
  return sheetOf(
    { definition, revision, release, people },
    pinned.flatMap((one) => one ?? []),
    part,
  );
}

/** The grid as CSV (RFC 4180): an element a row, a viewer a column, each level in words. */
export async function gridFile(workplace: Workplace): Promise<string> {
  const { columns, rows } = await gridSheet(workplace);
  return `\uFEFF${toCsv([
    ['Element', 'Kind', 'Lines', ...columns],
    ...rows.map(({ fullName, kind, cells }) => [
      fullName,
      kind,
      cells[0]?.own ? 'own' : 'follows',
      ...cells.map(({ word, limited }) => (limited ? `${word} (restricted)` : word)),
    ]),
  ])}`;
}

/** What a sheet is of. */
interface SheetOf extends Pick<GridSheet, 'revision' | 'release'> {
  readonly definition: Definition;
  /** Everybody, for the numbers. */
  readonly people: readonly Person[];
}

/** The grid of a definition: login states, roles, groups, and these people. */
export function sheetOf(
  { definition, revision, release, people }: SheetOf,
  named: readonly Person[],
  part?: number,
): GridSheet {
  const viewers: readonly KeyedViewer[] = [
    ...LOGIN_STATES,
    ...keyedRoles(definition),
    ...keyedGroups(definition).map((one) => ({ ...one, name: `Group: ${one.name}` })),
    ...named.map(keyedPerson),
  ];
  const compiled = compile(definition);
  const at = rightNow();
  const numbers = new Numbers(compiled, groupSimilarPeople(definition, people, at), at, 'all');
  const accesses = viewers.map(({ viewer }) => accessOf(compiled, viewer, at));
  const depthOf = (element: AppElement): number => (element.container ? depthOf(element.container) + 1 : 0);
  const elements = compiled.tree.elements.toSorted((a, b) => Number(isDataDoor(a)) - Number(isDataDoor(b)));
  const most = part === undefined ? elements.length : Math.max(100, Math.floor(MOST_CELLS / viewers.length));
  const of = Math.max(1, Math.ceil(elements.length / most));
  const number = Math.min(of, Math.max(1, part ?? 1));
  const ordered = elements.slice((number - 1) * most, number * most);
  const { name, language, timeZone } = definition;
  return {
    about: { name, language, timeZone },
    revision,
    release,
    columns: viewers.map(({ name }) => name),
    part: { number, of, from: (number - 1) * most + 1, elements: elements.length },
    rows: ordered.map((element) => ({
      id: element.id,
      name: element.name,
      fullName: fullName(element),
      depth: depthOf(element),
      kind: kindInWords(element.kind),
      cells: accesses.map((access, n) => {
        const { answer, own, byContainer, byDoor } = cellOf(access, element);
        const among = answer.least < answer.most ? numbers.among(viewers[n]?.key ?? '', element) : undefined;
        const ofThem = among && !allAlike(among) ? ` (${amongInWords(element.kind, among)})` : '';
        const word = `${answerInWords(element.kind, answer)}${ofThem}`;
        return { word, own, limited: byContainer || byDoor };
      }),
    })),
  };
}
