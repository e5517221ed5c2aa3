'use client';

import { Copy, Printer, ShieldCheck, FoldVertical, Table2, UnfoldVertical } from 'lucide-react';
import type { ReactNode } from 'react';
import { kindInWords } from '@/core/edit';
import type { ElementKind } from '@/core/model';
import { gridFile } from '@/contract/studio/draft';
import { urlOf } from '@/ui/client/send';
import { useBench, type RailViewer } from '../frame/bench';
import { EVERYTHING, isFiltered, type GridFilter } from './grid-rows';

const KINDS: readonly ElementKind[] = [
  'area',
  'screen',
  'face',
  'section',
  'field',
  'button',
  'list',
  'chart',
  'column',
  'text',
  'people',
  'menu-item',
  'rows',
  'action',
  'data-field',
];

interface Props {
  readonly forms: ReactNode;
  readonly filter: GridFilter;
  readonly onFilter: (filter: GridFilter) => void;
  readonly columns: readonly RailViewer[];
  readonly hits: number;
  readonly of: number;
  readonly onFoldAll: (folded: boolean) => void;
  readonly onCopy: () => void;
  readonly onExpect: () => void;
}

/** What of the grid is shown, and what can be done with it as a whole. */
export function GridTools({
  forms,
  filter,
  onFilter,
  columns,
  hits,
  of,
  onFoldAll,
  onCopy,
  onExpect,
}: Props) {
  const { app, mayChange } = useBench();
  const set = (change: Partial<GridFilter>): void => onFilter({ ...filter, ...change });
  const compared = (n: 0 | 1): ReactNode => (
    <select
      aria-label={n === 0 ? 'One column' : 'The other column'}
      className="field-box w-28"
      value={filter.between[n]}
      onChange={(event) => {
        const to = Number(event.target.value);
        set({ between: n === 0 ? [to, filter.between[1]] : [filter.between[0], to] });
      }}
    >
      {columns.map((one, index) => (
        <option key={one.key} value={index}>
          {one.name}
        </option>
      ))}
    </select>
  );
  const icon = 'rounded-sm border border-edge bg-paper p-1 hover:border-ink';
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-rule px-3 py-2">
      {forms}
      <input
        type="search"
        aria-label="Find in the grid"
        placeholder="Find by name"
        className="field-box w-36"
        value={filter.words}
        onChange={(event) => set({ words: event.target.value })}
      />
      <select
        aria-label="Which rows"
        className="field-box w-44"
        value={filter.show}
        onChange={(event) => set({ show: event.target.value as GridFilter['show'] })}
      >
        <option value="all">All rows</option>
        <option value="own">Only with lines of their own</option>
        <option value="doors">Only doors</option>
        <option value="conditional">Only what depends</option>
        <option value="differ">Only what differs between …</option>
      </select>
      {filter.show === 'differ' && (
        <>
          {compared(0)}
          {compared(1)}
        </>
      )}
      <select
        aria-label="Kind"
        className="field-box w-28"
        value={filter.kind}
        onChange={(event) => set({ kind: event.target.value as GridFilter['kind'] })}
      >
        <option value="">Any kind</option>
        {KINDS.map((kind) => (
          <option key={kind} value={kind}>
            {kindInWords(kind)}
          </option>
        ))}
      </select>
      <span role="status" className="text-quiet">
        {isFiltered(filter) ? `${hits} of ${of}` : `${of} elements`}
      </span>
      {isFiltered(filter) && (
        <button type="button" className="link" onClick={() => onFilter(EVERYTHING)}>
          Show all
        </button>
      )}
      <span className="ml-auto flex gap-1">
        <button
          type="button"
          className={icon}
          aria-label="Unfold all"
          title="Unfold all"
          onClick={() => onFoldAll(false)}
        >
          <UnfoldVertical size={15} aria-hidden />
        </button>
        <button
          type="button"
          className={icon}
          aria-label="Fold all"
          title="Fold all"
          onClick={() => onFoldAll(true)}
        >
          <FoldVertical size={15} aria-hidden />
        </button>
        {mayChange && (
          <button
            type="button"
            className={icon}
            aria-label="Expect these cells"
            title="Expect the chosen cells to stay as they are (E)"
            onClick={onExpect}
          >
            <ShieldCheck size={15} aria-hidden />
          </button>
        )}
        {mayChange && (
          <button
            type="button"
            className={icon}
            aria-label="Copy access"
            title="Copy a row’s or a column’s access to another (Ctrl C, Ctrl V)"
            onClick={onCopy}
          >
            <Copy size={15} aria-hidden />
          </button>
        )}
        <a className={icon} href={urlOf(gridFile, { app })} aria-label="As CSV" title="As a CSV file">
          <Table2 size={15} aria-hidden />
        </a>
        <a
          className={icon}
          href={`/studio/${app}/gates/print`}
          aria-label="To print"
          title="To print and sign"
        >
          <Printer size={15} aria-hidden />
        </a>
      </span>
    </div>
  );
}
