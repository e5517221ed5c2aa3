'use client';

import type { Type } from '@/core/condition';
import { type Definition, unitsOf, type Value } from '@/core/model';
import { OnlyDays } from '../../parts/day-box';

/** Sets one value of a declared type, or that there is none. */
export function ValueInput({
  definition,
  type,
  value,
  onChange,
  label,
}: {
  definition: Definition;
  type: Type;
  value: Value | null;
  onChange: (value: Value | null) => void;
  label?: string;
}) {
  const options =
    type.kind === 'choice'
      ? type.options
      : type.kind === 'unit'
        ? unitsOf(definition)
        : type.kind === 'boolean'
          ? [
              { id: 'true', name: 'Yes' },
              { id: 'false', name: 'No' },
            ]
          : undefined;
  if (type.kind === 'date')
    return (
      <OnlyDays
        {...(label !== undefined && { 'aria-label': label })}
        language={definition.language}
        value={value === null ? '' : String(value)}
        onDay={(day) => onChange(day || null)}
      />
    );
  if (!options)
    return (
      <input
        aria-label={label}
        type="text"
        className="field-box"
        value={value === null ? '' : String(value)}
        onChange={(event) => onChange(event.target.value || null)}
      />
    );
  return (
    <select
      aria-label={label}
      className="field-box"
      value={value === null ? '' : String(value)}
      onChange={(event) => {
        const chosen = event.target.value;
        onChange(chosen === '' ? null : type.kind === 'boolean' ? chosen === 'true' : chosen);
      }}
    >
      <option value="">not set</option>
      {options.map((one) => (
        <option key={one.id} value={one.id}>
          {one.name}
        </option>
      ))}
    </select>
  );
}
