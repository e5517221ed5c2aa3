'use client';

import dynamic from 'next/dynamic';
import { usePathname, useRouter } from 'next/navigation';
import { useMemo, type ReactNode } from 'react';
import type { ShownMenuItem } from '@/core/access';
import { ask, HostProvider, send, RecordsClient, timesOf, type Host } from '@/ui/live/host';
import { MenuView } from '@/ui/live/menu-view';
import { readSent, type Sent } from '@/ui/live/sent';
import type { StandIn } from '@/ui/live/standing-bar';
import { Toasts, useTell } from '@/ui/parts/toasts';

/** Only who may look as others, or does, loads what it takes. */
const StandingBar = dynamic(() => import('@/ui/live/standing-bar').then((one) => one.StandingBar));
const StandInPicker = dynamic(() => import('@/ui/live/stand-in-picker').then((one) => one.StandInPicker));

interface Props {
  readonly base: string;
  readonly name: string;
  readonly person: string | undefined;
  /** Who really is there, looking as that person. */
  readonly standing: StandIn | undefined;
  /** May they look as others? */
  readonly mayStandIn: boolean;
  readonly menu: Sent<readonly ShownMenuItem[]>;
  /** Can locked elements be opened for a while? */
  readonly unlocks: boolean;
  readonly language: string;
  readonly timeZone: string;
  readonly children: ReactNode;
}

/** What stands around every page of a released application: its name, its menu, who is signed in. */
export function LiveFrame(props: Props) {
  return (
    <Toasts>
      <Inside {...props} />
    </Toasts>
  );
}

function Inside(props: Props) {
  const { base, name, person, standing, mayStandIn, menu, unlocks, language, timeZone, children } = props;
  const router = useRouter();
  const tell = useTell();
  const path = usePathname();
  const items = useMemo(() => readSent(menu), [menu]);
  const host = useMemo((): Host => {
    const hrefOf = (address: string): string => (address ? `${base}/${address}` : base);
    return {
      go: (address, query) => router.push(hrefOf(address) + (query ? `?${query}` : ''), { scroll: !query }),
      hrefOf,
      records: new RecordsClient(`${base}/api/records`),
      press: (button, record) => send('POST', `${base}/api/session-values`, { button, record }),
      beforeSaving: (asked) => send('POST', `${base}/api/before-saving`, asked),
      exportHref: (list, query) => `${base}/api/lists/${list}/export${query && `?${query}`}`,
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
      <header className="flex items-center gap-4 border-b border-edge bg-paper px-5 py-2">
        <span className="font-semibold">{name}</span>
        <span className="ml-auto text-quiet">
          {person === undefined ? (
            'You are not signed in'
          ) : (
            <a className="link" href={`${base}/account`} title="Your account and roles">
              {person}
            </a>
          )}
        </span>
        {mayStandIn && !standing && (
          <StandInPicker api={`${base}/api/stand-in`} base={base} label="Look as somebody" />
        )}
        {person === undefined ? (
          <a className="button" href={`${base}/sign-in`}>
            Sign in
          </a>
        ) : (
          <button type="button" className="button" onClick={host.signOut}>
            Sign out
          </button>
        )}
      </header>
      <div className="grid min-h-[calc(100vh-49px)] grid-cols-[190px_1fr]">
        <div className="border-r border-rule bg-paper py-3">
          <MenuView items={items} current={path.slice(base.length + 1)} />
        </div>
        <main className="max-w-6xl min-w-0 p-5">{children}</main>
      </div>
    </HostProvider>
  );
}
