'use client';

import type { ReactNode } from 'react';
import { answerInWords } from '@/core/edit';
import type { Definition } from '@/core/model';
import type { Compared, ComparedCell, Listed } from '@/contract/studio/proving';
import { LevelMark } from '../shared/level-mark';
import {
  amongOf,
  changeInWords,
  type Grouping,
  groupsOf,
  headingOf,
  isSame,
  rowsOf,
  someOf,
  whomOf,
} from './compared';

const MOST_GROUPS = 60;
const MOST_IN_GROUP = 40;
/** So few groups are unfolded. */
const FEW = 4;
const FEW_LISTED = 10;

/** Who gained and who lost what, and by which change. */
export function Differences({
  data,
  by,
  definition,
}: {
  data: Compared;
  by: Grouping;
  definition: Definition;
}) {
  const { cells, gained, lost } = data;
  if (isSame(data))
    return (
      <p className="mt-2">
        No differences. Access, records, times, the definition and people’s roles are the same.
      </p>
    );
  const groups = groupsOf(definition, cells, by);
  return (
    <div aria-label="Differences" role="region" className="mt-2">
      <p className="font-semibold">
        {gained + lost === 0 ? 'No level differs' : `${gained} gained, ${lost} lost`}
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
      <List
        title="Other records, times or sessions"
        list={data.otherwise}
        keyOf={({ element, what, who }) => `${element} ${what} ${who.join(' ')}`}
      >
        {({ elementName, what, who, count }) => (
          <>
            <span className="font-medium">{elementName}:</span>{' '}
            {what === 'records' ? 'other records for' : 'at other times, or with another session, for'}{' '}
            {amongOf(who, count)}
          </>
        )}
      </List>
      <List
        title="Differences in the definition"
        list={data.definition}
        keyOf={({ about, done }) => `${about} ${done.join(' ')}`}
      >
        {({ about, done }) => (
          <>
            <span className="font-medium">{about}:</span> {done.join(' ')}
          </>
        )}
      </List>
      <List
        title="Differences in people and their roles"
        list={data.people}
        keyOf={({ name, says }) => `${name} ${says}`}
      >
        {({ name, says }) => (
          <>
            <span className="font-medium">{name}</span> {says}
          </>
        )}
      </List>
    </div>
  );
}

/** A list under its title, with how many there are; nothing where there are none. */
function List<T>({
  title,
  list: { first, count },
  keyOf,
  children,
}: {
  title: string;
  list: Listed<T>;
  keyOf: (one: T) => string;
  children: (one: T) => ReactNode;
}) {
  if (count === 0) return null;
  return (
    <details className="border-t border-sheet py-1" open={count <= FEW_LISTED}>
      <summary className="font-semibold">
        {title} <span className="text-[13px] font-normal text-quiet">{count}</span>
      </summary>
      <ul className="text-[13px]">
        {first.map((one, n) => (
          <li key={`${keyOf(one)} ${n}`} className="mt-1">
            {children(one)}
          </li>
        ))}
        {count > first.length && <li className="text-quiet">and {count - first.length} more</li>}
      </ul>
    </details>
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
