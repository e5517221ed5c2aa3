'use client';

import { ChevronDown, ChevronRight } from 'lucide-react';
import { memo } from 'react';
import type { Cell } from '@/core/access/cells';
import { answerInWords, kindInWords } from '@/core/edit/words';
import type { Element } from '@/core/model/tree';
import { CellMarks, COLUMN, ROW } from './cell-marks';
import { originInWords, type GridRow } from './grid-rows';

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
  readonly cell: (column: number, element: Element) => Cell;
  /** The place of the cell that the keyboard is on, if it is in this row. */
  readonly focused: number;
  /** The columns that are selected in this row, from and to; -1 where none. */
  readonly from: number;
  readonly to: number;
  readonly onFold: (id: string, folded: boolean) => void;
}

/** One row: the element's name and a cell for each column that is in view. */
export const GridRowView = memo(function GridRowView({
  row,
  index,
  columns,
  cell,
  focused,
  from,
  to,
  onFold,
}: Props) {
  const { element, depth, hasContents, folded, hit, place, among } = row;
  const cells = columns.map(({ index: column }) => cell(column, element));
  const Chevron = folded ? ChevronRight : ChevronDown;
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      aria-level={depth + 1}
      aria-posinset={place}
      aria-setsize={among}
      aria-expanded={hasContents ? !folded : undefined}
      className="grid-row"
      style={{ top: index * ROW }}
    >
      <div
        role="rowheader"
        id={focused === -1 ? FOCUSED : undefined}
        aria-colindex={1}
        className={`grid-head ${focused === -1 ? 'cell-focused' : ''} ${hit ? '' : 'text-quiet'} ${depth === 0 ? 'font-medium' : ''}`}
        style={{ width: HEAD, paddingLeft: 4 + depth * 12 }}
        title={`${element.name}: ${kindInWords(element.kind)}`}
      >
        <span
          className="flex w-4 shrink-0 justify-center"
          onMouseDown={(event) => {
            if (!hasContents) return;
            event.stopPropagation();
            onFold(element.id, !folded);
          }}
        >
          {hasContents && <Chevron size={13} aria-hidden className="text-quiet" />}
        </span>
        <span className="truncate">{element.name}</span>
        <span className="ml-auto shrink-0 pr-2 pl-1 text-[11px] text-quiet">{kindInWords(element.kind)}</span>
      </div>
      <div role="presentation" className="flex-none" style={{ width: (columns[0]?.index ?? 0) * COLUMN }} />
      {columns.map(({ index: column, name }, n) => {
        const one = cells[n] as Cell;
        const word = `${answerInWords(element.kind, one.answer)}, ${originInWords(one)}`;
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
      <div
        role="presentation"
        className="pointer-events-none absolute top-0"
        style={{ left: HEAD + (columns[0]?.index ?? 0) * COLUMN }}
      >
        <CellMarks cells={cells} />
      </div>
    </div>
  );
});
