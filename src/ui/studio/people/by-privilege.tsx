'use client';

import { privilegesInLists } from '@/core/model';
import { usePeopleWork } from './use-people-work';
import { KeptText } from './parts';

interface PrivilegeAndTime {
  readonly privilege: string;
  readonly minutes: number;
}

/** "Whoever holds … may do this for … minutes." */
export function ByPrivilege({
  label,
  none,
  what,
  value,
  onChange,
}: {
  label: string;
  none: string;
  what: string;
  value: PrivilegeAndTime | undefined;
  onChange: (value: PrivilegeAndTime | null) => void;
}) {
  const { definition, mayChange } = usePeopleWork();
  return (
    <label className="flex flex-wrap items-center gap-2">
      Whoever holds
      <select
        aria-label={label}
        className="field-box w-auto"
        disabled={!mayChange}
        value={value?.privilege ?? ''}
        onChange={(event) =>
          onChange(
            event.target.value ? { privilege: event.target.value, minutes: value?.minutes ?? 15 } : null,
          )
        }
      >
        <option value="">no privilege: {none}</option>
        {privilegesInLists(definition).map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
      {what}
      {value && (
        <>
          {' for'}
          <KeptText
            label={`Minutes, ${label.toLowerCase()}`}
            className="w-16"
            value={String(value.minutes)}
            disabled={!mayChange}
            onKeep={(text) =>
              onChange({ privilege: value.privilege, minutes: Math.max(1, Math.trunc(Number(text)) || 1) })
            }
          />
          minutes
        </>
      )}
    </label>
  );
}
