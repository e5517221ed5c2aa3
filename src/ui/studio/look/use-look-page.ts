'use client';

import { useEffect, useState } from 'react';
import type { LookPage } from '@/core/access/look';

/**
 * What the server sends for how one looks (`query`) at an address; what was there stays until the answer is
 * here. `version` is anything that the answer depends on beside.
 */
export function useLookPage(
  api: string,
  query: string,
  address: string,
  version: string,
): { page: LookPage | undefined; loading: boolean; problem: string } {
  const [sent, setSent] = useState<{ readonly at: string; readonly page: LookPage }>();
  const [problem, setProblem] = useState('');
  const wanted = `${query}&address=${encodeURIComponent(address)}`;
  const key = `${wanted} ${version}`;
  useEffect(() => {
    const stop = new AbortController();
    fetch(`${api}/look?${wanted}`, { signal: stop.signal })
      .then(async (response) => {
        const body = (await response.json()) as LookPage & { detail?: string };
        setProblem(response.ok ? '' : (body.detail ?? 'The server refused this.'));
        if (response.ok) setSent({ at: key, page: body });
      })
      .catch(() => stop.signal.aborted || setProblem('The server cannot be reached.'));
    return () => stop.abort();
  }, [api, wanted, key]);
  return { page: sent?.page, loading: sent?.at !== key && !problem, problem };
}
