'use client';

import { type Attribute, newId, type SessionValue, type ValueType } from '@/core/model';
import { usePeopleWork } from './use-people-work';
import { KeptText, Panel, PartHead } from './parts';

const TYPES: readonly (readonly [string, ValueType])[] = [
  ['Text', { kind: 'text' }],
  ['Whole number', { kind: 'number', decimals: 0 }],
  ['Money', { kind: 'money' }],
  ['Date', { kind: 'date' }],
  ['Yes or no', { kind: 'boolean' }],
  ['Unit', { kind: 'unit' }],
];

/** Attributes of people, and what a session can hold: what conditions can ask of beside the record. */
export function FactsPart() {
  const { definition, mayChange, apply } = usePeopleWork();
  const changeAttribute = (from: Attribute, to: Attribute): void =>
    apply({ do: 'changeItem', list: 'attributes', from, to });
  const changeValue = (from: SessionValue, to: SessionValue): void =>
    apply({ do: 'changeItem', list: 'sessionValues', from, to });
  return (
    <>
      <PartHead title="What is known" about="What conditions can ask of people and of their sessions." />
      <Panel label="Attributes of people">
        <h2 className="font-semibold">Of each person</h2>
        <p className="mb-2 text-quiet">Name, email address and home unit, and:</p>
        {definition.attributes.map((one) => (
          <div key={one.id} className="mb-1 flex items-center gap-3">
            <KeptText
              label="Name of the attribute"
              className="max-w-64"
              value={one.name}
              disabled={!mayChange}
              onKeep={(name) => changeAttribute(one, { ...one, name })}
            />
            <TypeSelect
              type={one.type}
              disabled={!mayChange}
              onChange={(type) => changeAttribute(one, { ...one, type })}
            />
            {mayChange && (
              <button
                type="button"
                className="link"
                aria-label={`Delete ${one.name}`}
                onClick={() =>
                  apply({
                    do: 'removeItem',
                    list: 'attributes',
                    at: definition.attributes.indexOf(one),
                    item: one,
                  })
                }
              >
                Delete
              </button>
            )}
          </div>
        ))}
        {mayChange && (
          <button
            type="button"
            className="link"
            onClick={() =>
              apply({
                do: 'addItem',
                list: 'attributes',
                at: definition.attributes.length,
                item: { id: newId(), name: 'New attribute', type: { kind: 'text' } },
              })
            }
          >
            Add an attribute
          </button>
        )}
      </Panel>
      <div className="mt-4">
        <Panel label="Session values">
          <h2 className="font-semibold">Of a session</h2>
          <p className="mb-2 text-quiet">A button sets it; it ends by itself.</p>
          {definition.sessionValues.map((one) => (
            <div key={one.id} className="mb-1 flex items-center gap-3">
              <KeptText
                label="Name of the session value"
                className="max-w-64"
                value={one.name}
                disabled={!mayChange}
                onKeep={(name) => changeValue(one, { ...one, name })}
              />
              <TypeSelect
                type={one.type}
                disabled={!mayChange}
                onChange={(type) => changeValue(one, { ...one, type })}
              />
              <span>for</span>
              <KeptText
                label="Minutes"
                className="w-20"
                value={String(one.minutes)}
                disabled={!mayChange}
                onKeep={(text) =>
                  changeValue(one, { ...one, minutes: Math.max(1, Math.trunc(Number(text)) || 1) })
                }
              />
              <span>minutes</span>
              {mayChange && (
                <button
                  type="button"
                  className="link"
                  aria-label={`Delete ${one.name}`}
                  onClick={() =>
                    apply({
                      do: 'removeItem',
                      list: 'sessionValues',
                      at: definition.sessionValues.indexOf(one),
                      item: one,
                    })
                  }
                >
                  Delete
                </button>
              )}
            </div>
          ))}
          {mayChange && (
            <button
              type="button"
              className="link"
              onClick={() =>
                apply({
                  do: 'addItem',
                  list: 'sessionValues',
                  at: definition.sessionValues.length,
                  item: { id: newId(), name: 'New session value', type: { kind: 'boolean' }, minutes: 60 },
                })
              }
            >
              Add a session value
            </button>
          )}
        </Panel>
      </div>
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
  const known = TYPES.find(([, one]) => one.kind === type.kind);
  return (
    <select
      aria-label="Type"
      className="field-box w-40"
      disabled={disabled || !known}
      value={known?.[0] ?? type.kind}
      onChange={(event) => {
        const next = TYPES.find(([name]) => name === event.target.value);
        if (next) onChange(next[1]);
      }}
    >
      {!known && <option>{type.kind}</option>}
      {TYPES.map(([name]) => (
        <option key={name}>{name}</option>
      ))}
    </select>
  );
}
