'use client';

import { type NamedCondition, newId } from '@/core/model';
import { usePeopleWork } from './use-people-work';
import { NamedList, Panel } from './parts';
import { ConditionRow } from './condition-row';
import { START } from './start-condition';
import { Select } from '@/ui/parts/select';

/** Conditions with a name, to be used in others and in lines. */
export function ConditionsPart() {
  const { definition, apply } = usePeopleWork();
  const add = (): void =>
    apply({
      do: 'addItem',
      list: 'conditions',
      at: definition.conditions.length,
      item: { id: newId(), name: 'New condition', condition: START },
    });
  return (
    <NamedList
      title="Named conditions"
      about="A named condition is written once and used by name in any line or condition. If it uses a record, choose which entity."
      add={{ name: 'Add condition', run: add }}
      things={definition.conditions}
      draw={(one) => <NamedPanel named={one} />}
    />
  );
}

function NamedPanel({ named }: { named: NamedCondition }) {
  const { definition, mayChange, apply } = usePeopleWork();
  const entity = definition.entities.find((one) => one.id === named.entity);
  const change = (to: NamedCondition): void =>
    apply({ do: 'changeItem', list: 'conditions', from: named, to });
  const { entity: asked, ...free } = named;
  return (
    <Panel label={named.name}>
      <ConditionRow
        name={named.name}
        scope={{ definition, entity }}
        condition={named.condition}
        onName={(name) => change({ ...named, name })}
        onCondition={(condition) => change({ ...named, condition })}
        onRemove={() =>
          apply({
            do: 'removeItem',
            list: 'conditions',
            at: definition.conditions.indexOf(named),
            item: named,
          })
        }
        what="condition"
        mayChange={mayChange}
      />
      <label className="mt-1 flex items-center gap-2 text-quiet">
        Applies to
        <Select
          className="w-auto"
          disabled={!mayChange}
          value={named.entity ?? ''}
          onChoose={(chosen) => change(chosen ? { ...named, entity: chosen } : free)}
          none="no record"
          options={definition.entities.map((one) => ({
            id: one.id,
            name: `a record of ${one.plural.toLowerCase()}`,
          }))}
        />
      </label>
    </Panel>
  );
}
