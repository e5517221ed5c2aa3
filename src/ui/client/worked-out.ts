import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { Lines } from '@/contract/body';
import type { Route } from '@/contract/route';
import { sendProgressing } from './progressing';
import { type Asking, urlOf } from './send';

/** What the server works out, and how far it is. */
export interface WorkedOut<T> {
  readonly data: T | undefined;
  /** Why there is nothing, in words. */
  readonly problem: string | undefined;
  /** While it is being worked out, with a way to stop that. */
  readonly progress: { readonly done: number; readonly of: number; readonly onStop: () => void } | undefined;
  readonly again: () => void;
}

/**
 * What a route works out line by line, kept under its address and version. Leaving the page stops the work on the server;
 * until the next version is worked out, the one before stays (`keepsLast`).
 */
export function useWorkedOut<Path extends string, Right, Sends, Reads, T>(
  route: Route<Path, Right, Sends, Reads, Lines<T>>,
  asking: Asking<Path, Sends> | undefined,
  version: string | number,
  { keepsLast = true }: { readonly keepsLast?: boolean } = {},
): WorkedOut<T> {
  const [progress, setProgress] = useState({ done: 0, of: 0 });
  const client = useQueryClient();
  const queryKey = [asking && urlOf(route, asking), version];
  const asked = useQuery({
    queryKey,
    enabled: asking !== undefined,
    queryFn: async ({ signal }) => {
      if (!asking) throw new Error('There is nothing to ask.');
      setProgress({ done: 0, of: 0 });
      const tell = (done: number, of: number): void => setProgress({ done, of });
      const answer = await sendProgressing(route, asking, tell, signal);
      if (!answer.ok) throw new Error(answer.detail);
      return answer.value;
    },
    ...(keepsLast && { placeholderData: keepPreviousData }),
    staleTime: 0,
  });
  return {
    data: asked.data,
    problem: asked.error?.message,
    progress: asked.isFetching
      ? { ...progress, onStop: () => void client.cancelQueries({ queryKey }) }
      : undefined,
    again: () => void asked.refetch(),
  };
}
