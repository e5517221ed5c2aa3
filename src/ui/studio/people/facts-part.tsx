'use client';

import type { ReactNode } from 'react';
import type { Edit } from '@/core/edit';
import { kindOf, newId, typesToChoose, type ValueType } from '@/core/model';
import { KeptText } from '@/ui/parts/kept-text';
import { Select } from '@/ui/parts/select';
import { usePeopleWork } from './use-people-work';
import { Panel, PartHead } from './parts';

/** What an attribute or a session value can hold: no records, and no options of its own. */
const TYPES = typesToChoose({ entities: [] }, newId).filter(
  ([, type]) =>
    !['record', 'choice'].includes(type.kind) &&
    !(type.kind === 'text' && type.long) &&
    !(type.kind === 'number' && type.decimals > 0),
);

/** Attributes of people, and what a session can hold: what conditions can ask of beside the record. */
export function FactsPart() {
  const { definition } = usePeopleWork();
  return (
    <>
      <PartHead
        title="Attributes and session values"
        about="Information about people and their sessions that conditions can use."
      />
      <Panel label="Attributes of people">
        <h2 className="font-semibold">Attributes of people</h2>
        <p className="mb-2 text-quiet">
          Everyone has a name, an email address and a home unit. You can add more attributes:
        </p>
        <Facts
          list="attributes"
          what="attribute"
          facts={definition.attributes}
          added={{ id: '', name: 'New attribute', type: { kind: 'text' } }}
        />
      </Panel>
      <div className="mt-4">
        <Panel label="Session values">
          <h2 className="font-semibold">Session values</h2>
          <p className="mb-2 text-quiet">
            A button or a screen sets a session value, and it expires automatically.
          </p>
          <Facts
            list="sessionValues"
            what="session value"
            facts={definition.sessionValues}
            added={{ id: '', name: 'New session value', type: { kind: 'boolean' }, minutes: 60 }}
          >
            {(one, change) => (
              <Minutes minutes={one.minutes} onKeep={(minutes) => change({ ...one, minutes })} />
            )}
          </Facts>
        </Panel>
      </div>
    </>
  );
}

interface Fact {
  readonly id: string;
  readonly name: string;
  readonly type: ValueType;
}

/** What is known, each with its name and its type; `children`: what else there is to say of each. */
function Facts<T extends Fact>({
  list,
  what,
  facts,
  added,
  children,
}: {
  list: 'attributes' | 'sessionValues';
  what: string;
  facts: readonly T[];
  /** What a new one is. */
  added: T;
  children?: (fact: T, change: (to: T) => void) => ReactNode;
}) {
  const { mayChange, apply } = usePeopleWork();
  // That the list is one of such facts, the types cannot follow.
  const edit = (one: object): void => apply({ ...one, list } as Edit);
  return (
    <>
      {facts.map((one, at) => {
        const change = (to: T): void => edit({ do: 'changeItem', from: one, to });
        return (
          <div key={one.id} className="mb-1 flex items-center gap-3">
            <KeptText
              label={`${what === 'attribute' ? 'Attribute' : 'Session value'} name`}
              className="max-w-64"
              value={one.name}
              disabled={!mayChange}
              onKeep={(name) => change({ ...one, name })}
            />
            <TypeSelect type={one.type} disabled={!mayChange} onChange={(type) => change({ ...one, type })} />
            {children?.(one, change)}
            {mayChange && (
              <button
                type="button"
                className="link"
                aria-label={`Delete ${one.name}`}
                onClick={() => edit({ do: 'removeItem', at, item: one })}
              >
                Delete
              </button>
            )}
          </div>
        );
      })}
      {mayChange && (
        <button
          type="button"
          className="link"
          onClick={() => edit({ do: 'addItem', at: facts.length, item: { ...added, id: newId() } })}
        >
          Add {what}
        </button>
      )}
    </>
  );
}

/** For how many minutes a session value holds. */
function Minutes({ minutes, onKeep }: { minutes: number; onKeep: (minutes: number) => void }) {
  const { mayChange } = usePeopleWork();
  return (
    <>
      <span>expires after</span>
      <KeptText
        label="Minutes"
        className="w-20"
        value={String(minutes)}
        disabled={!mayChange}
        onKeep={(text) => onKeep(Math.max(1, Math.trunc(Number(text)) || 1))}
      />
      <span>minutes</span>
    </>
  );
}

function TypeSelect({
  type,
  disabled,
  onChange,
}: {
  type: ValueType;
  disabled: boolean;
  onChange: (type: ValueType) => void;
}) {
  const { definition } = usePeopleWork();
  const known = TYPES.find(([, one]) => one.kind === type.kind);
  return (
    <Select
      aria-label="Type"
      className="w-40"
      disabled={disabled || !known}
      value={known?.[0] ?? ''}
      onChoose={(chosen) => {
        const next = TYPES.find(([name]) => name === chosen);
        if (next) onChange(next[1]);
      }}
      none={known ? undefined : kindOf(type).label(type, definition)}
      options={TYPES.map(([name]) => ({ id: name, name }))}
    />
  );
}
