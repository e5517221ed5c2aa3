'use client';

import { answerInWords } from '@/core/edit';
import type { Definition } from '@/core/model';
import { LevelMark } from '../shared/level-mark';
import {
  changeInWords,
  type Compared,
  type ComparedCell,
  type Grouping,
  groupsOf,
  headingOf,
  rowsOf,
  someOf,
  whomOf,
} from './compared';

const MOST_GROUPS = 60;
const MOST_IN_GROUP = 40;
/** So few groups are unfolded. */
const FEW = 4;

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
  const groups = groupsOf(definition, cells, by);
  return (
    <div aria-label="Differences" role="region" className="mt-2">
      <p className="font-semibold">
        {gained} gained, {lost} lost
      </p>
      {groups.slice(0, MOST_GROUPS).map((of) => (
        <details
          key={`${by} ${of[0]?.viewer} ${of[0]?.element}`}
          className="border-t border-sheet py-1"
          open={groups.length <= FEW}
        >
          <summary>
            {headingOf(definition, of, by)} <span className="text-[13px] text-quiet">{of.length}</span>
          </summary>
          <Group cells={of} by={by} definition={definition} />
        </details>
      ))}
      {groups.length > MOST_GROUPS && <p className="text-quiet">and {groups.length - MOST_GROUPS} more</p>}
    </div>
  );
}

function Group({
  cells,
  by,
  definition,
}: {
  cells: readonly ComparedCell[];
  by: Grouping;
  definition: Definition;
}) {
  const rows = rowsOf(cells, by);
  return (
    <ul className="text-[13px]">
      {rows.slice(0, MOST_IN_GROUP).map(({ cell, viewers }) => (
        <li key={`${cell.viewer} ${cell.element}`} className="mt-1">
          <span className="font-medium">{cell.gains ? 'Gained' : 'Lost'}:</span>{' '}
          {by === 'element' ? someOf(viewers) : cell.elementName}
          <span className="flex items-center gap-1">
            <LevelMark answer={cell.before} /> {answerInWords(cell.kind, cell.before)} →{' '}
            <LevelMark answer={cell.after} /> {answerInWords(cell.kind, cell.after)}
          </span>
          <span className="block text-quiet">
            {by === 'change' ? someOf(viewers) : changeInWords(definition, cell, whomOf(viewers))}
          </span>
        </li>
      ))}
      {rows.length > MOST_IN_GROUP && <li className="text-quiet">and {rows.length - MOST_IN_GROUP} more</li>}
    </ul>
  );
}
