'use client';

import { useState } from 'react';
import type { ShownButton, ShownRows } from '@/core/access';
import { ButtonView } from './button-view';
import { useChosen, type ChosenRow } from './chosen';
import type { DrawnList } from './drawn';
import { deleting } from './deleting';
import { useConfirm } from '../parts/asking';
import { ClosedCell } from './closed-view';
import { ghostClass } from './ghost';
import { useHost } from './host';
import { ListFilter } from './list-filter';
import { Heading, headOf, ListSearch } from './list-head';
import { DataTable, Pager, type DataColumn } from '../parts/data-table';

type ShownRow = ShownRows['rows'][number];

/** A list: its rows are found, sorted and cut into pages on the server. */
export function ListView({
  list,
  rows,
  address,
  query,
}: {
  list: DrawnList;
  rows: ShownRows | undefined;
  address: string;
  /** What the whole list is asked with: its search, filter and order, and the record of its screen. */
  query: string;
}) {
  const host = useHost();
  const [asking, setAsking] = useState(false);
  const confirm = useConfirm();
  const shown = rows ?? { rows: [], total: 0, page: 1, size: 25, q: '', sort: '', filter: '', filters: [] };
  const chosen = useChosen();
  const mine = chosen.rows.get(list.id) ?? new Map<string, ChosenRow>();
  const choose = (rows: readonly ShownRow[]): void => {
    const others = [...mine].filter(([id]) => !shown.rows.some((row) => row.id === id));
    chosen.choose(list.id, new Map([...others, ...rows.map((row) => [row.id, chosenOf(row)] as const)]));
  };
  const all =
    chosen.lists.has(list.id) && shown.rows.length > 0 && shown.rows.every(({ id }) => mine.has(id));
  const chooseAll = async (): Promise<void> => {
    setAsking(true);
    const found = await host.choices?.(list.id, query);
    setAsking(false);
    if (!found?.ok) return found && host.tell(found.detail);
    chosen.choose(list.id, new Map(found.value.map(({ id, ...row }) => [id, row])));
    if (found.value.length < shown.total)
      host.tell(
        `${found.value.length.toLocaleString('en')} are chosen. You may not change the others at once.`,
      );
  };
  const turnTo = (next: Partial<Record<'q' | 'filter' | 'sort' | 'page', string>>): void => {
    // Another search shows other rows: what was chosen by the one before is not changed unseen.
    if (next.q !== undefined || next.filter !== undefined) chosen.choose(list.id, new Map());
    const asked = { q: shown.q, filter: shown.filter, sort: shown.sort, page: '1', ...next };
    const query = new URLSearchParams();
    for (const [key, value] of Object.entries(asked))
      if (value && !(key === 'page' && value === '1')) query.set(`${list.id}.${key}`, value);
    host.go(address, query.toString());
  };
  const run = async ({ id, effect, name }: ShownButton, row: ShownRow): Promise<void> => {
    if (effect.do === 'open') return host.go(effect.address);
    if (effect.do === 'sign-out') return host.signOut();
    if (effect.do === 'set-session') {
      const pressed = await host.press(id, row.id);
      host.tell(pressed.ok ? host.said.done : pressed.detail);
      return host.refresh();
    }
    if (effect.do !== 'action' && effect.do !== 'delete') return;
    if (
      effect.do === 'action' &&
      effect.confirm &&
      !(await confirm({ title: name, text: effect.confirm, go: name }))
    )
      return;
    if (effect.do === 'delete' && host.keeps && !(await confirm(deleting(name)))) return;
    const written =
      effect.do === 'action'
        ? await host.records.act(list.entity, row.id, effect.action, row.version)
        : await host.records.remove(list.entity, row.id, row.version);
    host.tell(written.ok ? (effect.do === 'delete' ? host.said.deleted : host.said.done) : written.detail);
    if (written.ok) host.refresh();
  };
  const columns = columnsOf(list, shown.rows, run);
  const pages = Math.max(1, Math.ceil(shown.total / shown.size));
  const [first, last] = [(shown.page - 1) * shown.size + 1, Math.min(shown.total, shown.page * shown.size)];
  return (
    <div data-element={list.id} className="min-w-0 border-t-2 border-ink bg-paper">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2 px-2 py-2">
        <h2 className="mr-auto font-semibold">{list.name}</h2>
        <ListSearch key={shown.q} name={list.name} q={shown.q} onSearch={(q) => turnTo({ q })} />
        <ListFilter key={`filter ${shown.filter}`} rows={shown} onFilter={(filter) => turnTo({ filter })} />
      </div>
      {all && host.choices && (shown.total > shown.rows.length || mine.size > shown.rows.length) && (
        <p className="flex items-center gap-3 px-2 pb-2" aria-live="polite">
          {mine.size.toLocaleString('en')} selected
          {mine.size < shown.total && (
            <button type="button" className="button" disabled={asking} onClick={() => void chooseAll()}>
              {asking ? 'Selecting…' : `Select all ${shown.total.toLocaleString('en')} matching records`}
            </button>
          )}
          <button type="button" className="button" onClick={() => chosen.choose(list.id, new Map())}>
            Clear selection
          </button>
        </p>
      )}
      <div className="overflow-x-auto">
        <DataTable<ShownRow>
          name={list.name}
          columns={columns}
          rows={shown.rows}
          idOf={(row) => row.id}
          sort={shown.sort}
          onSort={(sort) => turnTo({ sort })}
          onRow={({ address: to }) => (to === undefined ? undefined : () => host.go(to))}
          {...(chosen.lists.has(list.id) && {
            choosing: {
              chosen: new Set(mine.keys()),
              onChoose: choose,
              nameOf: (row) => row.cells[list.columns[0]?.id ?? ''] ?? 'this row',
            },
          })}
        />
      </div>
      <Pager page={shown.page} pages={pages} onPage={(page) => turnTo({ page: String(page) })}>
        {shown.total === 0
          ? shown.q || shown.filter
            ? `No records match ${shown.q ? `“${shown.q}”` : 'the filter'}.`
            : 'No records yet.'
          : first > shown.total
            ? `There are only ${shown.total} records, so this page is empty.`
            : `${first}–${last} of ${shown.total}`}
      </Pager>
    </div>
  );
}

