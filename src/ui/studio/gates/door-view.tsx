'use client';

import { editBetween } from '@/core/edit';
import { type Entity, type EntityField, newId } from '@/core/model';
import { useBench } from '../frame/bench';
import { NamedActionForm } from './named-action-form';
import { DoorRow } from './door-row';
import { Checkbox } from '@/ui/parts/checkbox';

/** The doors of one entity: its rows, its actions, its fields, and how the screens stand to each. */
export function DoorView({ entity }: { entity: Entity }) {
  const { definition, compiled, mayChange, apply } = useBench();
  const rows = compiled.tree.need(entity.id, 'rows');
  const change = (to: Entity): void => {
    const entities = definition.entities.map((one) => (one.id === to.id ? to : one));
    const edit = editBetween(definition, { ...definition, entities });
    if (edit) apply(edit);
  };
  const doors = rows.contents;
  const missing = (['export', 'bulk'] as const).filter(
    (kind) => !entity.actions.some((one) => one.kind === kind),
  );
  return (
    <section aria-label="Doors" className="flex min-h-0 min-w-0 flex-col overflow-auto bg-sheet p-3">
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <h2 className="mr-auto text-lg font-semibold">Doors of {entity.plural}</h2>
        {mayChange &&
          missing.map((kind) => (
            <button
              key={kind}
              type="button"
              className="button"
              onClick={() =>
                change({
                  ...entity,
                  actions: [
                    ...entity.actions,
                    { kind, id: newId(), name: kind === 'export' ? 'Export' : 'Bulk edit' },
                  ],
                })
              }
            >
              Add {kind === 'export' ? 'export' : 'bulk edit'}
            </button>
          ))}
        {mayChange && (
          <button
            type="button"
            className="button"
            onClick={() =>
              change({
                ...entity,
                actions: [...entity.actions, { kind: 'named', id: newId(), name: 'New action', sets: {} }],
              })
            }
          >
            Add action
          </button>
        )}
      </div>
      <table
        aria-label={`Doors of ${entity.plural}`}
        className="w-full border-t-2 border-ink bg-paper text-left"
      >
        <thead>
          <tr className="border-b border-rule">
            <th className="px-2 py-1 font-medium">Door</th>
            <th className="px-2 py-1 font-medium">Who has access</th>
            <th className="px-2 py-1 font-medium">Compared with the screens</th>
          </tr>
        </thead>
        <tbody>
          <Heading words="Records" />
          <DoorRow door={rows} />
          <Heading words="Actions" />
          {doors
            .filter((one) => one.kind === 'action')
            .map((one) => (
              <DoorRow key={one.id} door={one}>
                {one.kind === 'action' && one.node.kind === 'named' && (
                  <NamedActionForm entity={entity} action={one.node} onChange={change} />
                )}
              </DoorRow>
            ))}
          <Heading words="Fields" />
          {doors
            .filter((one) => one.kind === 'data-field')
            .map((one) => (
              <DoorRow key={one.id} door={one}>
                {one.kind === 'data-field' && !compiled.lines(one.id) && (
                  <Checkbox
                    className="text-[13px] text-quiet"
                    disabled={!mayChange}
                    checked={one.node.neverFollows ?? false}
                    onTurn={(on) => change(withField(entity, { ...one.node, neverFollows: on }))}
                  >
                    never follow the screens
                  </Checkbox>
                )}
              </DoorRow>
            ))}
        </tbody>
      </table>
    </section>
  );
}

const withField = (entity: Entity, field: EntityField): Entity => ({
  ...entity,
  fields: entity.fields.map((one) => (one.id === field.id ? field : one)),
});

const Heading = ({ words }: { words: string }) => (
  <tr>
    <th colSpan={3} scope="rowgroup" className="bg-plate px-2 pt-2 pb-1 text-[12px] font-normal text-quiet">
      {words}
    </th>
  </tr>
);
