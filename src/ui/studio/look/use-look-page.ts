'use client';

import { useState } from 'react';
import type { LookPage } from '@/core/access';
import { useAsked } from '../../parts/queries';

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
  const url = `${api}/look?${query}&address=${encodeURIComponent(address)}`;
  const { data, error } = useAsked<LookPage>(url, { version });
  const [last, setLast] = useState(data);
  if (data && data !== last) setLast(data);
  return { page: data ?? last, loading: !data && !error, problem: error?.message ?? '' };
}
