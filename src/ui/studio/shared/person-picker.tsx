'use client';

import { Command } from 'cmdk';
import { UserPlus } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import type { Person } from '@/core/access';

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
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        className="flex w-[54px] shrink-0 flex-col items-center justify-center gap-1 self-stretch rounded-sm border border-dashed border-edge text-[12px] leading-tight text-lead-text hover:border-white hover:text-white"
        title={label}
      >
        <UserPlus size={16} aria-hidden />
        {label}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content side="top" align="end" sideOffset={6} className="popover w-72">
          <Command label={label}>
            <Command.Input placeholder="Name" className="field-box" autoFocus />
            <Command.List className="mt-1 max-h-72 overflow-y-auto">
              <Command.Empty className="px-2 py-1 text-quiet">Nobody has a name like that.</Command.Empty>
              {people.map((person) => (
                <Command.Item
                  key={person.id}
                  value={`${person.name} ${person.id}`}
                  keywords={[person.name]}
                  onSelect={() => {
                    onPick(person.id);
                    setOpen(false);
                  }}
                  className="option"
                >
                  {person.name}
                  {!person.active && <span className="text-quiet"> (switched off)</span>}
                </Command.Item>
              ))}
            </Command.List>
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
