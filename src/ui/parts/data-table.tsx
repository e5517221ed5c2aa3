'use client';

import {
  metaHelper,
  rowSelectionFeature,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
  type RowData,
} from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';
import type { ReactNode, ThHTMLAttributes, TdHTMLAttributes } from 'react';

/** How a column looks, beside what is in it. */
interface ColumnLook {
  /** On the head alone, on the cells alone, and on both. */
  readonly head?: ThHTMLAttributes<HTMLTableCellElement> & Attributes;
  readonly cell?: TdHTMLAttributes<HTMLTableCellElement> & Attributes;
  readonly end?: boolean;
  /** Clicks in its cells are not clicks on the row. */
  readonly apart?: boolean;
}

type Attributes = { readonly [name: `data-${string}`]: string | undefined };

const features = tableFeatures({
  rowSortingFeature,
  rowSelectionFeature,
  columnMeta: metaHelper<ColumnLook>(),
});

/** A column: its `id` is what one sorts by. */
export type DataColumn<T extends RowData> = ColumnDef<typeof features, T>;

interface Props<T extends RowData> {
  /** What the table is of, for who does not see it. */
  readonly name: string;
  readonly columns: readonly DataColumn<T>[];
  readonly rows: readonly T[];
  readonly idOf: (row: T) => string;
  /** A column's id, with a minus where it falls, and how the server is asked to sort; without it, it cannot be. */
  readonly sort?: string;
  readonly onSort?: (sort: string) => void;
  /** What a click on a row does; rows for which there is nothing to do say so by `undefined`. */
  readonly onRow?: (row: T) => (() => void) | undefined;
  /** Which rows are chosen, and how to choose others; without it none can be. */
  readonly choosing?: {
    readonly chosen: ReadonlySet<string>;
    readonly onChoose: (rows: readonly T[]) => void;
    readonly nameOf: (row: T) => string;
  };
  /** All columns as wide as they say, whatever is in them. */
  readonly fixed?: boolean;
}

/** A page of rows that the server has found, sorted and cut: heads to sort by, boxes to choose by, cells. */
export function DataTable<T extends RowData>(props: Props<T>) {
  const { name, columns, rows, idOf, sort = '', onSort, onRow, choosing, fixed = false } = props;
  const table = useTable<typeof features, T>({
    features,
    columns: columns,
    data: rows,
    getRowId: idOf,
    manualSorting: true,
    enableSorting: onSort !== undefined,
    state: {
      sorting: sort ? [{ id: sort.replace(/^-/, ''), desc: sort.startsWith('-') }] : [],
      rowSelection: Object.fromEntries([...(choosing?.chosen ?? [])].map((id) => [id, true])),
    },
    onRowSelectionChange: (change) => {
      const now = typeof change === 'function' ? change(table.state.rowSelection) : change;
      choosing?.onChoose(rows.filter((row) => now[idOf(row)]));
    },
  });
  const sorted = (id: string): 'up' | 'down' | undefined =>
    sort === id ? 'up' : sort === `-${id}` ? 'down' : undefined;
  return (
    <table aria-label={name} className={`w-full text-left ${fixed ? 'table-fixed' : ''}`}>
      <thead>
        <tr className="border-y border-rule">
          {choosing && (
            <th className="w-8 px-2">
              <Box
                label="Select all rows on this page"
                checked={rows.length > 0 && table.getIsAllRowsSelected()}
                onChange={(on) => table.toggleAllRowsSelected(on)}
              />
            </th>
          )}
          {table.getFlatHeaders().map((header) => {
            const { id, columnDef } = header.column;
            const { head, end = false } = columnDef.meta ?? {};
            const way = sorted(id);
            return (
              <th
                key={header.id}
                {...(header.column.getCanSort() && {
                  'aria-sort': way === 'up' ? 'ascending' : way === 'down' ? 'descending' : 'none',
                })}
                {...head}
                className={`px-2 py-1 font-medium ${head?.className ?? ''}`}
              >
                {header.column.getCanSort() ? (
                  <button
                    type="button"
                    className={`flex w-full items-center gap-1 ${end ? 'justify-end' : ''}`}
                    onClick={() => onSort?.(way === 'up' ? `-${id}` : id)}
                  >
                    {draw(columnDef.header, header.getContext())}
                    {way === 'up' && <ArrowUp size={13} aria-hidden />}
                    {way === 'down' && <ArrowDown size={13} aria-hidden />}
                  </button>
                ) : (
                  draw(columnDef.header, header.getContext())
                )}
              </th>
            );
          })}
        </tr>
      </thead>
      <tbody>
        {table.getRowModel().rows.map((row) => {
          const act = onRow?.(row.original);
          return (
            <tr
              key={row.id}
              data-row={row.id}
              className={`border-b border-sheet hover:bg-plate ${act ? 'cursor-pointer' : ''}`}
              // For the mouse; a link or a button in a cell does the same for the keyboard.
              onClick={act}
            >
              {choosing && (
                <Cell apart className="px-2">
                  <Box
                    label={`Select ${choosing.nameOf(row.original)}`}
                    checked={row.getIsSelected()}
                    onChange={(on) => row.toggleSelected(on)}
                  />
                </Cell>
              )}
              {row.getAllCells().map((cell) => {
                const { cell: look, end = false, apart = false } = cell.column.columnDef.meta ?? {};
                return (
                  <Cell
                    key={cell.id}
                    apart={apart}
                    {...look}
                    className={`px-2 py-1.5 ${end ? 'text-right tabular-nums' : ''} ${look?.className ?? ''}`}
                  >
                    {draw(cell.column.columnDef.cell, cell.getContext())}
                  </Cell>
                );
              })}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/**
 * What a column says stands there: as a part of the table rather than as a component, since columns are made anew with
 * what they show, and a component that is another each time would lose the focus.
 */
const draw = <C,>(content: ReactNode | ((context: C) => ReactNode), context: C): ReactNode =>
  typeof content === 'function' ? content(context) : content;

function Cell({ apart, ...cell }: TdHTMLAttributes<HTMLTableCellElement> & { readonly apart: boolean }) {
  return <td {...cell} {...(apart && { onClick: (event) => event.stopPropagation() })} />;
}

function Box({
  label,
  checked,
  onChange,
}: {
  readonly label: string;
  readonly checked: boolean;
  readonly onChange: (on: boolean) => void;
}) {
  return (
    <input
      type="checkbox"
      aria-label={label}
      className="size-4 accent-open"
      checked={checked}
      onChange={(event) => onChange(event.target.checked)}
    />
  );
}

/** Leads from page to page of what the server has cut, and says where one is. */
export function Pager({
  page,
  pages,
  onPage,
  children,
}: {
  readonly page: number;
  readonly pages: number;
  readonly onPage: (page: number) => void;
  /** Where one is, in words. */
  readonly children: ReactNode;
}) {
  return (
    <div className="flex items-center justify-between gap-3 px-3 py-2 text-quiet">
      <span role="status">{children}</span>
      {pages > 1 && (
        <span className="flex gap-2">
          <button
            type="button"
            className="button"
            disabled={page <= 1}
            onClick={() => onPage(Math.min(page - 1, pages))}
          >
            Previous
          </button>
          <button type="button" className="button" disabled={page >= pages} onClick={() => onPage(page + 1)}>
            Next
          </button>
        </span>
      )}
    </div>
  );
}
