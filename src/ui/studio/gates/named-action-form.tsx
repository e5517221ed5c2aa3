'use client';

import { type Action, type Entity, type EntityField, readValue, showValue, type Value } from '@/core/model';
import { useBench } from './bench';
import { KeptText } from '../people/parts';

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
  return (
    <details className="text-[13px]">
      <summary>
        {Object.keys(action.sets).length === 0
          ? 'Sets nothing: it only reads'
          : `Sets ${Object.keys(action.sets)
              .map((id) => entity.fields.find((field) => field.id === id)?.name ?? id)
              .join(', ')}`}
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
        {mayChange && free.length > 0 && (
          <select
            aria-label="Set another field"
            className="field-box"
            value=""
            onChange={(event) => put({ ...action, sets: { ...action.sets, [event.target.value]: null } })}
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
            {used > 0 ? `Used by ${used === 1 ? 'a button' : `${used} buttons`}` : 'Delete the action'}
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
  const options =
    field.type.kind === 'choice'
      ? field.type.options
      : field.type.kind === 'boolean'
        ? [
            { id: 'true', name: 'Yes' },
            { id: 'false', name: 'No' },
          ]
        : undefined;
  const keep = (text: string): void => {
    const raw = field.type.kind === 'boolean' && text !== '' ? text === 'true' : text;
    const reading = readValue({ ...field, required: false }, raw);
    if ('value' in reading) onChange(reading.value);
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
          <option value="">empty</option>
          {options.map((option) => (
            <option key={option.id} value={option.id}>
              {option.name}
            </option>
          ))}
        </select>
      ) : (
        <KeptText
          label={`${field.name} becomes`}
          placeholder="empty"
          mayBeEmpty
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
