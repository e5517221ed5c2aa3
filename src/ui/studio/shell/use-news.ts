'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { asked, keysUnder } from '@/ui/client/queries';
import { news } from '@/contract/studio/draft';
import { notesWaiting } from '@/contract/studio/look';
import { urlOf } from '@/ui/client/send';
import type { DraftStore } from './draft-store';

const AGAIN_MS = 5000;
const PROVED = ['proof', 'expectations', 'sweeps', 'sign-offs'];

/**
 * Hears what happens to the application, by server-sent events, while the page is looked at: browsers open only some
 * lines to a server, and pages in the background leave them to others. Whenever a line opens, all is caught up.
 */
export function useNews(app: string, store: DraftStore): void {
  const client = useQueryClient();
  const router = useRouter();
  useEffect(() => {
    let line: EventSource | undefined;
    let again: ReturnType<typeof setTimeout> | undefined;
    const catchUp = (): void => {
      void store.catchUp();
      void client.invalidateQueries({ queryKey: asked(notesWaiting, { app }).queryKey });
      proved();
    };
    // All that is told of what was found out: the counts, the findings, what is expected.
    const proved = (): void =>
      void Promise.all(
        PROVED.map((part) => client.invalidateQueries(keysUnder(`/studio/api/applications/${app}/${part}`))),
      );
    const hear = ({ data }: MessageEvent<string>): void => {
      const [what, revision] = data.split(' ');
      if (what === 'draft') store.hear(Number(revision));
      else if (what === 'release') router.refresh();
      else if (['proved', 'expected', 'swept', 'sweep', 'signed'].includes(what ?? '')) proved();
      else if (what === 'people' || what === 'records') return;
      else catchUp();
    };
    const open = (): void => {
      line = new EventSource(urlOf(news, { app }));
      line.onopen = catchUp;
      line.onmessage = hear;
      line.onerror = () => {
        // The browser opens it again by itself, unless it was refused.
        if (line?.readyState === EventSource.CLOSED) again = setTimeout(turn, AGAIN_MS);
      };
    };
    const turn = (): void => {
      clearTimeout(again);
      line?.close();
      if (document.visibilityState === 'visible') open();
    };
    turn();
    document.addEventListener('visibilitychange', turn);
    return () => {
      clearTimeout(again);
      line?.close();
      document.removeEventListener('visibilitychange', turn);
    };
  }, [app, store, client, router]);
}
