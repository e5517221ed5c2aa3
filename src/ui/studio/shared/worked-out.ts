import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { sendProgressing } from './progressing';

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
 * What a route works out line by line, kept under its URL and version. Leaving the page stops the work on the server;
 * until the next version is worked out, the one before stays.
 */
export function useWorkedOut<T>(url: string, version: string | number): WorkedOut<T> {
  const [progress, setProgress] = useState({ done: 0, of: 0 });
  const client = useQueryClient();
  const queryKey = [url, version];
  const asked = useQuery<T>({
    queryKey,
    queryFn: async ({ signal }) => {
      setProgress({ done: 0, of: 0 });
      const answer = await sendProgressing<T>(url, {}, (done, of) => setProgress({ done, of }), signal);
      if (!answer.ok) throw new Error(answer.detail);
      return answer.value;
    },
    placeholderData: keepPreviousData,
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
