'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { print } from '@/core';
import type { Condition } from '@/core/condition';
import type { DataPage, DataRow } from '@/core/making';
import { kindOf, type Entity, type EntityField, type Value } from '@/core/model';
import { send, urlOf } from '@/ui/client/send';
import { changeRows, dataRows, deleteRows, recordsFile, takeOverSamples } from '@/contract/studio/data';
import { plural } from '@/core/edit';
import { useConfirm } from '../../../parts/asking';
import { DataTable, Pager, type DataColumn } from '../../../parts/data-table';
import { FieldMessage } from '../../../parts/fields';
import { keysUnder, useAsked, useSettled } from '@/ui/client/queries';
import { useTell } from '../../../parts/toasts';
import { useBench } from '../../frame/bench';
import { useDraft } from '../../shell/studio-work';
import { Cell } from './cell';
import { CsvIn } from './csv-in';
import { FilterRows } from './filter-rows';
import { MadeUp } from './made-up';
import { NewRow } from './new-row';
import { SetMany } from './set-many';
import { Select } from '@/ui/parts/select';

type Kind = 'sample' | 'live';

const PAUSE_MS = 250;

/** The records of an entity as a table: sorted, searched, written in place, added, deleted, taken in and out as CSV. */
export function RecordsTable({ entity }: { entity: Entity }) {
  const { app, definition, mayChange: mayEdit } = useBench();
  const { revision } = useDraft();
  const client = useQueryClient();
  const tell = useTell();
  const confirm = useConfirm();
  const [kind, setKind] = useState<Kind>('sample');
  const [words, setWords] = useState('');
  const [filter, setFilter] = useState<Condition>();
  const [sort, setSort] = useState('');
  const [page, setPage] = useState(1);
  const [chosen, setChosen] = useState<ReadonlyMap<string, DataRow>>(new Map());
  const q = useSettled(words, PAUSE_MS);
  const from = { app, records: kind };
  const at = { app, entity: entity.id, query: { records: kind } };
  const scope = { definition, entity };
  const query = { records: kind, q, sort, page, filter: filter && print(scope, filter) };
  // Sample records follow the draft: another revision may have turned them.
  const { data, error } = useAsked(
    dataRows,
    { app, entity: entity.id, query },
    { version: revision, keepsLast: true },
  );
  // The server decides who may; for live records that is a right of its own.
  const mayChange = kind === 'live' || mayEdit;
  const again = async (): Promise<void> => {
    setChosen(new Map());
    await client.invalidateQueries(keysUnder(`/studio/api/applications/${app}/records`));
  };
  // As they are seen now: what was chosen may have come anew since.
  const asSeen = (rows: readonly DataRow[]): { readonly id: string; readonly version: number }[] =>
    rows.map(({ id, version }) => ({
      id,
      version: data?.rows.find((one) => one.id === id)?.version ?? version,
    }));
  const write = async (
    rows: readonly DataRow[],
    values: Readonly<Record<string, Value | null>>,
  ): Promise<string | undefined> => {
    const answer = await send(changeRows, { ...at, body: { records: asSeen(rows), values } });
    if (answer.ok) return void (await again());
    return Object.values(answer.fields)[0] ?? answer.detail;
  };
  const remove = async (): Promise<void> => {
    const records = asSeen([...chosen.values()]);
    const name = plural(records.length, 'this record', `these ${records.length} records`);
    const text = <p>This cannot be undone.</p>;
    if (!(await confirm({ title: `Delete ${name}?`, text, go: 'Delete' }))) return;
    const answer = await send(deleteRows, { ...at, body: { records } });
    tell(answer.ok ? 'Records deleted.' : answer.detail);
    await again();
  };
  const takeOver = async (): Promise<void> => {
    const text = <p>Everyone with access to these records in the released application will then see them.</p>;
    if (!(await confirm({ title: 'Copy the sample records to live records?', text, go: 'Copy to live' })))
      return;
    const answer = await send(takeOverSamples, { ...at, query: { records: 'live' } });
    tell(answer.ok ? `${answer.value.count.toLocaleString('en')} records copied to live.` : answer.detail);
    await again();
  };
  const shown = data?.entity.id === entity.id ? data : undefined;
  const pages = shown ? Math.max(1, Math.ceil(shown.total / shown.size)) : 1;
  const columns = (shown?.entity.fields ?? []).map((field) =>
    columnOf(field, (row) => (
      <Cell
        key={`${row.id} ${row.version}`}
        field={field}
        row={row}
        manner={(shown as DataPage).manner}
        from={from}
        mayChange={mayChange}
        onWrite={(value) => write([row], { [field.id]: value })}
      />
    )),
  );
  const turn = (next: Kind): void => {
    setKind(next);
    setChosen(new Map());
    setPage(1);
  };
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1.5">
        <Select
          aria-label="Which records"
          className="w-40"
          value={kind}
          onChoose={(chosen) => turn(chosen as Kind)}
          options={[
            { id: 'sample', name: 'Sample records' },
            { id: 'live', name: 'Live records' },
          ]}
        />
        <input
          type="search"
          aria-label="Search the records"
          placeholder="Search"
          className="field-box w-40"
          value={words}
          onChange={(event) => {
            setWords(event.target.value);
            setPage(1);
          }}
        />
        <FilterRows
          app={app}
          scope={scope}
          filter={filter}
          onFilter={(next) => {
            setFilter(next);
            setPage(1);
          }}
        />
        <span className="ml-auto flex flex-wrap items-center gap-2">
          {mayChange && shown && (
            <>
              <NewRow page={shown} from={from} onAdded={again} />
              {kind === 'sample' && <MadeUp app={app} entity={entity.id} onMade={again} />}
              <CsvIn from={from} entity={entity.id} onDone={again} />
            </>
          )}
          <a className="link" href={urlOf(recordsFile, at)} download>
            Export CSV
          </a>
        </span>
      </div>
      {mayChange && shown && chosen.size > 0 && (
        <div className="mb-2 flex items-center gap-3 border-l-4 border-open bg-paper px-3 py-1.5">
          <span>{`${chosen.size} selected`}</span>
          <SetMany page={shown} from={from} onSet={(values) => write([...chosen.values()], values)} />
          <button type="button" className="button" onClick={() => void remove()}>
            Delete…
          </button>
        </div>
      )}
      <FieldMessage text={error?.message ?? ''} />
      {kind === 'live' && shown?.total === 0 && q === '' && !filter && (
        <p className="mb-2 flex items-center gap-3 border-l-4 border-ink bg-paper px-3 py-2">
          <span>
            There are no live records yet. You can copy the sample records of all entities as a start.
          </span>
          <button type="button" className="button ml-auto shrink-0" onClick={() => void takeOver()}>
            Copy samples to live…
          </button>
        </p>
      )}
      {shown && (
        <div className="min-h-0 border-t-2 border-ink bg-paper">
          <div className="overflow-x-auto">
            <DataTable<DataRow>
              name={entity.plural}
              columns={columns}
              rows={shown.rows}
              idOf={({ id }) => id}
              sort={sort}
              onSort={setSort}
              {...(mayChange && {
                choosing: {
                  chosen: new Set(chosen.keys()),
                  onChoose: (rows: readonly DataRow[]) =>
                    setChosen((now) => {
                      const others = [...now].filter(([id]) => !shown.rows.some((row) => row.id === id));
                      return new Map([...others, ...rows.map((row) => [row.id, row] as const)]);
                    }),
                  nameOf: (row: DataRow) => String(row.values[shown.entity.labelField] ?? row.id),
                },
              })}
            />
          </div>
          <Pager page={page} pages={pages} onPage={setPage}>
            {shown.total === 0
              ? noneSays(q, filter !== undefined)
              : `${(page - 1) * shown.size + 1}–${Math.min(shown.total, page * shown.size)} of ${shown.total.toLocaleString('en')}`}
          </Pager>
        </div>
      )}
    </>
  );
}

function noneSays(q: string, filtered: boolean): string {
  if (q !== '') return `No records match “${q}”.`;
  return filtered ? 'No records match the filter.' : 'No records yet.';
}

const columnOf = (field: EntityField, draw: (row: DataRow) => React.ReactNode): DataColumn<DataRow> => ({
  id: field.id,
  enableSorting: field.type.kind !== 'record',
  accessorFn: (row) => row.values[field.id],
  header: () => field.name,
  cell: ({ row }) => draw(row.original),
  meta: {
    end: kindOf(field.type).measured === true,
    head: { className: 'whitespace-nowrap' },
    cell: { className: 'whitespace-nowrap' },
    apart: true,
  },
});
