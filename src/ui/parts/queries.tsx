'use client';

import {
  keepPreviousData,
  QueryClient,
  QueryClientProvider,
  queryOptions,
  useQuery,
  type UseQueryResult,
} from '@tanstack/react-query';
import { useEffect, useState, type ReactNode } from 'react';
import { send } from '../live/host';

/** Gives what is in it a place where answers of the server are kept. */
export function Queries({ children }: { children: ReactNode }) {
  const [client] = useState(
    () =>
      new QueryClient({
        defaultOptions: {
          queries: {
            // What is asked again is said where it is asked; a window that comes back is no reason by itself.
            refetchOnWindowFocus: false,
            // The server says in words what is wrong; asking again is the reader's to decide.
            retry: false,
          },
        },
      }),
  );
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}

/** The server did not answer, or refused; the message says so in words. */
class Unanswered extends Error {}

/**
 * How to ask for what is at a URL; with a body, what the server says to it (and does nothing).
 * @throws Unanswered, with words for the reader
 */
export const asked = <T,>(url: string, body?: unknown, version?: string | number) =>
  queryOptions({
    queryKey: [url, body, version],
    queryFn: async ({ signal }): Promise<T> => {
      const answer = await send<T>(body === undefined ? 'GET' : 'POST', url, body, signal);
      if (!answer.ok) throw new Unanswered(answer.detail);
      return answer.value;
    },
  });

interface Options<T> {
  /** Something to be answered, rather than only read. */
  readonly body?: unknown;
  /** What the answer depends on beside: another version is another question. */
  readonly version?: string | number;
  /** What is known before it was asked for. */
  readonly first?: T | undefined;
  /** Keeps showing the answer before, until the next one is here. */
  readonly keepsLast?: boolean;
  /** For how many milliseconds an answer is good without asking again. */
  readonly goodFor?: number;
}

const A_MOMENT = 2000;

/** What is at a URL, kept under it; nothing is asked while it is undefined. */
export function useAsked<T>(url: string | undefined, options: Options<T> = {}): UseQueryResult<T> {
  const { body, version, first, keepsLast = false, goodFor = first === undefined ? 0 : A_MOMENT } = options;
  return useQuery({
    ...asked<T>(url ?? '', body, version),
    enabled: url !== undefined,
    ...(first !== undefined && { initialData: first }),
    ...(keepsLast && { placeholderData: keepPreviousData }),
    staleTime: goodFor,
  });
}

/** What a value was when it last stood still for so long: what somebody is typing. */
export function useSettled<T>(value: T, milliseconds: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), milliseconds);
    return () => clearTimeout(timer);
  }, [value, milliseconds]);
  return settled;
}
