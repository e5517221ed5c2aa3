'use client';

import '../../parts/nonce';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { useRouter } from 'next/navigation';
import { findByName, gridFile } from '@/contract/studio/draft';
import { urlOf } from '@/ui/client/send';
import { BENCHES } from './benches';
import { benchHref, useCarried, type Carried } from './carry';
import { useStudio } from './studio-work';
import { useAsked } from '@/ui/client/queries';
import { ChoiceList, hasWords, type Choice } from '../../parts/choice-list';
import { viewerKey } from '@/core';

/** Something that the palette can do; what is shown of it, and what happens. */
interface Doing extends Choice {
  readonly run: () => void;
}

/** Finds any element, viewer, person, bench or command by its words. Ctrl K. */
export function Palette() {
  const { app, actionsRef } = useStudio();
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const { data: found } = useAsked(findByName, open ? { app, query: { q: words } } : undefined, {
    keepsLast: true,
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key.toLowerCase() !== 'k' || !(event.ctrlKey || event.metaKey)) return;
      event.preventDefault();
      setOpen((now) => !now);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const base = `/studio/${app}`;
  const carried = useCarried(app);
  const router = useRouter();
  const go = (path: string) => (): void => router.push(`${base}/${path}`);
  const toBench = (name: string, change: Carried = {}): void =>
    router.push(benchHref(app, name, { ...carried, ...change }));
  const gates = (form: string) => (): void => toBench('gates', { form });
  const lookAs = (viewer: string): void => toBench('look', { viewer });
  const commands: readonly Doing[] = [
    ...BENCHES.map(({ key, name }) => ({ key, name, note: 'bench', run: () => toBench(key) })),
    { key: 'grid', name: 'Grid: all elements, all viewers', note: 'form of Gates', run: gates('grid') },
    { key: 'what', name: 'What can one see', note: 'form of Gates', run: gates('what') },
    { key: 'who', name: 'Who can see it', note: 'form of Gates', run: gates('who') },
    { key: 'print', name: 'Print who gets what, to sign', note: 'command', run: go('gates/print') },
    {
      key: 'csv',
      name: 'Who gets what, as a CSV file',
      note: 'command',
      run: () => window.location.assign(urlOf(gridFile, { app })),
    },
    {
      key: 'live',
      name: 'Open the released application',
      note: 'command',
      run: () => window.open(`/live/${app}`, '_blank', 'noopener'),
    },
  ];
  const groups: readonly { readonly heading: string; readonly choices: readonly Doing[] }[] = [
    {
      heading: 'Benches and commands',
      choices: commands.filter(({ name, note = '' }) => hasWords(`${name} ${note}`, words)),
    },
    {
      heading: 'Elements',
      choices: (found?.elements ?? []).map(({ id, name, place }) => ({
        key: `element ${id}`,
        name,
        note: place,
        run: () => {
          const { onElement } = actionsRef.current;
          if (onElement) onElement(id);
          else toBench('gates', { element: id, address: '' });
        },
      })),
    },
    {
      heading: 'Look as',
      choices: [
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
    },
  ];
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="key min-h-[24px] whitespace-nowrap" title="Find anything (Ctrl K)">
        Ctrl K
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-lead/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-20 left-1/2 z-50 w-[36rem] max-w-[calc(100vw-2rem)] -translate-x-1/2 border-t-4 border-ink bg-paper p-3 shadow-lg"
        >
          <Dialog.Title className="sr-only">Find anything</Dialog.Title>
          <ChoiceList
            label="Find anything"
            placeholder="An element, a viewer, a person, a bench, a command"
            none="Nothing has a name like that."
            words={words}
            onWords={setWords}
            groups={groups}
            onChoose={(key) => {
              setOpen(false);
              setWords('');
              groups
                .flatMap(({ choices }) => choices)
                .find((one) => one.key === key)
                ?.run();
            }}
            wide
          />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
