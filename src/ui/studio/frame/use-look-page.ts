'use client';

import { useState } from 'react';
import type { LookPage } from '@/core/access';
import { useAsked } from '@/ui/client/queries';
import { lookPage } from '@/contract/studio/look';

/**
 * What the server sends for how one looks (`query`) at an address; what was there stays until the answer is
 * here. `version` is anything that the answer depends on beside.
 */
export function useLookPage(
  app: string,
  query: string,
  address: string,
  version: string,
): { page: LookPage | undefined; loading: boolean; problem: string } {
  const { data, error } = useAsked(
    lookPage,
    { app, query: `${query}&address=${encodeURIComponent(address)}` },
    { version },
  );
  const [last, setLast] = useState(data);
  if (data && data !== last) setLast(data);
  return { page: data ?? last, loading: !data && !error, problem: error?.message ?? '' };
}
