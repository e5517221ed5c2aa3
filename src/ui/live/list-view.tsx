'use client';

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
import { Heading, ListSearch } from './list-head';

/** A list: its rows are found, sorted and cut into pages on the server. */
export function ListView({
  list,
  rows,
  address,
}: {
  list: DrawnList;
  rows: ShownRows | undefined;
  address: string;
}) {
  const host = useHost();
  const confirm = useConfirm();
  const shown = rows ?? { rows: [], total: 0, page: 1, size: 25, q: '', sort: '', filter: '', filters: [] };
  const chosen = useChosen();
  const mine = chosen.rows.get(list.id) ?? new Map<string, ChosenRow>();
  const choosing = chosen.lists.has(list.id);
  const choose = (row: ShownRows['rows'][number], on: boolean): void => {
    const next = new Map(mine);
    if (on) next.set(row.id, chosenOf(row));
    else next.delete(row.id);
    chosen.choose(list.id, next);
  };
  const turnTo = (next: Partial<Record<'q' | 'filter' | 'sort' | 'page', string>>): void => {
    // Another search shows other rows: what was chosen by the one before is not changed unseen.
    if (next.q !== undefined || next.filter !== undefined) chosen.choose(list.id, new Map());
    const all = { q: shown.q, filter: shown.filter, sort: shown.sort, page: '1', ...next };
    const query = new URLSearchParams();
    for (const [key, value] of Object.entries(all))
      if (value && !(key === 'page' && value === '1')) query.set(`${list.id}.${key}`, value);
    host.go(address, query.toString());
  };
  const run = async ({ id, effect, name }: ShownButton, row: ShownRows['rows'][number]): Promise<void> => {
    if (effect.do === 'open') return host.go(effect.address);
    if (effect.do === 'sign-out') return host.signOut();
    if (effect.do === 'save' || effect.do === 'export' || effect.do === 'bulk') return;
    if (effect.do === 'set-session') {
      const pressed = await host.press(id, row.id);
      host.tell(pressed.ok ? host.said.done : pressed.detail);
      return host.refresh();
    }
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
  const pages = Math.max(1, Math.ceil(shown.total / shown.size));
  const [first, last] = [(shown.page - 1) * shown.size + 1, Math.min(shown.total, shown.page * shown.size)];
  return (
    <div data-element={list.id} className="min-w-0 border-t-2 border-ink bg-paper">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2 px-2 py-2">
        <h2 className="mr-auto font-semibold">{list.name}</h2>
        <ListSearch key={shown.q} name={list.name} q={shown.q} onSearch={(q) => turnTo({ q })} />
        <ListFilter key={`filter ${shown.filter}`} rows={shown} onFilter={(filter) => turnTo({ filter })} />
      </div>
      <div className="overflow-x-auto">
        <table className="w-full text-left">
          <thead>
            <tr className="border-y border-rule">
              {choosing && (
                <th className="w-8 px-2">
                  <input
                    type="checkbox"
                    aria-label="Choose all rows of this page"
                    className="size-4 accent-open"
                    checked={shown.rows.length > 0 && shown.rows.every((row) => mine.has(row.id))}
                    onChange={(event) =>
                      chosen.choose(
                        list.id,
                        new Map(event.target.checked ? shown.rows.map((row) => [row.id, chosenOf(row)]) : []),
                      )
                    }
                  />
                </th>
              )}
              {list.columns.map((column) => (
                <Heading
                  key={column.id}
                  column={column}
                  sort={shown.sort}
                  onSort={(sort) => turnTo({ sort })}
                />
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.rows.map((row) => (
              <tr
                key={row.id}
                data-row={row.id}
                className={`border-b border-sheet hover:bg-plate ${row.address === undefined ? '' : 'cursor-pointer'}`}
                // For the mouse; the first cell's link does the same for the keyboard.
                onClick={() => row.address !== undefined && host.go(row.address)}
              >
                {choosing && (
                  <td className="px-2" onClick={(event) => event.stopPropagation()}>
                    <input
                      type="checkbox"
                      aria-label={`Choose ${row.cells[list.columns[0]?.id ?? ''] ?? 'this row'}`}
                      className="size-4 accent-open"
                      checked={mine.has(row.id)}
                      onChange={(event) => choose(row, event.target.checked)}
                    />
                  </td>
                )}
                {list.columns.map((column, n) => (
                  <td
                    key={column.id}
                    data-element={column.id}
                    className={`px-2 py-1.5 ${column.align === 'end' ? 'text-right tabular-nums' : ''} ${column.ghost ? ghostClass(column.ghost) : ''}`}
                  >
                    {n === firstReal(list) && row.address !== undefined ? (
                      <RowLink address={row.address} text={row.cells[column.id] ?? ''} />
                    ) : (
                      (row.cells[column.id] ??
                      (column.closed && <ClosedCell id={column.id} name={column.label} record={row.id} />))
                    )}
                  </td>
                ))}
                {row.buttons.length > 0 && (
                  <td className="px-3 py-1 text-right" onClick={(event) => event.stopPropagation()}>
                    {row.buttons.map((button) => (
                      <ButtonView
                        key={button.id}
                        small
                        button={button}
                        busy={false}
                        run={(one) => run(one, row)}
                      />
                    ))}
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="flex items-center justify-between gap-3 px-3 py-2 text-quiet">
        <span role="status">
          {shown.total === 0
            ? shown.q || shown.filter
              ? `Nothing here matches ${shown.q ? `“${shown.q}”` : 'the filter'}.`
              : 'There is nothing in this list.'
            : first > shown.total
              ? `This page is past the end; ${shown.total} in all.`
              : `${first} to ${last} of ${shown.total}`}
        </span>
        {pages > 1 && (
          <span className="flex gap-2">
            <button
              type="button"
              className="button"
              disabled={shown.page <= 1}
              onClick={() => turnTo({ page: String(Math.min(shown.page - 1, pages)) })}
            >
              Earlier
            </button>
            <button
              type="button"
              className="button"
              disabled={shown.page >= pages}
              onClick={() => turnTo({ page: String(shown.page + 1) })}
            >
              Later
            </button>
          </span>
        )}
      </div>
    </div>
  );
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

const chosenOf = ({ version, changes = [] }: ShownRows['rows'][number]): ChosenRow => ({ version, changes });
