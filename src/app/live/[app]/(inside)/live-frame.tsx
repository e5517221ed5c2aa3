'use client';

import dynamic from 'next/dynamic';
import { usePathname } from 'next/navigation';
import { useMemo } from 'react';
import type { ShownFrame } from '@/core/access';
import { useHost } from '@/ui/live/host';
import { MenuView } from '@/ui/live/menu-view';
import { readSent, type Sent } from '@/ui/live/sent';

/** Only who may look as others loads what it takes. */
const StandInPicker = dynamic(() => import('@/ui/live/stand-in-picker').then((one) => one.StandInPicker));

interface Props {
  readonly app: string;
  readonly frame: Sent<ShownFrame>;
  readonly person: string | undefined;
  /** May they look as others? */
  readonly mayStandIn: boolean;
}

/** What stands around a page: a name, a menu, and who is signed in. */
export function LiveFrame({ app, frame, person, mayStandIn }: Props) {
  const base = `/live/${app}`;
  const host = useHost();
  const path = usePathname();
  const { name, menu } = useMemo(() => readSent(frame), [frame]);
  return (
    <>
      <header className="col-span-2 flex items-center gap-4 border-b border-edge bg-paper px-5 py-2">
        {/* A menu of an area's own need not lead out of it; this does. */}
        <a
          href={base}
          title="Go to your start screen"
          className="min-w-0 font-semibold break-words"
          onClick={(event) => {
            if (event.metaKey || event.ctrlKey || event.button !== 0) return;
            event.preventDefault();
            host.go('');
          }}
        >
          {name}
        </a>
        <span className="ml-auto shrink-0 text-quiet">
          {person === undefined ? (
            'Not signed in'
          ) : (
            <a className="link" href={`${base}/account`} title="Your account and roles">
              {person}
            </a>
          )}
        </span>
        {mayStandIn && <StandInPicker app={app} base={base} label="Act as someone else…" />}
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
      <div className="border-r border-rule bg-paper py-3">
        <MenuView items={menu} current={path.slice(base.length + 1)} />
      </div>
    </>
  );
}
