'use client';

import { comparable, type Operand, type Scope, type Type, typeOf, WEEKDAYS } from '@/core/condition';
import { sameJson, unitsOf, type Value } from '@/core/model';
import { firstConstant, operandsOfScope } from './questions';
import { OnlyDays } from '../../../parts/day-box';

interface Props {
  readonly scope: Scope;
  readonly type: Type;
  readonly operand: Operand;
  readonly onChange: (operand: Operand) => void;
}

/** What something is compared with: a constant of its type, or something else that is of that type. */
export function OperandPicker({ scope, type, operand, onChange }: Props) {
  const others = operandsOfScope(scope).filter((one) => {
    const own = typeOf(scope, one.operand);
    return own && comparable(own, type);
  });
  const plain = 'clock' in operand ? { clock: operand.clock } : operand;
  const key =
    'value' in operand
      ? 'value'
      : JSON.stringify(others.find((one) => sameJson(one.operand, plain))?.operand);
  return (
    <>
      <select
        aria-label="Compared with"
        className="field-box w-auto max-w-[17rem]"
        value={key}
        onChange={(event) =>
          onChange(
            event.target.value === 'value'
              ? { value: firstConstant(scope, type) }
              : (JSON.parse(event.target.value) as Operand),
          )
        }
      >
        <option value="value">this value:</option>
        {others.map((one) => (
          <option key={JSON.stringify(one.operand)} value={JSON.stringify(one.operand)}>
            {one.heading}: {one.name}
          </option>
        ))}
      </select>
      {'value' in operand && (
        <ValueInput
          scope={scope}
          type={type}
          value={operand.value}
          onChange={(value) => onChange({ value })}
        />
      )}
      {'clock' in operand && operand.clock === 'today' && (
        <label className="flex items-center gap-1">
          plus
          <input
            type="number"
            aria-label="Days later"
            className="field-box w-20"
            value={operand.plus ?? 0}
            onChange={(event) => {
              const plus = Math.trunc(Number(event.target.value));
              onChange(plus === 0 ? { clock: 'today' } : { clock: 'today', plus });
            }}
          />
          days
        </label>
      )}
    </>
  );
}

/** Writes a constant of a type. */
export function ValueInput({
  scope,
  type,
  value,
  onChange,
}: {
  scope: Scope;
  type: Type;
  value: Value;
  onChange: (value: Value) => void;
}) {
  const options =
    type.kind === 'choice'
      ? type.options
      : type.kind === 'unit'
        ? unitsOf(scope.definition)
        : type.kind === 'boolean'
          ? [
              { id: 'true', name: 'Yes' },
              { id: 'false', name: 'No' },
            ]
          : type.kind === 'weekday'
            ? WEEKDAYS.map((id) => ({ id, name: id[0]?.toUpperCase() + id.slice(1) }))
            : undefined;
  if (options)
    return (
      <select
        aria-label="Value"
        className="field-box w-auto"
        value={String(value)}
        onChange={(event) =>
          onChange(type.kind === 'boolean' ? event.target.value === 'true' : event.target.value)
        }
      >
        {options.map((option) => (
          <option key={option.id} value={option.id}>
            {option.name}
          </option>
        ))}
      </select>
    );
  if (type.kind === 'date' || type.kind === 'moment') {
    const [day = '', time = '00:00'] = String(value).split('T');
    return (
      <span className="flex w-64 items-center gap-1">
        <OnlyDays
          aria-label="Value"
          language={scope.definition.language}
          value={day}
          onDay={(next) => next && onChange(type.kind === 'date' ? next : `${next}T${time}`)}
        />
        {type.kind === 'moment' && (
          <input
            aria-label="Time"
            type="time"
            className="field-box w-28"
            value={time.slice(0, 5)}
            onChange={({ target }) => target.value && onChange(`${day}T${target.value}:00`)}
          />
        )}
      </span>
    );
  }
  const inputType = type.kind === 'time' ? 'time' : 'text';
  return (
    <input
      aria-label="Value"
      type={inputType}
      className="field-box w-40"
      value={String(value)}
      onChange={(event) => {
        const { value: text } = event.target;
        if (inputType !== 'text' && text === '') return;
        onChange(text);
      }}
    />
  );
}
