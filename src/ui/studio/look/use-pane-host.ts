'use client';

import { useMemo, type RefObject } from 'react';
import { SIGNED_OUT_KEY } from '@/core/access';
import type { Definition, Value } from '@/core/model';
import { ask, RecordsClient, send, timesOf, type BulkChange, type Host } from '../../live/host';
import { useLook } from './context';
import type { PaneState } from './pane-state';

/** How a pane is now, and how it becomes another. */
interface PaneNow {
  readonly state: PaneState;
  readonly onState: (state: PaneState) => void;
  readonly move: (address: string, query?: string) => void;
}

/**
 * What a screen in a pane works with: its viewer's records, with what is changed in this pane alone. `looks` is how the
 * server is asked for the pane, `refresh` asks it again.
 */
export function usePaneHost(
  now: RefObject<PaneNow>,
  looks: string,
  { language, timeZone }: Definition,
  refresh: () => void,
): Host {
  const { api, tell } = useLook();
  return useMemo((): Host => {
    const url = (path: string, query = ''): string =>
      `${api}/look/${path}?${[looks, query].filter(Boolean).join('&')}`;
    const inPane = 'in this pane only';
    return {
      go: (to, query) => now.current.move(to, query),
      hrefOf: () => undefined,
      records: new RecordsClient(`${api}/look/records`, looks),
      press: async (button, record) => {
        const body = { button, ...(record !== undefined && { record }) };
        const pressed = await send<{ id: string; to: Value | null }>('POST', url('press'), body);
        const { state: was, onState: change } = now.current;
        if (pressed.ok) change({ ...was, session: { ...was.session, [pressed.value.id]: pressed.value.to } });
        return pressed;
      },
      beforeSaving: (asked) => send('POST', url('before-saving'), asked),
      exportHref: (list, query) => url(`lists/${list}/export`, query),
      choices: (list, query) => ask(url(`lists/${list}/bulk`, query), {}),
      bulk: (list, change: BulkChange) => send('POST', url(`lists/${list}/bulk`), change),
      unlock: undefined,
      note: undefined,
      people: undefined,
      refresh,
      signOut: () => now.current.onState({ ...now.current.state, viewer: SIGNED_OUT_KEY, address: '' }),
      tell,
      said: {
        saved: `Saved, ${inPane}.`,
        added: `Added, ${inPane}.`,
        sent: `Sent, ${inPane}.`,
        deleted: `Deleted, ${inPane}.`,
        done: `Done, ${inPane}.`,
      },
      ...timesOf(language, timeZone),
      keeps: true,
    };
  }, [api, looks, tell, language, timeZone, now, refresh]);
}
