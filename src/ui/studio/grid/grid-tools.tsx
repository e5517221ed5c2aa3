'use client';

import { Copy, Printer, ShieldCheck, FoldVertical, Table2, UnfoldVertical } from 'lucide-react';
import type { ReactNode } from 'react';
import { kindInWords } from '@/core/edit';
import type { ElementKind } from '@/core/model';
import { gridFile } from '@/contract/studio/draft';
import { urlOf } from '@/ui/client/send';
import { useBench, type RailViewer } from '../frame/bench';
import { EVERYTHING, isFiltered, type GridFilter } from './grid-rows';
import { Select } from '@/ui/parts/select';

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
    <Select
      aria-label={n === 0 ? 'First column' : 'Second column'}
      className="w-28"
      value={filter.between[n]}
      onChoose={(chosen) => {
        const to = Number(chosen);
        set({ between: n === 0 ? [to, filter.between[1]] : [filter.between[0], to] });
      }}
      options={columns.map((one, index) => ({ id: String(index), name: one.name }))}
    />
  );
  const icon = 'rounded-sm border border-edge bg-paper p-1 hover:border-ink';
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-rule px-3 py-2">
      {forms}
      <input
        type="search"
        aria-label="Search the grid"
        placeholder="Find by name"
        className="field-box w-36"
        value={filter.words}
        onChange={(event) => set({ words: event.target.value })}
      />
      <Select
        aria-label="Rows to show"
        className="w-44"
        value={filter.show}
        onChoose={(chosen) => set({ show: chosen as GridFilter['show'] })}
        options={[
          { id: 'all', name: 'All rows' },
          { id: 'own', name: 'Only elements with their own lines' },
          { id: 'doors', name: 'Only doors' },
          { id: 'conditional', name: 'Only elements that depend' },
          { id: 'differ', name: 'Only differences between…' },
        ]}
      />
      {filter.show === 'differ' && (
        <>
          {compared(0)}
          {compared(1)}
        </>
      )}
      <Select
        aria-label="Kind"
        className="w-28"
        value={filter.kind}
        onChoose={(chosen) => set({ kind: chosen as GridFilter['kind'] })}
        none="All kinds"
        options={KINDS.map((kind) => ({ id: kind, name: kindInWords(kind) }))}
      />
      <span role="status" className="text-quiet">
        {isFiltered(filter) ? `${hits} of ${of}` : `${of} elements`}
      </span>
      {isFiltered(filter) && (
        <button type="button" className="link" onClick={() => onFilter(EVERYTHING)}>
          Clear filters
        </button>
      )}
      <span className="ml-auto flex gap-1">
        <button
          type="button"
          className={icon}
          aria-label="Expand all"
          title="Expand all"
          onClick={() => onFoldAll(false)}
        >
          <UnfoldVertical size={15} aria-hidden />
        </button>
        <button
          type="button"
          className={icon}
          aria-label="Collapse all"
          title="Collapse all"
          onClick={() => onFoldAll(true)}
        >
          <FoldVertical size={15} aria-hidden />
        </button>
        {mayChange && (
          <button
            type="button"
            className={icon}
            aria-label="Add expectation…"
            title="Add an expectation that the selected cells stay as they are (E)"
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
            title="Copy the access of a row or column to another (Ctrl+C, Ctrl+V)"
            onClick={onCopy}
          >
            <Copy size={15} aria-hidden />
          </button>
        )}
        <a
          className={icon}
          href={urlOf(gridFile, { app })}
          aria-label="Export CSV"
          title="Export the grid as a CSV file"
        >
          <Table2 size={15} aria-hidden />
        </a>
        <a
          className={icon}
          href={`/studio/${app}/gates/print`}
          aria-label="Print…"
          title="Open a version to print and sign"
        >
          <Printer size={15} aria-hidden />
        </a>
      </span>
    </div>
  );
}
