'use client';

import { useVirtualizer, type Range as VisibleRange } from '@tanstack/react-virtual';
import { memo, useCallback, useEffect, useMemo, useRef, type RefObject } from 'react';
import type { Cell } from '@/core/access';
import type { AppElement } from '@/core/model';
import type { RailViewer } from '../frame/bench';
import { CellMarks } from './cell-marks';
import { BLOCK, GridBlock, HeadsBlock, type Range } from './grid-block';
import { GridRowView, HEAD, type DrawnColumn } from './grid-row';
import type { GridRow } from './grid-rows';
import { COLUMN, ROW, useMarkSheet, type MarkSheet } from './mark-sheet';

const HEADING = 104;

/** Columns come and go by so many. */
const COLUMNS = 4;

/** What is in view and around it, widened to whole blocks. `length`: how many are drawn at most, which only grows. */
function useBlocks(size: number): {
  readonly length: RefObject<number>;
  readonly extract: (range: VisibleRange) => number[];
} {
  const length = useRef(0);
  const extract = useCallback(
    ({ startIndex, endIndex, overscan, count }: VisibleRange): number[] => {
      const needed = endIndex - startIndex + 2 + 2 * overscan;
      length.current = Math.max(length.current, Math.ceil(needed / size) * size + size);
      const from = Math.floor(Math.max(0, startIndex - overscan) / size) * size;
      return Array.from({ length: Math.min(length.current, count - from) }, (_, n) => from + n);
    },
    [size],
  );
  return { length, extract };
}

interface Props {
  readonly scroller: RefObject<HTMLDivElement | null>;
  readonly rows: readonly GridRow[];
  readonly columns: readonly RailViewer[];
  readonly cell: (column: number, element: AppElement) => Cell;
  /** How many of a kind's people get it, in words, where that says more than the cell. */
  readonly among: (column: number, element: AppElement) => string | undefined;
  /** Where the keyboard is; it is scrolled into view. */
  readonly row: number;
  readonly column: number;
  /** What is selected, where that is more than one cell. */
  readonly range: Range | undefined;
  readonly onFold: (id: string, folded: boolean) => void;
}

/** The rows and columns that are in view. Only this is drawn anew in scrolling. */
export const GridBody = memo(function GridBody({
  scroller,
  rows,
  columns,
  cell,
  among,
  row,
  column,
  range,
  onFold,
}: Props) {
  const sheet = useMarkSheet();
  const [rowBlocks, columnBlocks] = [useBlocks(BLOCK), useBlocks(COLUMNS)];
  const down = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 6,
    rangeExtractor: rowBlocks.extract,
    paddingStart: HEADING,
    scrollPaddingStart: HEADING,
  });
  const across = useVirtualizer({
    horizontal: true,
    count: columns.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => COLUMN,
    overscan: 2,
    rangeExtractor: columnBlocks.extract,
    paddingStart: HEAD,
    scrollPaddingStart: HEAD,
  });
  useEffect(() => down.scrollToIndex(row), [down, row]);
  useEffect(() => {
    if (column >= 0) across.scrollToIndex(column);
  }, [across, column]);
  const inView = across.getVirtualItems();
  const [first, last] = [inView[0]?.index ?? 0, inView.at(-1)?.index ?? -1];
  const drawn = useMemo(
    () => columns.slice(first, last + 1).map(({ name }, n): DrawnColumn => ({ index: first + n, name })),
    [columns, first, last],
  );
  // Blocks that go out of view are used for those that come. While scrolling they stay at their places in the page,
  // since each that is moved would be laid out anew; at rest they are in order, as they are read.
  const blocks = down.getVirtualItems().flatMap(({ index }) => (index % BLOCK === 0 ? [index] : []));
  const pool = rowBlocks.length.current / BLOCK;
  const keyOf = (from: number): number => (from / BLOCK) % pool;
  if (down.isScrolling) blocks.sort((one, other) => keyOf(one) - keyOf(other));
  const within = (from: number, index: number): number | undefined =>
    index >= from && index < from + BLOCK ? index : undefined;
  const focusedRow = rows[row];
  const focusIsDrawn =
    blocks.some((from) => within(from, row) !== undefined) &&
    (column < 0 || (column >= first && column <= last));
  return (
    <div
      className="relative"
      style={{ height: HEADING + rows.length * ROW, width: HEAD + columns.length * COLUMN + 8 }}
    >
      <div role="row" aria-rowindex={1} className="grid-heading" style={{ height: HEADING }}>
        <div role="columnheader" aria-colindex={1} className="grid-corner" style={{ width: HEAD }}>
          <Legend sheet={sheet} />
        </div>
        {drawn.map(({ index, name }) => (
          <div
            key={index}
            role="columnheader"
            aria-colindex={index + 2}
            className={`grid-column-name ${index === column ? 'font-semibold text-ink' : ''} ${columns[index]?.group !== columns[index - 1]?.group ? 'border-l border-edge' : ''}`}
            style={{ left: HEAD + index * COLUMN, width: COLUMN, height: HEADING }}
          >
            <span title={name}>{columns[index]?.short ?? name}</span>
          </div>
        ))}
      </div>
      <div className="absolute left-0" style={{ top: HEADING, width: '100%' }}>
        {blocks.map((from) => (
          <GridBlock
            key={keyOf(from)}
            rows={rows}
            from={from}
            columns={drawn}
            cell={cell}
            among={among}
            sheet={sheet}
            row={within(from, row)}
            column={within(from, row) === undefined ? -1 : column}
            range={range && range.top < from + BLOCK && range.bottom >= from ? range : undefined}
          />
        ))}
        {/* What the keyboard is on is always there to be named, also where it was scrolled out of view. */}
        {focusedRow && !focusIsDrawn && (
          <div role="presentation" className="grid-block pointer-events-none" style={{ top: row * ROW }}>
            <GridRowView
              row={focusedRow}
              index={row}
              columns={column < 0 ? [] : [{ index: column, name: columns[column]?.name ?? '' }]}
              cell={cell}
              among={among}
              focused={column}
              from={-1}
              to={-2}
            />
          </div>
        )}
        <div aria-hidden className="grid-heads" style={{ width: HEAD, height: rows.length * ROW }}>
          {blocks.map((from) => (
            <HeadsBlock
              key={keyOf(from)}
              rows={rows}
              from={from}
              row={column === -1 ? within(from, row) : undefined}
              onFold={onFold}
            />
          ))}
        </div>
      </div>
    </div>
  );
});

const plain = { own: false, byContainer: false, byDoor: false };
const EDITED = { least: 2, most: 2 } as const;

/** What the marks mean. */
const MEANINGS: readonly (readonly [name: string, cell: Cell])[] = [
  ['none', { ...plain, answer: { least: 0, most: 0 } }],
  ['see', { ...plain, answer: { least: 1, most: 1 } }],
  ['edit', { ...plain, answer: EDITED }],
  ['depends', { ...plain, answer: { least: 0, most: 2 } }],
  ['own lines', { ...plain, answer: EDITED, own: true }],
  ['limited by container', { ...plain, answer: EDITED, byContainer: true }],
  ['limited by door', { ...plain, answer: EDITED, byDoor: true }],
];

const Legend = memo(function Legend({ sheet }: { sheet: MarkSheet | undefined }) {
  return (
    <ul aria-label="Legend" className="flex flex-wrap content-end gap-x-2 gap-y-0.5 p-1.5 text-[12px]">
      {MEANINGS.map(([name, cell]) => (
        <li key={name} className="flex items-center">
          <CellMarks rows={[[cell]]} sheet={sheet} />
          {name}
        </li>
      ))}
    </ul>
  );
});
