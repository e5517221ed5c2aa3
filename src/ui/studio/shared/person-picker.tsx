'use client';

import { UserPlus } from 'lucide-react';
import type { Person } from '@/core/access';
import { hasWords } from '../../parts/choice-list';
import { ChooseBox, useBox } from '../../parts/choose-box';

/** So many are shown; more words find the others. */
const MOST = 60;

/** Finds a person by name, to be pinned to the rail. */
export function PersonPicker({
  people,
  onPick,
  label,
}: {
  people: readonly Person[];
  onPick: (id: string) => void;
  label: string;
}) {
  const box = useBox();
  return (
    <ChooseBox
      box={box}
      label={label}
      placeholder="Name"
      none="Nobody has a name like that."
      place={{ side: 'top', align: 'end' }}
      width="w-72"
      groups={[
        {
          choices: people
            .filter(({ name }) => hasWords(name, box.words))
            .slice(0, MOST)
            .map(({ id, name, active }) => ({ key: id, name, note: active ? '' : '(switched off)' })),
        },
      ]}
      onChoose={onPick}
      trigger={
        <button
          type="button"
          title={label}
          className="flex w-[54px] shrink-0 flex-col items-center justify-center gap-1 self-stretch rounded-sm border border-dashed border-edge text-[12px] leading-tight text-lead-text hover:border-white hover:text-white"
        >
          <UserPlus size={16} aria-hidden />
          {label}
        </button>
      }
    />
  );
}
