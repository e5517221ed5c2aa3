'use client';

import { newId, type Unit, unitsOf } from '@/core/model';
import { usePeopleWork } from './use-people-work';
import { Panel, PartHead } from './parts';
import { KeptText } from '@/ui/parts/kept-text';
import { Select } from '@/ui/parts/select';

/** The organisation's parts, as a tree; and which field says to which a record belongs. */
export function UnitsPart() {
  const { definition, mayChange, apply } = usePeopleWork();
  const add = (): void =>
    apply({
      do: 'addItem',
      list: 'units',
      at: definition.units.length,
      item: { id: newId(), name: 'New unit', units: [] },
    });
  return (
    <>
      <PartHead
        title="Units"
        about="A unit is a part of the organisation. A role can be assigned in one unit only; it then applies to records of that unit and of the units below it."
        add={{ name: 'Add unit', run: add }}
      />
      <Panel label="Unit tree">
        {definition.units.length === 0 && <p className="text-quiet">No units yet.</p>}
        <ul>
          {definition.units.map((top) => (
            <UnitRow
              key={top.id}
              unit={top}
              onChange={(to) =>
                to
                  ? apply({ do: 'changeItem', list: 'units', from: top, to })
                  : apply({ do: 'removeItem', list: 'units', at: definition.units.indexOf(top), item: top })
              }
            />
          ))}
        </ul>
      </Panel>
      <div className="mt-4">
        <Panel label="Unit of each record">
          <h2 className="mb-2 font-semibold">Field that holds the record’s unit</h2>
          {definition.entities.map((entity) => {
            const fields = entity.fields.filter((field) => field.type.kind === 'unit');
            const { unitField } = entity;
            return (
              <label key={entity.id} className="mb-1 flex items-center gap-3">
                <span className="w-44">{entity.plural}</span>
                <Select
                  className="w-56"
                  disabled={!mayChange || fields.length === 0}
                  value={unitField ?? ''}
                  onChoose={(chosen) =>
                    apply({
                      do: 'changeElement',
                      id: entity.id,
                      from: { unitField: unitField ?? null },
                      to: { unitField: chosen || null },
                    })
                  }
                  none={fields.length === 0 ? 'This entity has no field of type Unit' : 'None'}
                  options={fields}
                />
                {unitField === undefined && (
                  <span className="text-quiet">
                    People who have a role in one unit only have no access to these records.
                  </span>
                )}
              </label>
            );
          })}
        </Panel>
      </div>
    </>
  );
}

/** One unit with those below it. Changing one below changes the whole tree that it is in, as one edit. */
function UnitRow({ unit, onChange }: { unit: Unit; onChange: (to: Unit | undefined) => void }) {
  const { mayChange } = usePeopleWork();
  const within = unitsOf({ units: unit.units }).length;
  return (
    <li className="mt-1">
      <div className="flex items-center gap-3">
        <KeptText
          label="Unit name"
          className="max-w-64"
          value={unit.name}
          disabled={!mayChange}
          onKeep={(name) => onChange({ ...unit, name })}
        />
        {mayChange && (
          <>
            <button
              type="button"
              className="link"
              onClick={() =>
                onChange({ ...unit, units: [...unit.units, { id: newId(), name: 'New unit', units: [] }] })
              }
            >
              Add unit below
            </button>
            <button
              type="button"
              className="link"
              aria-label={`Delete ${unit.name}`}
              onClick={() => onChange(undefined)}
            >
              Delete{within > 0 && ` (including units below: ${within})`}
            </button>
          </>
        )}
      </div>
      {unit.units.length > 0 && (
        <ul className="ml-6 border-l border-rule pl-3">
          {unit.units.map((one, n) => (
            <UnitRow
              key={one.id}
              unit={one}
              onChange={(to) =>
                onChange({ ...unit, units: to ? unit.units.with(n, to) : unit.units.toSpliced(n, 1) })
              }
            />
          ))}
        </ul>
      )}
    </li>
  );
}
