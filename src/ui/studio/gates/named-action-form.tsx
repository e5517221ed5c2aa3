'use client';

import { useState } from 'react';
import {
  type Action,
  type Entity,
  type EntityField,
  readValue,
  showValue,
  unitsOf,
  type Value,
} from '@/core/model';
import { counted } from '@/core/edit';
import { useBench } from '../frame/bench';
import { useTell } from '../../parts/toasts';
import { KeptText } from '../people/parts';

const LIST = new Intl.ListFormat('en-GB');

/** What a named action sets, and what it asks before. */
export function NamedActionForm({
  entity,
  action,
  onChange,
}: {
  entity: Entity;
  action: Extract<Action, { kind: 'named' }>;
  onChange: (to: Entity) => void;
}) {
  const { definition, mayChange, compiled } = useBench();
  const put = (to: Action): void =>
    onChange({ ...entity, actions: entity.actions.map((one) => (one.id === action.id ? to : one)) });
  const free = entity.fields.filter((field) => !Object.hasOwn(action.sets, field.id));
  const used = compiled.handles.buttonsOf(action.id).length;
  const { confirm, ...unasked } = action;
  // A field that is needed is set once there is something that it becomes.
  const [waiting, setWaiting] = useState<EntityField>();
  const sets = Object.entries(action.sets).map(([id, value]) => {
    const field = entity.fields.find((one) => one.id === id);
    const to = value === null ? 'empty' : field ? showValue(field.type, value, definition) : String(value);
    return `${field?.name ?? id} to ${to}`;
  });
  return (
    <details className="text-[13px]" open>
      <summary>
        {sets.length === 0 ? 'Sets nothing: it only reads' : `Sets ${LIST.format(sets)}`}
        {confirm && ', after a question'}
      </summary>
      <div className="my-1 grid gap-1 border-l-2 border-edge pl-2">
        <KeptText
          label="Name of the action"
          value={action.name}
          disabled={!mayChange}
          onKeep={(name) => put({ ...action, name })}
        />
        {Object.entries(action.sets).map(([id, value]) => {
          const field = entity.fields.find((one) => one.id === id);
          if (!field) return null;
          return (
            <SetValue
              key={id}
              field={field}
              value={value}
              shown={showValue(field.type, value, definition)}
              disabled={!mayChange}
              onChange={(next) => put({ ...action, sets: { ...action.sets, [id]: next } })}
              onRemove={() =>
                put({
                  ...action,
                  sets: Object.fromEntries(Object.entries(action.sets).filter(([one]) => one !== id)),
                })
              }
            />
          );
        })}
        {waiting && free.includes(waiting) && (
          <SetValue
            field={waiting}
            value={null}
            shown=""
            disabled={false}
            onChange={(next) => put({ ...action, sets: { ...action.sets, [waiting.id]: next } })}
            onRemove={() => setWaiting(undefined)}
          />
        )}
        {mayChange && free.length > 0 && (
          <select
            aria-label="Set another field"
            className="field-box"
            value=""
            onChange={({ target }) => {
              const field = free.find((one) => one.id === target.value);
              if (field?.required) setWaiting(field);
              else put({ ...action, sets: { ...action.sets, [target.value]: null } });
            }}
          >
            <option value="">Set another field …</option>
            {free.map((field) => (
              <option key={field.id} value={field.id}>
                {field.name}
              </option>
            ))}
          </select>
        )}
        <KeptText
          label="Asks first"
          placeholder="What it asks first; empty: nothing"
          mayBeEmpty
          value={confirm ?? ''}
          disabled={!mayChange}
          onKeep={(text) => put(text === '' ? unasked : { ...action, confirm: text })}
        />
        {mayChange && (
          <button
            type="button"
            className="link justify-self-start"
            disabled={used > 0}
            title={used > 0 ? 'Buttons use it' : undefined}
            onClick={() =>
              onChange({ ...entity, actions: entity.actions.filter((one) => one.id !== action.id) })
            }
          >
            {used > 0 ? `Used by ${counted(used, 'button')}` : 'Delete the action'}
          </button>
        )}
      </div>
    </details>
  );
}

function SetValue({
  field,
  value,
  shown,
  disabled,
  onChange,
  onRemove,
}: {
  field: EntityField;
  value: Value | null;
  shown: string;
  disabled: boolean;
  onChange: (value: Value | null) => void;
  onRemove: () => void;
}) {
  const tell = useTell();
  const { definition } = useBench();
  const options =
    field.type.kind === 'choice'
      ? field.type.options
      : field.type.kind === 'unit'
        ? unitsOf(definition)
        : field.type.kind === 'boolean'
          ? [
              { id: 'true', name: 'Yes' },
              { id: 'false', name: 'No' },
            ]
          : undefined;
  const keep = (text: string): void => {
    const raw = field.type.kind === 'boolean' && text !== '' ? text === 'true' : text;
    const reading = readValue(field, raw);
    if ('value' in reading) onChange(reading.value);
    else tell(reading.problem);
  };
  return (
    <div className="flex items-center gap-2">
      <span className="w-28 shrink-0 truncate">{field.name}</span>
      {options ? (
        <select
          aria-label={`${field.name} becomes`}
          className="field-box"
          disabled={disabled}
          value={value === null ? '' : String(value)}
          onChange={(event) => keep(event.target.value)}
        >
          {(value === null || !field.required) && (
            <option value="">{field.required ? 'Choose what it becomes' : 'empty'}</option>
          )}
          {options.map((option) => (
            <option key={option.id} value={option.id}>
              {option.name}
            </option>
          ))}
        </select>
      ) : (
        <KeptText
          label={`${field.name} becomes`}
          placeholder={field.required ? 'What it becomes' : 'empty'}
          mayBeEmpty={!field.required}
          value={typeof value === 'string' ? value : shown}
          disabled={disabled}
          onKeep={keep}
        />
      )}
      {!disabled && (
        <button type="button" className="link" onClick={onRemove} aria-label={`Do not set ${field.name}`}>
          Not
        </button>
      )}
    </div>
  );
}
