'use client';

import { useMemo, type RefObject } from 'react';
import { SIGNED_OUT_KEY } from '@/core/access';
import type { Definition } from '@/core/model';
import { send, urlOf } from '@/ui/client/send';
import {
  lookBeforeSaving,
  lookBulk,
  lookChoices,
  lookListFile,
  lookPress,
  lookRecords,
} from '@/contract/studio/look';
import { RecordsClient, timesOf, type Host } from '../../live/host';
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
  const { app, tell } = useLook();
  return useMemo((): Host => {
    const withLooks = (query: string): string => [looks, query].filter(Boolean).join('&');
    const here = { app, query: looks };
    const inPane = 'in this pane only';
    return {
      go: (to, query) => now.current.move(to, query),
      hrefOf: () => undefined,
      records: new RecordsClient(lookRecords, app, looks),
      press: async (button, record) => {
        const body = { button, ...(record !== undefined && { record }) };
        const pressed = await send(lookPress, { ...here, body });
        const { state: was, onState: change } = now.current;
        if (pressed.ok) change({ ...was, session: { ...was.session, [pressed.value.id]: pressed.value.to } });
        return pressed;
      },
      beforeSaving: (body) => send(lookBeforeSaving, { ...here, body }),
      exportHref: (list, query) => urlOf(lookListFile, { app, list, query: withLooks(query) }),
      choices: (list, query) => send(lookChoices, { app, list, query: withLooks(query) }),
      bulk: (list, body) => send(lookBulk, { ...here, list, body }),
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
  }, [app, looks, tell, language, timeZone, now, refresh]);
}
