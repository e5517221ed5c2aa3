'use client';

import { useState } from 'react';
import { type Action, type Entity, type EntityField, readValue, showValue, type Value } from '@/core/model';
import { counted } from '@/core/edit';
import { useBench } from '../frame/bench';
import { useTell } from '../../parts/toasts';
import { KeptText } from '@/ui/parts/kept-text';
import { ValueBox } from '@/ui/parts/value-box';
import { Select } from '@/ui/parts/select';

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
        {sets.length === 0 ? 'Sets no fields (read-only)' : `Sets ${LIST.format(sets)}`}
        {confirm && ', after confirmation'}
      </summary>
      <div className="my-1 grid gap-1 border-l-2 border-edge pl-2">
        <KeptText
          label="Action name"
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
            disabled={false}
            onChange={(next) => put({ ...action, sets: { ...action.sets, [waiting.id]: next } })}
            onRemove={() => setWaiting(undefined)}
          />
        )}
        {mayChange && free.length > 0 && (
          <Select
            aria-label="Set another field"
            value=""
            onChoose={(chosen) => {
              const field = free.find((one) => one.id === chosen);
              if (field?.required) setWaiting(field);
              else put({ ...action, sets: { ...action.sets, [chosen]: null } });
            }}
            none="Set another field…"
            options={free}
          />
        )}
        <KeptText
          label="Confirmation message"
          placeholder="Question shown before the action runs; leave empty for none"
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
            title={used > 0 ? 'Buttons that use it' : undefined}
            onClick={() =>
              onChange({ ...entity, actions: entity.actions.filter((one) => one.id !== action.id) })
            }
          >
            {used > 0 ? `Used by ${counted(used, 'button')}` : 'Delete action'}
          </button>
        )}
      </div>
    </details>
  );
}

function SetValue({
  field,
  value,
  disabled,
  onChange,
  onRemove,
}: {
  field: EntityField;
  value: Value | null;
  disabled: boolean;
  onChange: (value: Value | null) => void;
  onRemove: () => void;
}) {
  const tell = useTell();
  const { definition } = useBench();
  const keep = (next: Value | null): void => {
    const reading = readValue(field, next);
    if ('value' in reading) onChange(reading.value);
    else tell(reading.problem);
  };
  return (
    <div className="flex items-center gap-2">
      <span className="w-28 shrink-0 truncate">{field.name}</span>
      <ValueBox
        label={`New value of ${field.name}`}
        type={field.type}
        manner={definition}
        whenLeft
        disabled={disabled}
        value={value}
        onChange={keep}
        none={field.required ? (value === null ? 'Choose what it becomes' : undefined) : 'empty'}
      />
      {!disabled && (
        <button type="button" className="link" onClick={onRemove} aria-label={`Do not set ${field.name}`}>
          Remove
        </button>
      )}
    </div>
  );
}
