'use client';

import { Ellipsis } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { ApplicationAction, HomeRow } from './home-row';

interface Props {
  readonly row: HomeRow;
  readonly onDo: (what: ApplicationAction) => void;
}

/** What can be done to an application as a whole, by who one is in it. */
export function RowMenu({ row, onDo }: Props) {
  const all: readonly (readonly [ApplicationAction, string, boolean])[] = [
    ['builders', 'Builders…', true],
    ['copy', 'Copy…', true],
    ['rename', 'Rename…', row.role !== 'reviewer'],
    ['move', 'Change address…', row.role === 'owner'],
    ['take-out', 'Export…', true],
    ['delete', 'Delete…', row.role === 'owner'],
  ];
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label={`Actions for ${row.name} (/live/${row.slug})`}
        className="grid size-[28px] place-items-center hover:bg-sheet"
      >
        <Ellipsis size={16} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={4} className="popover w-56">
          {all.map(
            ([what, name, may]) =>
              may && (
                <DropdownMenu.Item key={what} className="option" onSelect={() => onDo(what)}>
                  {name}
                </DropdownMenu.Item>
              ),
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
