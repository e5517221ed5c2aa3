'use client';

import { useState } from 'react';
import { print } from '@/core';
import type { Condition, Scope } from '@/core/condition';
import { removeNamed } from '@/core/edit';
import { type Group, type NamedCondition, newId } from '@/core/model';
import { useAsked } from '../../parts/queries';
import { ConditionWindow } from '../shared/condition/condition-window';
import { usePeopleWork } from './context';
import { KeptText, Panel, PartHead } from './parts';

const START: Condition = { not: { empty: { user: 'email' } } };

/** Groups: named conditions on people. Who is in one is worked out, never kept. */
export function GroupsPart() {
  const { definition, mayChange, apply } = usePeopleWork();
  return (
    <>
      <PartHead title="Groups" about="People of whom a condition is true. Nobody is put in by hand.">
        {mayChange && (
          <button
            type="button"
            className="button"
            onClick={() =>
              apply({
                do: 'addItem',
                list: 'groups',
                at: definition.groups.length,
                item: { id: newId(), name: 'New group', condition: START },
              })
            }
          >
            Add a group
          </button>
        )}
      </PartHead>
      <div className="grid gap-4">
        {definition.groups.map((group) => (
          <GroupPanel key={group.id} group={group} />
        ))}
        {definition.groups.length === 0 && <p className="text-quiet">There are none yet.</p>}
      </div>
    </>
  );
}

function GroupPanel({ group }: { group: Group }) {
  const { definition, mayChange, apply } = usePeopleWork();
  const change = (to: Group): void => apply({ do: 'changeItem', list: 'groups', from: group, to });
  const removal = removeNamed(definition, 'groups', group.id);
  return (
    <Panel label={group.name}>
      <ConditionRow
        name={group.name}
        scope={{ definition }}
        condition={group.condition}
        onName={(name) => change({ ...group, name })}
        onCondition={(condition) => change({ ...group, condition })}
        onRemove={removal && (() => apply(removal))}
        what="group"
        mayChange={mayChange}
      />
      <Holds condition={group.condition} />
    </Panel>
  );
}

interface Count {
  readonly hits: number;
  readonly of: number;
  readonly examples: readonly string[];
}

/** Whom the condition holds right now. */
function Holds({ condition }: { condition: Condition }) {
  const { api } = usePeopleWork();
  const { data } = useAsked<{ people: Count }>(`${api}/try`, { body: { condition }, keepsLast: true });
  if (!data) return null;
  const { people } = data;
  return (
    <p className="mt-1 text-quiet">
      Now {people.hits} of {people.of} people
      {people.examples.length > 0 &&
        `: ${people.examples.join(', ')}${people.hits > people.examples.length ? ' …' : ''}`}
    </p>
  );
}

/** Conditions with a name, to be used in others and in lines. */
export function ConditionsPart() {
  const { definition, mayChange, apply } = usePeopleWork();
  return (
    <>
      <PartHead
        title="Named conditions"
        about="Written once, used in any line or condition by name. One that asks of a record says of which kind."
      >
        {mayChange && (
          <button
            type="button"
            className="button"
            onClick={() =>
              apply({
                do: 'addItem',
                list: 'conditions',
                at: definition.conditions.length,
                item: { id: newId(), name: 'New condition', condition: START },
              })
            }
          >
            Add a condition
          </button>
        )}
      </PartHead>
      <div className="grid gap-4">
        {definition.conditions.map((one) => (
          <NamedPanel key={one.id} named={one} />
        ))}
        {definition.conditions.length === 0 && <p className="text-quiet">There are none yet.</p>}
      </div>
    </>
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
        Asks of
        <select
          className="field-box w-auto"
          disabled={!mayChange}
          value={named.entity ?? ''}
          onChange={(event) => change(event.target.value ? { ...named, entity: event.target.value } : free)}
        >
          <option value="">no record</option>
          {definition.entities.map((one) => (
            <option key={one.id} value={one.id}>
              a record of {one.plural.toLowerCase()}
            </option>
          ))}
        </select>
      </label>
    </Panel>
  );
}

function ConditionRow({
  name,
  scope,
  condition,
  onName,
  onCondition,
  onRemove,
  what,
  mayChange,
}: {
  name: string;
  scope: Scope;
  condition: Condition;
  onName: (name: string) => void;
  onCondition: (condition: Condition) => void;
  onRemove: (() => void) | undefined;
  what: string;
  mayChange: boolean;
}) {
  const { api } = usePeopleWork();
  const [open, setOpen] = useState(false);
  return (
    <>
      <div className="flex items-center gap-3">
        <KeptText
          label={`Name of the ${what}`}
          className="max-w-72 font-semibold"
          value={name}
          disabled={!mayChange}
          onKeep={onName}
        />
        <code className="min-w-0 grow font-mono text-[13px] break-words">{print(scope, condition)}</code>
        {mayChange && (
          <>
            <button
              type="button"
              className="link"
              aria-label={`Change ${name}`}
              onClick={() => setOpen(true)}
            >
              Change
            </button>
            {onRemove && (
              <button type="button" className="link" aria-label={`Delete ${name}`} onClick={onRemove}>
                Delete
              </button>
            )}
          </>
        )}
      </div>
      {open && (
        <ConditionWindow
          title={`${name}, when …`}
          api={api}
          scope={scope}
          condition={condition}
          onUse={onCondition}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}
