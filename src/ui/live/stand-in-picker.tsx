'use client';

import { Command } from 'cmdk';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { Queries, useAsked } from '../parts/queries';
import { send } from './host';
import { useTell } from '../parts/toasts';
import { useFirst } from '../parts/use-first';

export interface Props {
  readonly api: string;
  /** Where one lands. */
  readonly base: string;
}

interface Somebody {
  readonly id: string;
  readonly name: string;
  readonly roles: readonly string[];
}

/** Finds a person and begins to look as them. */
export function StandInPicker(props: Props & { label: string }) {
  return (
    <Queries>
      <Inside {...props} />
    </Queries>
  );
}

function Inside({ api, base, label }: Props & { label: string }) {
  const tell = useTell();
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const { data } = useAsked<{ people: readonly Somebody[] }>(
    open ? `${api}?${new URLSearchParams({ q: words })}` : undefined,
    { keepsLast: true },
  );
  const people = data?.people;
  const first = useFirst((people ?? []).map(({ id }) => id));
  const begin = (person: string): void =>
    void send('POST', api, { person }).then((answer) =>
      answer.ok ? window.location.assign(base) : tell(answer.detail),
    );
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="button">{label}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="end" sideOffset={6} className="popover w-80">
          <Command label="As whom to look" shouldFilter={false} {...first}>
            <Command.Input
              autoFocus
              value={words}
              onValueChange={setWords}
              placeholder="Name"
              className="field-box"
            />
            <p className="mt-1 px-2 text-quiet">
              You see what both of you may see, unless the builder allows all of it. It ends by itself, and is
              recorded.
            </p>
            <Command.List className="mt-1 max-h-72 overflow-y-auto">
              {people?.length === 0 && <p className="px-2 py-1 text-quiet">Nobody has a name like that.</p>}
              {people?.map((one) => (
                <Command.Item key={one.id} value={one.id} className="option" onSelect={() => begin(one.id)}>
                  {one.name} <span className="text-quiet">{one.roles.join(', ')}</span>
                </Command.Item>
              ))}
            </Command.List>
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
