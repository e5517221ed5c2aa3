'use client';

import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { addressOf, type Compiled, type Destination, type LookPage } from '@/core/access';
import type { Screen } from '@/core/model';
import type { PaneState } from './pane-state';
import { useFirstSample } from '../shared/samples';

/** The addresses that are closed to this viewer: those are the ones to try. */
export function ClosedAddresses({
  app,
  compiled,
  page,
  record,
  records,
  onGo,
}: {
  app: string;
  compiled: Compiled;
  page: LookPage;
  /** Where the pane is: its record is tried on other screens of its kind. */
  record: Destination | undefined;
  records: PaneState['records'];
  onGo: (address: string) => void;
}) {
  const firstSample = useFirstSample(app);
  const closed = compiled.tree.screens().filter((screen) => page.screens[screen.id]?.most === 0);
  const go = async (screen: Screen): Promise<void> => {
    if (screen.binds?.record !== 'existing') return onGo(addressOf(screen));
    const here = record?.screen.binds?.entity === screen.binds.entity ? record.record : undefined;
    const first = here === undefined ? await firstSample(screen.binds.entity, records) : undefined;
    onGo(addressOf(screen, here ?? first?.id));
  };
  return (
    <Popover.Root>
      <Popover.Trigger className="flex min-h-[24px] shrink-0 items-center gap-1 px-1 text-[12px] hover:bg-sheet">
        {closed.length} closed screens
        <ChevronDown size={13} aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="end" sideOffset={4} className="popover max-h-80 w-80 overflow-y-auto">
          <p className="px-2 pb-1 text-quiet">
            {closed.length === 0
              ? `${page.viewerName} can open every screen.`
              : `${page.viewerName} cannot open these screens. Try one:`}
          </p>
          {closed.map((screen) => (
            <Popover.Close key={screen.id} asChild>
              <button
                type="button"
                className="flex w-full items-baseline justify-between gap-3 rounded-sm px-2 py-1 text-left hover:bg-open-soft"
                onClick={() => void go(screen)}
              >
                {screen.name}
                <code className="font-mono text-[12px] text-quiet">
                  /{screen.address}
                  {screen.binds?.record === 'existing' && '/…'}
                </code>
              </button>
            </Popover.Close>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
