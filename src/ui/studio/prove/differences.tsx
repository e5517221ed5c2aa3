'use client';

import type { Answer } from '@/core/access';
import { answerInWords } from '@/core/edit';
import type { Definition, ElementKind } from '@/core/model';
import { LevelMark } from '../shared/level-mark';
import { whenInWords } from './since-in-words';

interface Made {
  readonly author?: string;
  readonly at: string;
}

interface ComparedCell {
  readonly viewer: string;
  readonly viewerName: string;
  readonly element: string;
  readonly elementName: string;
  readonly kind: ElementKind;
  readonly before: Answer;
  readonly after: Answer;
  readonly gains: boolean;
  readonly edit?: Made & { readonly revision: number; readonly says: string };
  /** What is otherwise with the person; by whom, where that was written down. */
  readonly person?: Partial<Made> & { readonly says: string };
}

/** What differs from what was signed off. */
export interface Compared {
  readonly cells: readonly ComparedCell[];
  readonly gained: number;
  readonly lost: number;
}

/** How what differs is put together: under the change that did it, who has it, or what it is. */
export type Grouping = 'change' | 'viewer' | 'element';

const MOST_GROUPS = 60;
const MOST_IN_GROUP = 40;

/** Who gained and who lost what, and by which change. */
export function Differences({
  data: { cells, gained, lost },
  by,
  definition,
}: {
  data: Compared;
  by: Grouping;
  definition: Definition;
}) {
  if (cells.length === 0) return <p className="mt-2">Nothing differs.</p>;
  const groups = new Map<string, ComparedCell[]>();
  for (const cell of cells) {
    const name =
      by === 'change'
        ? changeInWords(definition, cell, 'people')
        : by === 'viewer'
          ? cell.viewerName
          : cell.elementName;
    const group = groups.get(name);
    if (group) group.push(cell);
    else groups.set(name, [cell]);
  }
  const all = [...groups];
  return (
    <div aria-label="Differences" role="region" className="mt-2">
      <p className="font-semibold">
        {gained} gained, {lost} lost
      </p>
      {all.slice(0, MOST_GROUPS).map(([name, of]) => (
        <details key={name} className="border-t border-sheet py-1" open={all.length <= 4}>
          <summary>
            {by === 'change' ? headingOf(definition, of) : name}{' '}
            <span className="text-[13px] text-quiet">{of.length}</span>
          </summary>
          <ul className="text-[13px]">
            {of.slice(0, MOST_IN_GROUP).map((cell) => (
              <li key={`${cell.viewer} ${cell.element}`} className="mt-1">
                <span className="font-medium">{cell.gains ? 'Gained' : 'Lost'}:</span>{' '}
                {by === 'change'
                  ? `${cell.viewerName}, ${cell.elementName}`
                  : by === 'viewer'
                    ? cell.elementName
                    : cell.viewerName}
                <span className="flex items-center gap-1">
                  <LevelMark answer={cell.before} /> {answerInWords(cell.kind, cell.before)} →{' '}
                  <LevelMark answer={cell.after} /> {answerInWords(cell.kind, cell.after)}
                </span>
                {by !== 'change' && (
                  <span className="block text-quiet">{changeInWords(definition, cell, cell.viewerName)}</span>
                )}
              </li>
            ))}
            {of.length > MOST_IN_GROUP && (
              <li className="text-quiet">and {of.length - MOST_IN_GROUP} more</li>
            )}
          </ul>
        </details>
      ))}
      {all.length > MOST_GROUPS && <p className="text-quiet">and {all.length - MOST_GROUPS} more</p>}
    </div>
  );
}

/** "Tamsin Reed, 4 Mar 2026, 10:12: Loan. It got a line: Volunteer: see." `whom`: of whom it is told. */
function changeInWords(definition: Definition, { edit, person }: ComparedCell, whom: string): string {
  const said = [
    ...(edit ? [`${madeBy(definition, edit)}: ${edit.says}`] : []),
    ...(person ? [`${madeBy(definition, person)}: ${whom} ${person.says}.`] : []),
  ];
  return said.join(' And ') || 'By changes that cannot be told any more';
}

/** Above all that one change did: of one person by name. */
function headingOf(definition: Definition, cells: readonly ComparedCell[]): string {
  const [first] = cells;
  if (!first) return '';
  const same = cells.every(({ viewer }) => viewer === first.viewer);
  return changeInWords(definition, first, same ? first.viewerName : 'people');
}

function madeBy(definition: Definition, { author, at }: Partial<Made>): string {
  if (at === undefined) return 'Not written down by whom';
  return `${author ?? 'Somebody who is gone'}, ${whenInWords(definition, at)}`;
}
