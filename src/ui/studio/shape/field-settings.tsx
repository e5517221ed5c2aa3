'use client';

import { type EntityField, newId, type ValueType } from '@/core/model';
import { send } from '@/ui/client/send';
import { dataDistinct } from '@/contract/studio/data';
import { counted } from '@/core/edit';
import { useBench } from '../frame/bench';
import { KeptText } from '../people/parts';
import { FieldCheck } from './field-check';
import { Labelled } from './labelled';
import { Options } from './options';
import { useChange } from './use-change';
import { useTurning } from './use-turning';

/** What a field of the data is: its name, what it holds, and whether a record needs it. */
export function FieldSettings({ field }: { field: EntityField }) {
  const { definition, compiled, mayChange, app } = useBench();
  const change = useChange();
  const confirmed = useTurning();

  const disabled = !mayChange;
  const types: readonly (readonly [string, ValueType])[] = [
    ['Text', { kind: 'text' }],
    ['Long text', { kind: 'text', long: true }],
    ['Whole number', { kind: 'number', decimals: 0 }],
    ['Number, 2 decimals', { kind: 'number', decimals: 2 }],
    ['Money', { kind: 'money' }],
    ['Day', { kind: 'date' }],
    ['Yes or no', { kind: 'boolean' }],
    ['Choice', { kind: 'choice', options: [{ id: newId(), name: 'First option' }] }],
    ['Unit', { kind: 'unit' }],
    ...definition.entities.map(({ id, name }): readonly [string, ValueType] => [
      `Points to a ${name}`,
      { kind: 'record', entity: id },
    ]),
  ];
  const at = types.findIndex(([, type]) => keyOf(type) === keyOf(field.type));
  const turn = async (chosen: ValueType): Promise<void> => {
    const entity = compiled.tree.entityOf(field.id)?.id ?? '';
    const type = chosen.kind === 'choice' ? await choiceOf(app, entity, field) : chosen;
    if (!(await confirmed(field, type))) return;
    change({
      type,
      // What it starts as, and what it checks, may not fit any more.
      ...(field.initial !== undefined && { initial: null }),
      ...(field.check && type.kind !== 'text' && { check: null }),
    });
  };
  const screens = compiled.handles
    .handlesOf(compiled.tree.need(field.id, 'data-field'))
    .flatMap((id) => compiled.tree.get(id)?.screen?.name ?? []);
  return (
    <>
      <Labelled label="Name">
        <KeptText label="Name" value={field.name} disabled={disabled} onKeep={(name) => change({ name })} />
      </Labelled>
      <Labelled label="Holds">
        <select
          className="field-box"
          disabled={disabled}
          value={at}
          onChange={(event) => {
            const [, type] = types[Number(event.target.value)] ?? [];
            if (type) void turn(type);
          }}
        >
          {at < 0 && field.type.kind === 'number' && (
            <option value={-1}>Number, {counted(field.type.decimals, 'decimal')}</option>
          )}
          {types.map(([name], n) => (
            <option key={name} value={n}>
              {name}
            </option>
          ))}
        </select>
      </Labelled>
      {field.type.kind === 'text' && <FieldCheck field={field} />}
      {field.type.kind === 'choice' && <Options options={field.type.options} initial={field.initial} />}
      <label className="mb-2 flex items-center gap-2">
        <input
          type="checkbox"
          className="size-4 accent-open"
          disabled={disabled}
          checked={field.required ?? false}
          onChange={(event) => change({ required: event.target.checked ? true : null })}
        />
        Every record needs it
      </label>
      <p className="text-quiet">
        {screens.length === 0 ? 'It is on no screen yet.' : `On ${[...new Set(screens)].join(', ')}.`}
      </p>
    </>
  );
}

/** A choice of what stands in the field's sample records, where that is little; else one to begin with. */
async function choiceOf(app: string, entity: string, { id, type }: EntityField): Promise<ValueType> {
  // Of what points only ids are stored.
  const found =
    type.kind === 'record' || type.kind === 'unit'
      ? undefined
      : await send(dataDistinct, { app, entity, field: id, query: { records: 'sample' } });
  const values = (found?.ok && found.value.values) || [];
  const names = values.length > 0 ? values.map((one) => one.slice(0, 120)) : ['First option'];
  return { kind: 'choice', options: names.map((name) => ({ id: newId(), name })) };
}

/** What tells types apart: options of a choice do not. */
function keyOf(type: ValueType): string {
  switch (type.kind) {
    case 'text':
      return `text ${type.long === true}`;
    case 'number':
      return `number ${type.decimals}`;
    case 'record':
      return `record ${type.entity}`;
    default:
      return type.kind;
  }
}
