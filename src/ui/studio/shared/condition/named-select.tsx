'use client';

import { type Condition } from '@/core/condition';
import { without } from './comparing';
import { Select } from '@/ui/parts/select';

/** Where a role or a privilege must be held. */
export function HeldSelect<C extends Extract<Condition, { hasRole: string } | { hasPrivilege: string }>>({
  condition,
  onChange,
}: {
  condition: C;
  onChange: (condition: Condition) => void;
}) {
  return (
    <Select
      aria-label="Unit"
      className="w-auto"
      value={condition.held ?? ''}
      onChoose={(chosen) => onChange(without(condition, 'held', (chosen || undefined) as C['held']))}
      none="in the record’s unit"
      options={[
        { id: 'everywhere', name: 'in all units' },
        { id: 'anywhere', name: 'in any unit' },
      ]}
    />
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
    <Select
      aria-label={label}
      className="w-auto"
      value={value}
      onChoose={onChange}
      options={[
        ...(!among.some((one) => one.id === value) ? [{ id: value, name: 'Deleted item' }] : []),
        ...among,
      ]}
    />
  );
}
