'use client';

import { Command } from 'cmdk';
import { Plus } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { whoInWords } from '@/core/edit';
import { privilegesInLists, privilegesOf, sameWho, unitsOf, type Who } from '@/core/model';
import { useBench } from '../bench';

/** Picks whom a new line speaks of: a login state, a role, a privilege's holders, a group, a unit's people, or a person. */
export function WhoPicker({ taken, onPick }: { taken: readonly Who[]; onPick: (who: Who) => void }) {
  const { definition, people, personName } = useBench();
  const [open, setOpen] = useState(false);
  const groups: readonly (readonly [string, readonly Who[]])[] = [
    ['Login state', [{ kind: 'everyone' }, { kind: 'signed-in' }, { kind: 'signed-out' }]],
    ['Roles', definition.roles.map((role) => ({ kind: 'role', role: role.id }))],
    [
      'Holders of a privilege',
      privilegesOf(definition).map((one) => ({ kind: 'privilege', privilege: one.id })),
    ],
    ['Groups', definition.groups.map((one) => ({ kind: 'group', group: one.id }))],
    ['At home in a unit, or below it', unitsOf(definition).map((one) => ({ kind: 'unit', unit: one.id }))],
    ['People', people.map((person) => ({ kind: 'person', person: person.id }))],
  ];
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="button px-2 py-0.5">
        <Plus size={14} aria-hidden />
        Add who
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="end" sideOffset={4} className="popover w-72">
          <Command label="Add who">
            <Command.Input
              placeholder="Role, privilege, group, unit, person"
              className="field-box"
              autoFocus
            />
            <Command.List className="mt-1 max-h-80 overflow-y-auto">
              <Command.Empty className="px-2 py-1 text-quiet">Nobody is called that.</Command.Empty>
              {groups.map(([name, all]) => (
                <Command.Group
                  key={name}
                  heading={name}
                  className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:text-quiet"
                >
                  {all
                    .filter((who) => !taken.some((one) => sameWho(one, who)))
                    .map((who) => {
                      const words =
                        who.kind === 'privilege'
                          ? (privilegesInLists(definition).find(({ id }) => id === who.privilege)?.name ?? '')
                          : whoInWords(who, definition, personName);
                      return (
                        <Command.Item
                          key={JSON.stringify(who)}
                          value={JSON.stringify(who)}
                          keywords={[words]}
                          className="option"
                          onSelect={() => {
                            onPick(who);
                            setOpen(false);
                          }}
                        >
                          {words}
                        </Command.Item>
                      );
                    })}
                </Command.Group>
              ))}
            </Command.List>
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
