'use client';

import { typeInWords } from '@/core/edit';
import type { Entity } from '@/core/model';
import { useBench } from '../gates/bench';

/** One kind of data as a sheet: its fields and actions, what each is, and on how many screens it is seen. */
export function EntitySheet({ entity }: { entity: Entity }) {
  const { definition, compiled, selected, select } = useBench();
  const screensOf = (id: string): string => {
    const element = compiled.tree.get(id);
    const names = element
      ? compiled.handles.handlesOf(element).flatMap((handle) => compiled.tree.get(handle)?.screen?.name ?? [])
      : [];
    return [...new Set(names)].join(', ');
  };
  const row = (id: string, name: string, holds: string, needed: boolean) => (
    <tr
      key={id}
      data-element={id}
      className={`border-b border-sheet ${id === selected.id ? 'bg-open-soft' : ''}`}
    >
      <td className="px-2 py-1">
        <button
          type="button"
          className="link text-left"
          aria-current={id === selected.id ? 'true' : undefined}
          dir="auto"
          onClick={() => select(id)}
        >
          {name}
        </button>
        {id === entity.labelField && <span className="text-quiet"> names a record</span>}
      </td>
      <td className="px-2 py-1">{holds}</td>
      <td className="px-2 py-1">{needed ? 'needed' : ''}</td>
      <td className="truncate px-2 py-1 text-quiet" title={screensOf(id)}>
        {screensOf(id) || 'no screen'}
      </td>
    </tr>
  );
  const pointing = definition.entities.flatMap((one) =>
    one.fields.flatMap(({ name, type }) =>
      type.kind === 'record' && type.entity === entity.id ? [`${one.plural}, by their ${name}`] : [],
    ),
  );
  return (
    <section
      aria-label="Data"
      data-region="canvas"
      className="flex min-h-0 min-w-0 flex-col overflow-auto bg-sheet p-3"
    >
      <h2 className="mb-2 text-lg font-semibold" dir="auto">
        <button type="button" className="text-left" onClick={() => select(entity.id)}>
          {entity.plural}
        </button>
      </h2>
      <table className="w-full table-fixed border-t-2 border-ink bg-paper text-left">
        <thead>
          <tr className="border-b border-rule">
            <th className="w-[32%] px-2 py-1 font-medium">Field or action</th>
            <th className="w-[26%] px-2 py-1 font-medium">Holds or does</th>
            <th className="w-20 px-2 py-1 font-medium">Needed</th>
            <th className="px-2 py-1 font-medium">On the screens</th>
          </tr>
        </thead>
        <tbody>
          {entity.fields.map((field) =>
            row(field.id, field.name, typeInWords(definition, field), field.required ?? false),
          )}
          {entity.actions.map((action) =>
            row(
              action.id,
              action.name,
              action.kind === 'named'
                ? `sets ${Object.keys(action.sets).length} ${Object.keys(action.sets).length === 1 ? 'field' : 'fields'}`
                : 'built in',
              false,
            ),
          )}
        </tbody>
      </table>
      {pointing.length > 0 && (
        <p className="mt-3 text-quiet">Pointed to by {new Intl.ListFormat('en').format(pointing)}.</p>
      )}
    </section>
  );
}
