'use client';

import { Command } from 'cmdk';
import { Popover } from 'radix-ui';
import { useEffect, useState } from 'react';
import { ask, send } from './host';
import { useTell } from '../parts/toasts';
import { useFirst } from '../parts/use-first';

/** Who really is there, and what they may do while they look as somebody else. */
export interface StandIn {
  readonly name: string;
  readonly until: number;
  readonly changes: boolean;
  /** Do they get all that the other person gets? Else what both may see. */
  readonly full: boolean;
}

interface Props {
  readonly api: string;
  /** Where one lands. */
  readonly base: string;
}

/** Who is looking as whom, over every page: it cannot be missed. One click leads back. */
export function StandingBar({
  api,
  base,
  standing,
  person,
  time,
}: Props & { standing: StandIn; person: string; time: (moment: number) => string }) {
  const tell = useTell();
  useEffect(() => {
    // When the time is over, the page is that of oneself again.
    const left = standing.until - Date.now();
    const timer = setTimeout(() => window.location.assign(base), Math.max(1000, left + 500));
    return () => clearTimeout(timer);
  }, [standing.until, base]);
  const back = (): void =>
    void ask(api, { method: 'DELETE' }).then((answer) =>
      answer.ok ? window.location.assign(base) : tell(answer.detail),
    );
  return (
    <section
      aria-label="Looking as somebody else"
      className="on-lead sticky top-0 z-20 flex items-center gap-4 border-y-4 border-double border-white bg-lead px-5 py-2.5 text-[15px] text-white"
    >
      <p>
        <strong>{standing.name}</strong> is looking as <strong>{person}</strong>,{' '}
        {standing.full ? 'with all that they see' : 'at what both may see'},{' '}
        {standing.changes ? 'and what is changed is changed' : 'for reading only'}, until{' '}
        <time dateTime={new Date(standing.until).toISOString()}>{time(standing.until)}</time>. All of it is
        recorded under both names.
      </p>
      <span className="ml-auto flex shrink-0 gap-2">
        <StandInPicker api={api} base={base} label="Go on to the next" />
        <button type="button" className="button" onClick={back}>
          Back to {standing.name}
        </button>
      </span>
    </section>
  );
}

interface Somebody {
  readonly id: string;
  readonly name: string;
  readonly roles: readonly string[];
}

/** Finds a person and begins to look as them. */
export function StandInPicker({ api, base, label }: Props & { label: string }) {
  const tell = useTell();
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const [people, setPeople] = useState<readonly Somebody[]>();
  useEffect(() => {
    if (!open) return;
    const stop = new AbortController();
    void ask<{ people: Somebody[] }>(`${api}?q=${encodeURIComponent(words)}`, {
      method: 'GET',
      signal: stop.signal,
    }).then((answer) => answer.ok && setPeople(answer.value.people));
    return () => stop.abort();
  }, [api, open, words]);
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
