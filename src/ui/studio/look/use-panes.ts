'use client';

import { useEffect, useEffectEvent, useMemo, useState } from 'react';
import { idInKey, type LookPage, type MadeViewer, SIGNED_OUT_KEY } from '@/core/access';
import { newUuid } from '@/core/model';
import { send } from '@/ui/client/send';
import { throwPaneAway } from '@/contract/studio/look';
import type { RailViewer } from '../frame/bench';
import { firstPane, paneFromQuery, paneToQuery, type PaneState } from './pane-state';
import type { KeptViewer } from '@/core/access';

export const MOST_PANES = 4;

/** A pane, with the id under which the server keeps what is changed in it. */
export interface OpenPane {
  readonly id: string;
  readonly state: PaneState;
}

const opened = (state: PaneState): OpenPane => ({ id: newUuid(), state });

/** The panes of the look bench: which are open, what each shows, and how they move. The address bar tells of them. */
export function usePanes({
  app,
  links,
  onLinks,
  first,
  viewers,
  kept,
  onLeft,
}: {
  app: string;
  /** The panes as the address has them when one comes, and how to tell it of others. */
  links: readonly string[];
  onLinks: (links: string[]) => void;
  /** Where the address has none. */
  first: () => readonly PaneState[];
  /** A pane that is added takes the first of these whom no pane has. */
  viewers: readonly RailViewer[];
  kept: readonly KeptViewer[];
  /** What was asked about is not there any more. */
  onLeft: () => void;
}) {
  const [panes, setPanes] = useState(() =>
    (links.length > 0 ? links.slice(0, MOST_PANES).map(paneFromQuery) : first()).map(opened),
  );
  const tellLinks = useEffectEvent(onLinks);
  const [pages, setPages] = useState<Readonly<Record<string, LookPage>>>({});
  const [active, setActive] = useState(0);
  const [walking, setWalking] = useState(true);

  useEffect(() => {
    tellLinks(panes.map(({ state }) => paneToQuery(state)));
  }, [panes]);
  useEffect(() => {
    // What was changed in a pane goes with it.
    const leave = (): void => {
      for (const { id } of panes) void send(throwPaneAway, { app, id }, { keepalive: true });
    };
    window.addEventListener('pagehide', leave);
    return () => window.removeEventListener('pagehide', leave);
  }, [app, panes]);

  const shown = useMemo(() => panes.map(({ id }) => pages[id]), [panes, pages]);
  const pageOf = (n: number): LookPage | undefined => pages[panes[n]?.id ?? ''];
  const throwAway = (n: number): void => void send(throwPaneAway, { app, id: panes[n]?.id ?? '' });
  const change = (n: number, state: PaneState): void =>
    setPanes((now) =>
      now.map((one, i) => {
        if (i !== n) return one;
        // Sample and live records are kept apart: so are the changes made over them.
        return { id: state.records === one.state.records ? one.id : newUuid(), state };
      }),
    );
  const add = (viewer?: string, session: PaneState['session'] = {}): void => {
    if (panes.length >= MOST_PANES) return;
    const last = panes.at(-1)?.state ?? firstPane(SIGNED_OUT_KEY, '');
    const free = viewers.find(({ key }) => !panes.some(({ state }) => state.viewer === key))?.key;
    const address = pageOf(panes.length - 1)?.address ?? last.address;
    const state = { ...last, viewer: viewer ?? free ?? SIGNED_OUT_KEY, address, session, query: '' };
    setPanes((now) => [...now, opened(state)]);
    setActive(panes.length);
  };

  return {
    panes,
    pages: shown,
    pageOf,
    active,
    activate: setActive,
    walking,
    setWalking,
    change,
    add,
    show: (id: string, page: LookPage): void => setPages((now) => ({ ...now, [id]: page })),
    /** Somebody moved in a pane. The others walk along, where that is on. */
    move: (n: number, address: string, query: string): void => {
      const elsewhere = address !== pageOf(n)?.address;
      // What was asked about stays behind; another page of the same list does not.
      if (elsewhere) onLeft();
      setPanes((now) =>
        now.map((one, i) => {
          if (i === n) return { ...one, state: { ...one.state, address, query } };
          return walking && elsewhere ? { ...one, state: { ...one.state, address, query: '' } } : one;
        }),
      );
    },
    moveAll: (address: string): void =>
      setPanes((now) => now.map((one) => ({ ...one, state: { ...one.state, address, query: '' } }))),
    /**
     * Puts a viewer into a pane, or into a new one. A made-up viewer comes with what is set in its session; for
     * others that stays as it is in the pane.
     */
    put: (
      key: string,
      n: number,
      made: MadeViewer | undefined = kept.find(({ id }) => id === idInKey('kept', key))?.viewer,
    ): void => {
      const session = made?.session;
      const pane = panes[n];
      if (pane) change(n, { ...pane.state, viewer: key, ...(session && { session }) });
      else add(key, session);
      setActive(Math.min(n, panes.length));
    },
    /** Who looks as one viewer looks as another from now on. */
    replaceViewer: (from: string, to: string): void =>
      setPanes((now) =>
        now.map((one) => (one.state.viewer === from ? { ...one, state: { ...one.state, viewer: to } } : one)),
      ),
    close: (n: number): void => {
      throwAway(n);
      setPanes((now) => now.toSpliced(n, 1));
      setActive(0);
      onLeft();
    },
    /** The same pane, without what was changed in it. */
    restart: (n: number): void => {
      throwAway(n);
      setPanes((now) => now.map((one, i) => (i === n ? opened(one.state) : one)));
    },
    openOnly: (state: PaneState): void => {
      setPanes([opened(state)]);
      setActive(0);
    },
  };
}
