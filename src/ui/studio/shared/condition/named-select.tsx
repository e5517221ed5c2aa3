'use client';

import { type Condition } from '@/core/condition';
import { without } from './comparing';

/** Where a role or a privilege must be held. */
export function HeldSelect<C extends Extract<Condition, { hasRole: string } | { hasPrivilege: string }>>({
  condition,
  onChange,
}: {
  condition: C;
  onChange: (condition: Condition) => void;
}) {
  return (
    <select
      aria-label="Where it is held"
      className="field-box w-auto"
      value={condition.held ?? ''}
      onChange={(event) =>
        onChange(without(condition, 'held', (event.target.value || undefined) as C['held']))
      }
    >
      <option value="">for the unit at hand</option>
      <option value="everywhere">everywhere</option>
      <option value="anywhere">in any unit</option>
    </select>
  );
}

export function NameSelect({
  label,
  among,
  value,
  onChange,
}: {
  label: string;
  among: readonly { readonly id: string; readonly name: string }[];
  value: string;
  onChange: (id: string) => void;
}) {
  return (
    <select
      aria-label={label}
      className="field-box w-auto"
      value={value}
      onChange={(event) => onChange(event.target.value)}
    >
      {!among.some((one) => one.id === value) && <option value={value}>One that is gone</option>}
      {among.map((one) => (
        <option key={one.id} value={one.id}>
          {one.name}
        </option>
      ))}
    </select>
  );
}
