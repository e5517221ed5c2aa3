'use client';

import { Command } from 'cmdk';
import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { fullName } from '@/core/edit';
import { findElements } from '@/core/model';
import { useFirst } from '../../../parts/use-first';
import { useBench } from '../bench';

const MOST = 60;

/** Chooses the selected element by its words. */
export function ElementChoice() {
  const { compiled, selected, select } = useBench();
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const found = open ? findElements(compiled.tree, words, MOST) : [];
  const first = useFirst(found.map(({ id }) => id));
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label={`Element: ${fullName(selected)}`}
        className="flex items-center gap-1.5 rounded-sm border border-edge px-2 py-1 hover:border-ink"
      >
        {fullName(selected)}
        <ChevronDown size={13} aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="start" sideOffset={4} className="popover w-96">
          <Command label="Element" shouldFilter={false} {...first}>
            <Command.Input
              autoFocus
              value={words}
              onValueChange={setWords}
              placeholder="Find an element"
              className="field-box"
            />
            <Command.List className="mt-1 max-h-80 overflow-y-auto">
              {found.length === 0 && <p className="px-2 py-1 text-quiet">Nothing has a name like that.</p>}
              {found.map((one) => (
                <Command.Item
                  key={one.id}
                  value={one.id}
                  className="option"
                  onSelect={() => {
                    select(one.id);
                    setOpen(false);
                  }}
                >
                  {fullName(one)}
                </Command.Item>
              ))}
            </Command.List>
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
