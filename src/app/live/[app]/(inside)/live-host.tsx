'use client';

import dynamic from 'next/dynamic';
import { usePathname, useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, type ReactNode } from 'react';
import { HostProvider, RecordsClient, timesOf, type Host } from '@/ui/live/host';
import type { StandIn } from '@/ui/live/standing-bar';
import { Toasts, useTell } from '@/ui/parts/toasts';
import { send, urlOf } from '@/ui/client/send';
import {
  liveBeforeSaving,
  liveBulk,
  liveChoices,
  liveListFile,
  livePress,
  liveRecords,
  liveSignOut,
  lockAgain,
  sendNote,
  unlock,
} from '@/contract/live';

/** Only who looks as another loads what it takes. */
const StandingBar = dynamic(() => import('@/ui/live/standing-bar').then((one) => one.StandingBar));

interface Props {
  /** Its address, and where its pages are. */
  readonly app: string;
  readonly base: string;
  readonly person: string | undefined;
  /** Who really is there, looking as that person. */
  readonly standing: StandIn | undefined;
  /** Can locked elements be opened for a while? */
  readonly unlocks: boolean;
  readonly language: string;
  readonly timeZone: string;
  /** What stands around the page, as the address has it. */
  readonly frame: ReactNode;
  readonly children: ReactNode;
}

/** What every page of a released application works with, and where what stands around it has its place. */
export function LiveHost(props: Props) {
  return (
    <Toasts>
      <Inside {...props} />
    </Toasts>
  );
}

function Inside(props: Props) {
  const { app, base, person, standing, unlocks, language, timeZone, frame, children } = props;
  const router = useRouter();
  const content = useHeadingFocus();
  const tell = useTell();
  const host = useMemo((): Host => {
    const hrefOf = (address: string): string => (address ? `${base}/${address}` : base);
    return {
      go: (address, query) => router.push(hrefOf(address) + (query ? `?${query}` : ''), { scroll: !query }),
      hrefOf,
      records: new RecordsClient(liveRecords, app),
      press: (button, record) => send(livePress, { app, body: { button, record } }),
      beforeSaving: (body) => send(liveBeforeSaving, { app, body }),
      exportHref: (list, query) => urlOf(liveListFile, { app, list, query }),
      choices: (list, query) => send(liveChoices, { app, list, query }),
      bulk: (list, body) => send(liveBulk, { app, list, body }),
      lockAgain: (body) => send(lockAgain, { app, body }),
      unlock: unlocks ? (body) => send(unlock, { app, body }) : undefined,
      note:
        person === undefined || standing
          ? undefined
          : (note) => {
              const address = window.location.pathname.slice(base.length) + window.location.search;
              return send(sendNote, { app, body: { element: undefined, ...note, address } });
            },
      people: app,
      refresh: () => router.refresh(),
      // A full load: nothing of the session stays in the page.
      signOut: () =>
        void send(liveSignOut, { app }).then((answer) =>
          answer.ok ? window.location.assign(base) : tell(answer.detail),
        ),
      tell,
      said: { saved: 'Saved.', added: 'Added.', sent: 'Submitted.', deleted: 'Deleted.', done: 'Done.' },
      ...timesOf(language, timeZone),
      keeps: true,
    };
  }, [app, base, router, tell, unlocks, person, standing, language, timeZone]);
  return (
    <HostProvider value={host}>
      {standing && person !== undefined && (
        <StandingBar app={app} base={base} standing={standing} person={person} time={host.time} />
      )}
      <a
        href="#content"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-paper focus:p-2"
      >
        Skip to main content
      </a>
      <div className="grid min-h-screen grid-cols-[190px_minmax(0,1fr)] grid-rows-[auto_1fr]">
        {frame}
        <main ref={content} id="content" tabIndex={-1} className="max-w-6xl min-w-0 p-5 outline-none">
          {children}
        </main>
      </div>
    </HostProvider>
  );
}

/** For the main content of a page: after a link was followed, the keyboard, and who listens, are at its heading. */
function useHeadingFocus() {
  const content = useRef<HTMLElement>(null);
  const path = usePathname();
  const before = useRef(path);
  useEffect(() => {
    if (before.current === path) return;
    before.current = path;
    const heading = content.current?.querySelector('h1');
    heading?.setAttribute('tabindex', '-1');
    heading?.focus({ preventScroll: true });
  }, [path]);
  return content;
}
