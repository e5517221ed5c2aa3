'use client';

import { privilegesInLists } from '@/core/model';
import { usePeopleWork } from './use-people-work';
import { KeptText } from '@/ui/parts/kept-text';
import { Select } from '@/ui/parts/select';

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
      Anyone with the privilege
      <Select
        aria-label={label}
        className="w-auto"
        disabled={!mayChange}
        value={value?.privilege ?? ''}
        onChoose={(chosen) => onChange(chosen ? { privilege: chosen, minutes: value?.minutes ?? 15 } : null)}
        none={`none (${none})`}
        options={privilegesInLists(definition)}
      />
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
