'use client';

import { type EntityField, newId, typeKey, typesToChoose, type ValueType } from '@/core/model';
import { send } from '@/ui/client/send';
import { dataDistinct } from '@/contract/studio/data';
import { counted } from '@/core/edit';
import { useBench } from '../frame/bench';
import { KeptText } from '@/ui/parts/kept-text';
import { FieldCheck } from './field-check';
import { Labelled } from './labelled';
import { Options } from './options';
import { useChange } from './use-change';
import { useTypeConversion } from './use-type-conversion';
import { Select } from '@/ui/parts/select';
import { Checkbox } from '@/ui/parts/checkbox';

/** What a field of the data is: its name, what it holds, and whether a record needs it. */
export function FieldSettings({ field }: { field: EntityField }) {
  const { definition, compiled, mayChange, app } = useBench();
  const change = useChange();
  const confirmed = useTypeConversion();

  const disabled = !mayChange;
  const types = typesToChoose(definition, newId);
  const at = types.findIndex(([, type]) => holdsLike(type, field.type));
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
      <Labelled label="Type">
        <Select
          disabled={disabled}
          value={at}
          onChoose={(chosen) => {
            const [, type] = types[Number(chosen)] ?? [];
            if (type) void turn(type);
          }}
          options={[
            ...(at < 0 && field.type.kind === 'number'
              ? [{ id: '-1', name: `Number, ${counted(field.type.decimals, 'decimal')}` }]
              : []),
            ...types.map(([name], n) => ({ id: String(n), name })),
          ]}
        />
      </Labelled>
      {field.type.kind === 'text' && <FieldCheck field={field} />}
      {field.type.kind === 'choice' && <Options options={field.type.options} initial={field.initial} />}
      <Checkbox
        className="mb-2"
        disabled={disabled}
        checked={field.required ?? false}
        onTurn={(on) => change({ required: on ? true : null })}
      >
        Required
      </Checkbox>
      <p className="text-quiet">
        {screens.length === 0 ? 'Not on any screen yet.' : `On ${[...new Set(screens)].join(', ')}.`}
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

/** Are they the same to who chooses? The options of a choice do not tell types apart. */
const holdsLike = (a: ValueType, b: ValueType): boolean =>
  (a.kind === 'choice' && b.kind === 'choice') || typeKey(a) === typeKey(b);
