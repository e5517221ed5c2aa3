'use client';

import { useEffect, useState } from 'react';
import type { Definition } from '@/core/model/definition';

const known = new Map<string, Promise<Definition | undefined>>();

/** The definition that a pane is on: the draft, or an older one or a release, fetched once. */
export function useDefinition(api: string, on: string, draft: Definition): Definition {
  const [older, setOlder] = useState<{ readonly on: string; readonly definition: Definition }>();
  useEffect(() => {
    if (on === 'draft') return;
    let gone = false;
    const url = `${api}/look/definition?on=${encodeURIComponent(on)}`;
    let found = known.get(url);
    if (!found) {
      found = fetch(url).then(async (response) =>
        response.ok ? ((await response.json()) as { definition: Definition }).definition : undefined,
      );
      known.set(url, found);
    }
    void found.then((definition) => {
      if (!gone && definition) setOlder({ on, definition });
    });
    return () => {
      gone = true;
    };
  }, [api, on]);
  return older && older.on === on && on !== 'draft' ? older.definition : draft;
}
