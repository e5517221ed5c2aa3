'use client';

import { UserPlus } from 'lucide-react';
import { ChooseBox, useBox } from '../../parts/choose-box';
import { useDraft, useStudio } from '../shell/studio-work';
import { rolesOf, useFoundPeople } from './found-people';

/** Finds a person by name, role or unit, to be pinned to the rail. */
export function PersonPicker({
  except,
  onPick,
  label,
}: {
  /** Those who are pinned already. */
  except: readonly string[];
  onPick: (id: string) => void;
  label: string;
}) {
  const { app } = useStudio();
  const { definition } = useDraft();
  const box = useBox();
  const { people, none, asking } = useFoundPeople(app, definition, box.open ? box.words : undefined);
  return (
    <ChooseBox
      box={box}
      label={label}
      placeholder="Find by name, role or unit"
      none={none}
      asking={asking}
      place={{ side: 'top', align: 'end' }}
      width="w-72"
      groups={[
        {
          choices: people
            .filter(({ id }) => !except.includes(id))
            .map((one) => ({ key: one.id, name: one.name, note: rolesOf(definition, one) })),
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
