'use client';

import { memo } from 'react';
import type { Cell } from '@/core/access';
import { answerInWords, kindInWords } from '@/core/edit';
import type { AppElement } from '@/core/model';
import { COLUMN } from './mark-sheet';
import { originInWords, type GridRow } from './grid-rows';

/** The width of the frozen heads. */
export const HEAD = 300;

/** The id of the cell that the keyboard is on. */
export const FOCUSED = 'cell-focused';

/** A column that is drawn, at its place. */
export interface DrawnColumn {
  readonly index: number;
  readonly name: string;
}

interface Props {
  readonly row: GridRow;
  readonly index: number;
  readonly columns: readonly DrawnColumn[];
  /** What a cell holds; another function when anything that cells depend on is another. */
  readonly cell: (column: number, element: AppElement) => Cell;
  /** How many of a kind's people get it, for the cell that the keyboard is on; the same function as long as it can. */
  readonly among: (column: number, element: AppElement) => string | undefined;
  /** The column of the cell that the keyboard is on, if it is in this row; -1 for the head. */
  readonly focused: number | undefined;
  /** The columns that are selected in this row, from and to; -1 where none. */
  readonly from: number;
  readonly to: number;
}

/** One row: a cell for each column that is in view, and the element's name for screen readers. */
export const GridRowView = memo(function GridRowView({
  row,
  index,
  columns,
  cell,
  among: peopleOf,
  focused,
  from,
  to,
}: Props) {
  const { element, depth, hasContents, folded, place, among } = row;
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      aria-level={depth + 1}
      aria-posinset={place}
      aria-setsize={among}
      aria-expanded={hasContents ? !folded : undefined}
      className="grid-row"
    >
      {/* What is seen of it is in the frozen heads. */}
      <div
        role="rowheader"
        id={focused === -1 ? FOCUSED : undefined}
        aria-colindex={1}
        aria-label={`${element.name} ${kindInWords(element.kind)}`}
        className="flex-none"
        style={{ width: HEAD }}
      />
      <div role="presentation" className="flex-none" style={{ width: (columns[0]?.index ?? 0) * COLUMN }} />
      {columns.map(({ index: column, name }) => {
        const one = cell(column, element);
        const people = column === focused ? peopleOf(column, element) : undefined;
        const word = [answerInWords(element.kind, one.answer), people, originInWords(one)]
          .filter(Boolean)
          .join(', ');
        return (
          <div
            key={column}
            role="gridcell"
            id={column === focused ? FOCUSED : undefined}
            aria-colindex={column + 2}
            aria-selected={column >= from && column <= to}
            aria-label={`${element.name}, ${name}: ${word}`}
            className={`cell${column >= from && column <= to ? ' cell-selected' : ''}${column === focused ? ' cell-focused' : ''}`}
          />
        );
      })}
    </div>
  );
});
