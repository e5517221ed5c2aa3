'use client';

import { Command } from 'cmdk';
import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { readAddress } from '@/core';
import { addressOf, type Compiled } from '@/core/access';
import { useFirst } from '../../parts/use-first';
import { useSamples, type Sample } from '../shared/samples';

/** For a screen that shows a record: which one it is. */
export function RecordChoice({
  api,
  compiled,
  address,
  records,
  onAddress,
}: {
  api: string;
  compiled: Compiled;
  address: string;
  records: 'sample' | 'live';
  onAddress: (address: string) => void;
}) {
  const destination = readAddress(compiled.tree, address);
  const entity = destination?.record === undefined ? undefined : destination.screen.binds?.entity;
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const [label, setLabel] = useState<Sample>();
  const samples = useSamples(api, entity, records, words);
  const found = samples.find(({ id }) => id === destination?.record);
  if (found && found !== label) setLabel(found);
  const first = useFirst(samples.map(({ id }) => id));
  if (!destination || entity === undefined) return null;
  const shown = label?.id === destination.record ? label : undefined;
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label={`Record: ${shown?.label ?? destination.record}`}
        className="flex max-w-52 min-w-0 items-center gap-1.5 rounded-sm border border-edge bg-paper px-2 py-0.5 hover:border-ink"
      >
        <span className="truncate">{shown?.label ?? destination.record}</span>
        {shown?.more && <span className="truncate text-quiet">{shown.more}</span>}
        <ChevronDown size={13} aria-hidden className="shrink-0" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="start" sideOffset={4} className="popover w-80">
          <Command label="Record" shouldFilter={false} {...first}>
            <Command.Input
              autoFocus
              value={words}
              onValueChange={setWords}
              placeholder="Find a record"
              className="field-box"
            />
            <Command.List className="mt-1 max-h-72 overflow-y-auto">
              {samples.length === 0 && (
                <p className="px-2 py-1 text-quiet">No record has a name like that.</p>
              )}
              {samples.map((one) => (
                <Command.Item
                  key={one.id}
                  value={one.id}
                  className="option"
                  onSelect={() => {
                    setLabel(one);
                    setOpen(false);
                    onAddress(addressOf(destination.screen, one.id));
                  }}
                >
                  {one.label} <span className="text-quiet">{one.more}</span>
                </Command.Item>
              ))}
            </Command.List>
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
