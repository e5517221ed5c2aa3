'use client';

import { useState } from 'react';
import { askedBy, typeInWords, counted } from '@/core/edit';
import type { Entity } from '@/core/model';
import { useAsked } from '@/ui/client/queries';
import { dataFilled } from '@/contract/studio/data';
import { useBench } from '../frame/bench';
import { FormChoice } from '../frame/form-choice';
import { useDraft } from '../shell/studio-work';
import { RecordsTable } from './data/records-table';

const SHEETS = [
  { key: 'fields', name: 'Fields and actions', about: 'The fields of its records and the actions on them' },
  { key: 'records', name: 'Records', about: 'Sample and live records in a table' },
] as const;

/** One kind of data: a sheet of its fields and actions, and its records. */
export function EntitySheet({ entity }: { entity: Entity }) {
  const { select } = useBench();
  const [sheet, setSheet] = useState<(typeof SHEETS)[number]['key']>('fields');
  return (
    <section
      aria-label="Data"
      data-region="canvas"
      className="flex min-h-0 min-w-0 flex-col overflow-auto bg-sheet p-3"
    >
      <div className="mb-2 flex items-center gap-3">
        <h2 className="min-w-0 flex-1 truncate text-lg font-semibold" dir="auto">
          <button type="button" className="text-left" onClick={() => select(entity.id)}>
            {entity.plural}
          </button>
        </h2>
        <FormChoice forms={SHEETS} form={sheet} onChoose={setSheet} />
      </div>
      {sheet === 'fields' ? (
        <FieldsSheet entity={entity} />
      ) : (
        <RecordsTable key={entity.id} entity={entity} />
      )}
    </section>
  );
}

const MOST_LETTERS = 60;

const shortened = (name: string): string =>
  name.length > MOST_LETTERS ? `${[...name].slice(0, MOST_LETTERS).join('')}…` : name;

/** The fields and actions of an entity: what each is, on which screens, who asks of it, and how many records have it. */
function FieldsSheet({ entity }: { entity: Entity }) {
  const { definition, compiled, selected, select, app } = useBench();
  const { revision } = useDraft();
  const { data: counts } = useAsked(dataFilled, { app, entity: entity.id }, { version: revision });
  const filledIn = (id: string): string =>
    counts ? `${(counts.filled[id] ?? 0).toLocaleString('en')} of ${counts.all.toLocaleString('en')}` : '';
  const screensOf = (id: string): string => {
    const element = compiled.tree.get(id);
    const names = element
      ? compiled.handles.handlesOf(element).flatMap((handle) => compiled.tree.get(handle)?.screen?.name ?? [])
      : [];
    return [...new Set(names)].join(', ');
  };
  const row = (id: string, name: string, holds: string, needed: boolean, isField: boolean) => (
    <tr
      key={id}
      data-element={id}
      className={`border-b border-sheet ${id === selected.id ? 'bg-open-soft' : ''}`}
    >
      <td className="px-2 py-1">
        <button
          type="button"
          className="link text-left"
          title={name}
          aria-current={id === selected.id ? 'true' : undefined}
          dir="auto"
          onClick={() => select(id)}
        >
          {shortened(name)}
        </button>
        {id === entity.labelField && <span className="text-quiet"> record label</span>}
      </td>
      <td className="px-2 py-1">{holds}</td>
      <td className="px-2 py-1">{needed ? 'required' : ''}</td>
      <td className="truncate px-2 py-1 text-quiet" title={screensOf(id)}>
        {screensOf(id) || 'not on any screen'}
      </td>
      <td className="px-2 py-1 text-quiet" title={askedBy(definition, id).join('; ')}>
        {askedBy(definition, id).length || ''}
      </td>
      <td className="px-2 py-1 text-right text-quiet tabular-nums">{isField && filledIn(id)}</td>
    </tr>
  );
  const pointing = definition.entities.flatMap((one) =>
    one.fields.flatMap(({ name, type }) =>
      type.kind === 'record' && type.entity === entity.id ? [`${one.plural}, by their ${name}`] : [],
    ),
  );
  return (
    <>
      <table
        aria-label={`Fields and actions of ${entity.plural}`}
        className="w-full table-fixed border-t-2 border-ink bg-paper text-left"
      >
        <thead>
          <tr className="border-b border-rule">
            <th className="w-[26%] px-2 py-1 font-medium">Field or action</th>
            <th className="w-[20%] px-2 py-1 font-medium">Type or effect</th>
            <th className="w-20 px-2 py-1 font-medium">Required</th>
            <th className="px-2 py-1 font-medium">On screens</th>
            <th
              className="w-24 px-2 py-1 font-medium whitespace-nowrap"
              title="Number of conditions that use it"
            >
              Used in conditions
            </th>
            <th className="w-24 px-2 py-1 text-right font-medium" title="Among the sample records">
              Filled in
            </th>
          </tr>
        </thead>
        <tbody>
          {entity.fields.map((field) =>
            row(field.id, field.name, typeInWords(definition, field), field.required ?? false, true),
          )}
          {entity.actions.map((action) =>
            row(
              action.id,
              action.name,
              action.kind === 'named'
                ? `sets ${counted(Object.keys(action.sets).length, 'field')}`
                : 'built in',
              false,
              false,
            ),
          )}
        </tbody>
      </table>
      {pointing.length > 0 && (
        <p className="mt-3 text-quiet">Referenced by {new Intl.ListFormat('en').format(pointing)}.</p>
      )}
    </>
  );
}
