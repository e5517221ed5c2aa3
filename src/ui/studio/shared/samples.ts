'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import { asked, useAsked } from '../../parts/queries';

export interface Sample {
  readonly id: string;
  readonly label: string;
  /** What tells it from others of the same name. */
  readonly more: string;
}

interface Found {
  readonly samples: readonly Sample[];
}

type Records = 'sample' | 'live';

const A_MINUTE = 60_000;

const urlOf = (api: string, entity: string, records: Records, q: string): string =>
  `${api}/samples?${new URLSearchParams({ entity, records, q })}`;

/** Records of an entity whose name has those words; what was there stays until the next are here. */
export function useSamples(
  api: string,
  entity: string | undefined,
  records: Records = 'sample',
  q = '',
): readonly Sample[] {
  const url = entity === undefined ? undefined : urlOf(api, entity, records, q);
  return useAsked<Found>(url, { keepsLast: true, goodFor: A_MINUTE }).data?.samples ?? [];
}

/** Finds the first of an entity's records, for a screen that needs one; undefined where there is none. */
export function useFirstSample(
  api: string,
): (entity: string, records?: Records) => Promise<Sample | undefined> {
  const client = useQueryClient();
  return useCallback(
    async (entity, records = 'sample') => {
      const url = urlOf(api, entity, records, '');
      const found = await client
        .fetchQuery({ ...asked<Found>(url), staleTime: A_MINUTE })
        .catch(() => undefined);
      return found?.samples[0];
    },
    [api, client],
  );
}
