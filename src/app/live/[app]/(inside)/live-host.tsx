'use client';

import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useMemo, type ReactNode } from 'react';
import { ask, HostProvider, send, RecordsClient, timesOf, type Host } from '@/ui/live/host';
import type { StandIn } from '@/ui/live/standing-bar';
import { Toasts, useTell } from '@/ui/parts/toasts';

/** Only who looks as another loads what it takes. */
const StandingBar = dynamic(() => import('@/ui/live/standing-bar').then((one) => one.StandingBar));

interface Props {
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
  const { base, person, standing, unlocks, language, timeZone, frame, children } = props;
  const router = useRouter();
  const tell = useTell();
  const host = useMemo((): Host => {
    const hrefOf = (address: string): string => (address ? `${base}/${address}` : base);
    return {
      go: (address, query) => router.push(hrefOf(address) + (query ? `?${query}` : ''), { scroll: !query }),
      hrefOf,
      records: new RecordsClient(`${base}/api/records`),
      press: (button, record) => send('POST', `${base}/api/session-values`, { button, record }),
      beforeSaving: (asked) => send('POST', `${base}/api/before-saving`, asked),
      exportHref: (list, query) => `${base}/api/lists/${list}/export${query && `?${query}`}`,
      choices: (list, query) => ask(`${base}/api/lists/${list}/bulk${query && `?${query}`}`, {}),
      bulk: (list, change) => send('POST', `${base}/api/lists/${list}/bulk`, change),
      lockAgain: (what) => send('DELETE', `${base}/api/unlock`, what),
      unlock: unlocks ? (asked) => send('POST', `${base}/api/unlock`, asked) : undefined,
      note:
        person === undefined || standing
          ? undefined
          : (note) => {
              const address = window.location.pathname.slice(base.length) + window.location.search;
              return send('POST', `${base}/api/notes`, { ...note, address });
            },
      people: `${base}/api/people`,
      refresh: () => router.refresh(),
      // A full load: nothing of the session stays in the page.
      signOut: () =>
        void ask(`${base}/api/session`, { method: 'DELETE' }).then((answer) =>
          answer.ok ? window.location.assign(base) : tell(answer.detail),
        ),
      tell,
      said: { saved: 'Saved.', added: 'Added.', sent: 'Sent.', deleted: 'Deleted.', done: 'Done.' },
      ...timesOf(language, timeZone),
      keeps: true,
    };
  }, [base, router, tell, unlocks, person, standing, language, timeZone]);
  return (
    <HostProvider value={host}>
      {standing && person !== undefined && (
        <StandingBar
          api={`${base}/api/stand-in`}
          base={base}
          standing={standing}
          person={person}
          time={host.time}
        />
      )}
      <div className="grid min-h-screen grid-cols-[190px_minmax(0,1fr)] grid-rows-[auto_1fr]">
        {frame}
        <main className="max-w-6xl min-w-0 p-5">{children}</main>
      </div>
    </HostProvider>
  );
}
