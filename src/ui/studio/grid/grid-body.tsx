'use client';

import { useVirtualizer, type Range as VisibleRange } from '@tanstack/react-virtual';
import { memo, useEffect, useMemo, type RefObject } from 'react';
import type { Cell } from '@/core/access/cells';
import type { Element } from '@/core/model/tree';
import type { RailViewer } from '../bench';
import { CellMarks, COLUMN, ROW } from './cell-marks';
import { GridRowView, HEAD, type DrawnColumn } from './grid-row';
import type { GridRow } from './grid-rows';

const HEADING = 104;

/** So many rows, and columns, come and go together: most frames in scrolling then draw nothing anew. */
const ROWS = 8;
const COLUMNS = 4;

/** Rows that go out of view are used for those that come: so many at a time, or a multiple of it. */
const POOL = 64;

/** What is in view and around it, widened to whole blocks. */
const inBlocks =
  (size: number) =>
  ({ startIndex, endIndex, overscan, count }: VisibleRange): number[] => {
    const from = Math.floor(Math.max(0, startIndex - overscan) / size) * size;
    const to = Math.min(count, Math.ceil((endIndex + 1 + overscan) / size) * size);
    return Array.from({ length: to - from }, (_, n) => from + n);
  };

interface Props {
  readonly scroller: RefObject<HTMLDivElement | null>;
  readonly rows: readonly GridRow[];
  readonly columns: readonly RailViewer[];
  readonly cell: (column: number, element: Element) => Cell;
  /** Where the keyboard is; it is scrolled into view. */
  readonly row: number;
  readonly column: number;
  /** What is selected, where that is more than one cell. */
  readonly range: Range | undefined;
  readonly onFold: (id: string, folded: boolean) => void;
}

/** Cells from one to another, both included. */
export interface Range {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

/** The rows and columns that are in view. Only this is drawn anew in scrolling. */
export const GridBody = memo(function GridBody({
  scroller,
  rows,
  columns,
  cell,
  row,
  column,
  range,
  onFold,
}: Props) {
  const down = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: ROWS,
    rangeExtractor: inBlocks(ROWS),
    paddingStart: HEADING,
    scrollPaddingStart: HEADING,
  });
  const across = useVirtualizer({
    horizontal: true,
    count: columns.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => COLUMN,
    overscan: COLUMNS,
    rangeExtractor: inBlocks(COLUMNS),
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
  const rowsInView = down.getVirtualItems();
  const pool = POOL * Math.ceil(rowsInView.length / POOL);
  return (
    <div
      className="relative"
      style={{ height: HEADING + rows.length * ROW, width: HEAD + columns.length * COLUMN + 8 }}
    >
      <div role="row" aria-rowindex={1} className="grid-heading" style={{ height: HEADING }}>
        <div role="columnheader" aria-colindex={1} className="grid-corner" style={{ width: HEAD }}>
          <Legend />
        </div>
        {drawn.map(({ index, name }) => (
          <div
            key={index}
            role="columnheader"
            aria-colindex={index + 2}
            className={`grid-column-name ${index === column ? 'font-semibold text-ink' : ''} ${columns[index]?.group !== columns[index - 1]?.group ? 'border-l border-edge' : ''}`}
            style={{ left: HEAD + index * COLUMN, width: COLUMN, height: HEADING }}
          >
            <span>{name}</span>
          </div>
        ))}
      </div>
      <div className="absolute left-0" style={{ top: HEADING, width: '100%' }}>
        {rowsInView.map(({ index }) => {
          const one = rows[index];
          if (!one) return null;
          const selected = range && index >= range.top && index <= range.bottom ? range : undefined;
          return (
            <GridRowView
              key={index % pool}
              row={one}
              index={index}
              columns={drawn}
              cell={cell}
              focused={index === row ? column : -2}
              from={selected?.left ?? -1}
              to={selected?.right ?? -2}
              onFold={onFold}
            />
          );
        })}
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
  ['container limits', { ...plain, answer: EDITED, byContainer: true }],
  ['door limits', { ...plain, answer: EDITED, byDoor: true }],
];

const Legend = memo(function Legend() {
  return (
    <ul aria-label="Legend" className="flex flex-wrap content-end gap-x-2 gap-y-0.5 p-1.5 text-[12px]">
      {MEANINGS.map(([name, cell]) => (
        <li key={name} className="flex items-center">
          <CellMarks cells={[cell]} />
          {name}
        </li>
      ))}
    </ul>
  );
});
