'use client';

import '../../parts/nonce';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { useRouter } from 'next/navigation';
import { BENCHES } from './benches';
import { benchHref, useCarried, type Carried } from './carry';
import { useStudio } from './studio-work';
import { useAsked } from '../../parts/queries';
import { useFirst } from '../../parts/use-first';
import { viewerKey } from '@/core';

interface Found {
  readonly elements: readonly { readonly id: string; readonly name: string; readonly place: string }[];
  readonly viewers: readonly { readonly key: string; readonly name: string }[];
  readonly people: readonly { readonly id: string; readonly name: string }[];
}

/** Something that the palette can do; what is shown of it, and what happens. */
interface Choice {
  readonly key: string;
  readonly name: string;
  readonly note: string;
  readonly run: () => void;
}

/** Finds any element, viewer, person, bench or command by its words. Ctrl K. */
export function Palette() {
  const { slug, api, actionsRef } = useStudio();
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const { data: found } = useAsked<Found>(
    open ? `${api}/find?${new URLSearchParams({ q: words })}` : undefined,
    { keepsLast: true },
  );
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key.toLowerCase() !== 'k' || !(event.ctrlKey || event.metaKey)) return;
      event.preventDefault();
      setOpen((now) => !now);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const base = `/studio/${slug}`;
  const carried = useCarried(slug);
  const router = useRouter();
  const go = (path: string) => (): void => router.push(`${base}/${path}`);
  const toBench = (name: string, change: Carried = {}): void =>
    router.push(benchHref(slug, name, { ...carried, ...change }));
  const gates = (form: string) => (): void => toBench('gates', { form });
  const lookAs = (viewer: string): void => toBench('look', { viewer });
  const commands: readonly Choice[] = [
    ...BENCHES.map(({ key, name }) => ({ key, name, note: 'bench', run: () => toBench(key) })),
    { key: 'grid', name: 'Grid: all elements, all viewers', note: 'form of Gates', run: gates('grid') },
    { key: 'what', name: 'What can one see', note: 'form of Gates', run: gates('what') },
    { key: 'who', name: 'Who can see it', note: 'form of Gates', run: gates('who') },
    { key: 'print', name: 'Print who gets what, to sign', note: 'command', run: go('gates/print') },
    {
      key: 'csv',
      name: 'Who gets what, as a CSV file',
      note: 'command',
      run: () => window.location.assign(`${api}/grid/csv`),
    },
    {
      key: 'live',
      name: 'Open the released application',
      note: 'command',
      run: () => window.open(`/live/${slug}`, '_blank', 'noopener'),
    },
  ];
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const groups: readonly (readonly [string, readonly Choice[]])[] = [
    [
      'Benches and commands',
      commands.filter(({ name, note }) =>
        wanted.every((word) => `${name} ${note}`.toLowerCase().includes(word)),
      ),
    ],
    [
      'Elements',
      (found?.elements ?? []).map(({ id, name, place }) => ({
        key: `element ${id}`,
        name,
        note: place,
        run: () => {
          const { onElement } = actionsRef.current;
          if (onElement) onElement(id);
          else toBench('gates', { element: id, address: '' });
        },
      })),
    ],
    [
      'Look as',
      [
        ...(found?.viewers ?? []).map(({ key, name }) => ({
          key: `viewer ${key}`,
          name,
          note: 'viewer',
          run: () => (actionsRef.current.onViewer ?? lookAs)(key),
        })),
        ...(found?.people ?? []).map(({ id, name }) => ({
          key: `person ${id}`,
          name,
          note: 'person',
          run: () => lookAs(viewerKey('person', id)),
        })),
      ],
    ],
  ];
  const first = useFirst(groups.flatMap(([, choices]) => choices.map(({ key }) => key)));
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="key min-h-[24px]" title="Find anything (Ctrl K)">
        Ctrl K
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-lead/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-20 left-1/2 z-50 w-[36rem] max-w-[calc(100vw-2rem)] -translate-x-1/2 border-t-4 border-ink bg-paper p-3 shadow-lg"
        >
          <Dialog.Title className="sr-only">Find anything</Dialog.Title>
          <Command label="Find anything" shouldFilter={false} {...first}>
            <Command.Input
              autoFocus
              value={words}
              onValueChange={setWords}
              placeholder="An element, a viewer, a person, a bench, a command"
              className="field-box py-2"
            />
            <Command.List className="mt-2 max-h-[26rem] overflow-y-auto">
              {groups.every(([, choices]) => choices.length === 0) && (
                <p className="px-2 py-1 text-quiet">Nothing has a name like that.</p>
              )}
              {groups.map(
                ([heading, choices]) =>
                  choices.length > 0 && (
                    <Command.Group
                      key={heading}
                      heading={heading}
                      className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:text-quiet"
                    >
                      {choices.map(({ key, name, note, run }) => (
                        <Command.Item
                          key={key}
                          value={key}
                          className="option flex justify-between gap-4"
                          onSelect={() => {
                            setOpen(false);
                            setWords('');
                            run();
                          }}
                        >
                          <span className="truncate">{name}</span>
                          <span className="shrink-0 text-quiet">{note}</span>
                        </Command.Item>
                      ))}
                    </Command.Group>
                  ),
              )}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
