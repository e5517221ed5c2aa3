import type { Definition } from '@/core/model';
import type { Compared, ComparedCell, ChangeInfo } from '@/contract/studio/proving';
import { whenInWords } from './since-in-words';

/** Is everything the same: levels, records, times, the two definitions, and people? */
export const isSame = ({ gained, lost, otherwise, definition, people }: Compared): boolean =>
  gained + lost + otherwise.count + definition.count + people.count === 0;

/** How what differs is put together: under the change that did it, who has it, or what it is. */
export type Grouping = 'change' | 'viewer' | 'element';

const MOST_NAMES = 6;
const LIST = new Intl.ListFormat('en-GB');

/** What belongs together, in the order in which it came: under the same change, of the same viewer, or of one element. */
export function groupsOf(
  definition: Definition,
  cells: readonly ComparedCell[],
  by: Grouping,
): ComparedCell[][] {
  const groups = new Map<string, ComparedCell[]>();
  for (const cell of cells) {
    const { viewer, element } = cell;
    const key = { change: changeInWords(definition, cell, ''), viewer, element }[by];
    const group = groups.get(key);
    if (group) group.push(cell);
    else groups.set(key, [cell]);
  }
  return [...groups.values()];
}

/** What stands above a group. */
export function headingOf(definition: Definition, cells: readonly ComparedCell[], by: Grouping): string {
  const [first] = cells;
  if (!first) return '';
  const change = () => changeInWords(definition, first, whomOf(cells.map(({ viewerName }) => viewerName)));
  return by === 'change' ? change() : by === 'viewer' ? first.viewerName : first.elementName;
}

/** "Tamsin Reed, 4 Mar 2026, 10:12: Loan. It got a line: Volunteer: see." `whom`: of whom it is told. */
export function changeInWords(definition: Definition, { edit, person }: ComparedCell, whom: string): string {
  const said = [
    ...(edit ? [`${madeBy(definition, edit)}: ${edit.says}`] : []),
    ...(person ? [`${madeBy(definition, person)}: ${whom} ${person.says}.`] : []),
  ];
  return said.join(' And ') || 'Changes whose cause is no longer known';
}

/** One person by name, or people. */
export const whomOf = (viewers: readonly string[]): string =>
  (new Set(viewers).size === 1 ? viewers[0] : undefined) ?? 'people';

/** "Auditor, Samuel Pryce and 3 more": the first of so many. */
export function amongOf(viewers: readonly string[], count: number): string {
  const named = viewers.slice(0, MOST_NAMES);
  return LIST.format([...named, ...(count > named.length ? [`${count - named.length} more`] : [])]);
}

export const someOf = (viewers: readonly string[]): string => amongOf(viewers, viewers.length);

interface Row {
  readonly cell: ComparedCell;
  readonly viewers: readonly string[];
}

/** What is told in a group: for whom it is the same, at once. */
export function rowsOf(cells: readonly ComparedCell[], by: Grouping): Row[] {
  const rows = new Map<string, { cell: ComparedCell; viewers: string[] }>();
  for (const cell of cells) {
    const { viewer, viewerName, element, before, after, edit, person } = cell;
    const key = JSON.stringify([by === 'viewer' && viewer, element, before, after, edit, person]);
    const row = rows.get(key);
    if (row) row.viewers.push(viewerName);
    else rows.set(key, { cell, viewers: [viewerName] });
  }
  return [...rows.values()];
}

function madeBy(definition: Definition, { author, at }: Partial<ChangeInfo>): string {
  if (at === undefined) return 'Author not recorded';
  return `${author ?? 'A deleted person'}, ${whenInWords(definition, at)}`;
}
