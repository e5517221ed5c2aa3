'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import { asked, useAsked } from '@/ui/client/queries';
import { samples, type Sample } from '@/contract/studio/look';

type Records = 'sample' | 'live';

const A_MINUTE = 60_000;

/** Records of an entity whose name has those words; what was there stays until the next are here. */
export function useSamples(
  app: string,
  entity: string | undefined,
  records: Records = 'sample',
  q = '',
): readonly Sample[] {
  const asking = entity === undefined ? undefined : { app, query: { entity, records, q } };
  return useAsked(samples, asking, { keepsLast: true, goodFor: A_MINUTE }).data?.samples ?? [];
}

/** Finds the first of an entity's records, for a screen that needs one; undefined where there is none. */
export function useFirstSample(
  app: string,
): (entity: string, records?: Records) => Promise<Sample | undefined> {
  const client = useQueryClient();
  return useCallback(
    async (entity, records = 'sample') => {
      const query = { entity, records, q: '' };
      const found = await client
        .fetchQuery({ ...asked(samples, { app, query }), staleTime: A_MINUTE })
        .catch(() => undefined);
      return found?.samples[0];
    },
    [app, client],
  );
}
