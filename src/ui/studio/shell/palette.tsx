'use client';

import '../../parts/nonce';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { useRouter } from 'next/navigation';
import { findByName, gridFile } from '@/contract/studio/draft';
import { urlOf } from '@/ui/client/send';
import { BENCHES } from './benches';
import { benchHref, useCarried, type BenchState } from './bench-state';
import { showSteps } from './getting-started';
import { useStudio } from './studio-work';
import { useAsked } from '@/ui/client/queries';
import { ChoiceList, hasWords, type Choice } from '../../parts/choice-list';
import { viewerKey } from '@/core';

/** Something that the palette can do; what is shown of it, and what happens. */
interface PaletteAction extends Choice {
  readonly run: () => void;
}

/** Finds any element, viewer, person, bench or command by its words. Ctrl K. */
export function Palette() {
  const { app, isNew, actionsRef } = useStudio();
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
  const toBench = (name: string, change: BenchState = {}): void =>
    router.push(benchHref(app, name, { ...carried, ...change }));
  const gates = (form: string) => (): void => toBench('gates', { form });
  const lookAs = (viewer: string): void => toBench('look', { viewer });
  const commands: readonly PaletteAction[] = [
    ...BENCHES.map(({ key, name }) => ({ key, name, note: 'bench', run: () => toBench(key) })),
    { key: 'grid', name: 'Grid: all elements, all viewers', note: 'Gates view', run: gates('grid') },
    { key: 'what', name: 'Access by viewer', note: 'Gates view', run: gates('what') },
    { key: 'who', name: 'Access by element', note: 'Gates view', run: gates('who') },
    ...(isNew
      ? [
          {
            key: 'steps',
            name: 'Getting started',
            note: 'steps to the first release',
            run: () => showSteps(app),
          },
        ]
      : []),
    { key: 'print', name: 'Print access overview for signing', note: 'command', run: go('gates/print') },
    {
      key: 'csv',
      name: 'Export access overview as CSV',
      note: 'command',
      run: () => window.location.assign(urlOf(gridFile, { app })),
    },
    {
      key: 'live',
      name: 'Open released application',
      note: 'command',
      run: () => window.open(`/live/${app}`, '_blank', 'noopener'),
    },
  ];
  const groups: readonly { readonly heading: string; readonly choices: readonly PaletteAction[] }[] = [
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
      heading: 'View as',
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
      <Dialog.Trigger className="key min-h-[24px] whitespace-nowrap" title="Search everything (Ctrl+K)">
        Ctrl+K
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-lead/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-20 left-1/2 z-50 w-[36rem] max-w-[calc(100vw-2rem)] -translate-x-1/2 border-t-4 border-ink bg-paper p-3 shadow-lg"
        >
          <Dialog.Title className="sr-only">Search everything</Dialog.Title>
          <ChoiceList
            label="Search everything"
            placeholder="Search elements, viewers, people, benches and commands"
            none="No results."
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