/** The list's columns, and one for the buttons of its rows, where a row has any. */
function columnsOf(
  list: DrawnList,
  rows: readonly ShownRow[],
  run: (button: ShownButton, row: ShownRow) => Promise<void>,
): DataColumn<ShownRow>[] {
  const columns = list.columns.map((column, n): DataColumn<ShownRow> => ({
    id: column.ghost ? column.id : column.field,
    enableSorting: !column.ghost,
    accessorFn: (row) => row.cells[column.id],
    header: () => <Heading column={column} />,
    cell: ({ row: { original: row } }) => {
      const text = row.cells[column.id];
      if (n === firstReal(list) && row.address !== undefined)
        return <RowLink address={row.address} text={text ?? ''} />;
      return text ?? (column.closed && <ClosedCell id={column.id} name={column.label} record={row.id} />);
    },
    meta: {
      end: column.align === 'end',
      head: headOf(column),
      cell: { 'data-element': column.id, className: column.ghost ? ghostClass(column.ghost) : '' },
    },
  }));
  if (rows.every(({ buttons }) => buttons.length === 0)) return columns;
  return [
    ...columns,
    {
      id: 'buttons',
      enableSorting: false,
      header: () => <span className="sr-only">Actions</span>,
      cell: ({ row: { original: row } }) =>
        row.buttons.map((button) => (
          <ButtonView key={button.id} small button={button} busy={false} run={(one) => run(one, row)} />
        )),
      meta: { apart: true, cell: { className: 'px-3 text-right' } },
    },
  ];
}

const firstReal = (list: DrawnList): number => list.columns.findIndex((column) => !column.ghost);

function RowLink({ address, text }: { address: string; text: string }) {
  const host = useHost();
  return (
    <a
      className="link"
      href={host.hrefOf(address) ?? '#'}
      onClick={(event) => {
        event.stopPropagation();
        if (event.metaKey || event.ctrlKey || event.button !== 0) return;
        event.preventDefault();
        host.go(address);
      }}
    >
      {text || 'Open'}
    </a>
  );
}

const chosenOf = ({ version, changes = [] }: ShownRow): ChosenRow => ({ version, changes });
