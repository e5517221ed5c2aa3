'use client';

import {
  keepPreviousData,
  QueryClient,
  QueryClientProvider,
  queryOptions,
  skipToken,
  useQuery,
  type UseQueryOptions,
  type UseQueryResult,
} from '@tanstack/react-query';
import { useEffect, useState, type ReactNode } from 'react';
import type { Route } from '@/contract/route';
import { type Asking, send, urlOf } from './send';

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
 * How to ask a route, and keep what it answers.
 * @param version what the answer depends on beside: another version is another question
 * @throws Unanswered, with words for the reader
 */
export const asked = <Path extends string, Right, Sends, Reads, Answer>(
  route: Route<Path, Right, Sends, Reads, Answer>,
  asking: Asking<Path, Sends>,
  version?: string | number,
) =>
  queryOptions({
    queryKey: [urlOf(route, asking), asking.body, version],
    queryFn: async ({ signal }): Promise<Answer> => {
      const answer = await send(route, asking, { signal });
      if (!answer.ok) throw new Unanswered(answer.detail);
      return answer.value;
    },
  });

/** The keys of all questions whose address begins so, of whatever query. */
export const keysUnder = (place: string) => ({
  predicate: ({ queryKey: [url] }: { readonly queryKey: readonly unknown[] }) =>
    typeof url === 'string' && (url === place || url.startsWith(`${place}/`) || url.startsWith(`${place}?`)),
});

interface Options<T> {
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

/** What a route answers; nothing is asked while there is nothing to ask it. */
export function useAsked<Path extends string, Right, Sends, Reads, Answer>(
  route: Route<Path, Right, Sends, Reads, Answer>,
  asking: Asking<Path, Sends> | undefined,
  options: Options<Answer> = {},
): UseQueryResult<Answer> {
  const { version, first, keepsLast = false, goodFor = first === undefined ? 0 : A_MOMENT } = options;
  return useQuery({
    ...(asking ? asked(route, asking, version) : { queryKey: [], queryFn: skipToken }),
    ...(first !== undefined && { initialData: first }),
    ...(keepsLast && { placeholderData: keepPreviousData }),
    staleTime: goodFor,
  } as UseQueryOptions<Answer>);
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
