'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { sendProgressing } from '../shared/progressing';
import type { Compared } from './compared';

/** What differs, as far as it is known, and how far comparing is. */
interface Comparing {
  readonly data: Compared | undefined;
  readonly error: Error | null;
  readonly isComparing: boolean;
  readonly progress: { readonly done: number; readonly of: number } | undefined;
  readonly stop: () => void;
  readonly again: () => void;
}

/** Compares what was signed off, and anew with each revision of the draft; nothing while the address is undefined. */
export function useCompared(address: string | undefined, revision: number): Comparing {
  const client = useQueryClient();
  const [progress, setProgress] = useState<Comparing['progress']>();
  const queryKey = ['compared', address, revision];
  const { data, error, isFetching, refetch } = useQuery({
    queryKey,
    enabled: address !== undefined,
    queryFn: async ({ signal }) => {
      const answer = await sendProgressing<Compared>(
        address ?? '',
        {},
        (done, of) => setProgress({ done, of }),
        signal,
      );
      setProgress(undefined);
      if (!answer.ok) throw new Error(answer.detail);
      return answer.value;
    },
  });
  return {
    data,
    error,
    isComparing: isFetching,
    progress,
    stop: () => void client.cancelQueries({ queryKey }),
    again: () => void refetch(),
  };
}
