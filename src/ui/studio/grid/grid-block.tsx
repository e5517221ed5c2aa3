'use client';

import { memo } from 'react';
import type { Cell } from '@/core/access';
import type { AppElement } from '@/core/model';
import { CellMarks } from './cell-marks';
import { GridHead } from './grid-head';
import { GridRowView, HEAD, type DrawnColumn } from './grid-row';
import type { GridRow } from './grid-rows';
import { COLUMN, ROW, type MarkSheet } from './mark-sheet';

/** So many rows come and go together: what it costs that anything changes is then shared by them. */
export const BLOCK = 8;

/** Cells from one to another, both included. */
export interface Range {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

interface Props {
  readonly rows: readonly GridRow[];
  /** The first row of the block. */
  readonly from: number;
  readonly columns: readonly DrawnColumn[];
  /** What a cell holds; another function when anything that cells depend on is another. */
  readonly cell: (column: number, element: AppElement) => Cell;
  readonly among: (column: number, element: AppElement) => string | undefined;
  readonly sheet: MarkSheet | undefined;
  /** Where the keyboard is, if it is on a row of this block. */
  readonly row: number | undefined;
  readonly column: number;
  readonly range: Range | undefined;
}

/** Some rows of cells, with the picture of their marks over them. */
export const GridBlock = memo(function GridBlock({
  rows,
  from,
  columns,
  cell,
  among,
  sheet,
  row,
  column,
  range,
}: Props) {
  const mine = rows.slice(from, from + BLOCK);
  return (
    <div role="presentation" className="grid-block" style={{ top: from * ROW }}>
      {mine.map((one, n) => {
        const index = from + n;
        const selected = range && index >= range.top && index <= range.bottom ? range : undefined;
        return (
          <GridRowView
            key={n}
            row={one}
            index={index}
            columns={columns}
            cell={cell}
            among={among}
            focused={index === row ? column : undefined}
            from={selected?.left ?? -1}
            to={selected?.right ?? -2}
          />
        );
      })}
      <div
        role="presentation"
        className="pointer-events-none absolute top-0"
        style={{ left: HEAD + (columns[0]?.index ?? 0) * COLUMN }}
      >
        <CellMarks
          rows={mine.map(({ element }) => columns.map(({ index }) => cell(index, element)))}
          sheet={sheet}
        />
      </div>
    </div>
  );
});

/** The heads of the same rows. */
export const HeadsBlock = memo(function HeadsBlock({
  rows,
  from,
  row,
  onFold,
}: {
  rows: readonly GridRow[];
  from: number;
  /** The row on whose head the keyboard is, if it is in this block. */
  row: number | undefined;
  onFold: (id: string, folded: boolean) => void;
}) {
  return (
    <div className="grid-block" style={{ top: from * ROW }}>
      {rows.slice(from, from + BLOCK).map((one, n) => (
        <GridHead key={n} row={one} index={from + n} focused={from + n === row} onFold={onFold} />
      ))}
    </div>
  );
});
