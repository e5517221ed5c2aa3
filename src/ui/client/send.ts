'use client';

import type { AnyRoute, Params, Query, Route } from '@/contract/route';

/** What came of asking the server for something. */
export type Reply<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly detail: string; readonly fields: Readonly<Record<string, string>> };

/** What a route is asked: the names in its path, its query, and what it is sent. */
export type Asking<Path extends string, Sends> = Params<Path> & {
  /** By the names of the contract; or as it is in an address, of lists. */
  readonly query?: Query<Path> | string;
} & (Sends extends undefined ? { readonly body?: undefined } : { readonly body: Sends });

interface How {
  readonly signal?: AbortSignal | undefined;
  /** The version of a record that its writer has seen. */
  readonly version?: string;
  /** It is asked also where its page is being left. */
  readonly keepalive?: boolean;
}

/** The address of a route, with what it is asked. */
export function urlOf<Path extends string, Right, Sends, Reads, Answer>(
  { path }: Route<Path, Right, Sends, Reads, Answer>,
  asking: Params<Path> & { readonly query?: Query<Path> | string },
): string {
  const values = asking as Readonly<Record<string, string>>;
  const place = path
    .replace(/\?.*/, '')
    .replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(values[name] ?? ''));
  const { query } = asking;
  if (typeof query === 'string') return query === '' ? place : `${place}?${query}`;
  const named = Object.entries(query ?? {}).flatMap(([name, value]) =>
    typeof value === 'string' || typeof value === 'number' ? [[name, String(value)]] : [],
  );
  return named.length === 0 ? place : `${place}?${new URLSearchParams(named).toString()}`;
}

/** The request that asks a route. */
export function requestOf<Path extends string, Right, Sends, Reads, Answer>(
  route: Route<Path, Right, Sends, Reads, Answer>,
  asking: Asking<Path, Sends>,
  { version, signal, keepalive }: How = {},
): readonly [url: string, init: RequestInit] {
  const { body: kind, method } = route as AnyRoute;
  const { body } = asking as { readonly body?: unknown };
  const type = kind?.is === 'json' ? 'application/json' : kind?.is === 'csv' ? 'text/csv' : undefined;
  return [
    urlOf(route, asking),
    {
      method,
      ...(signal && { signal }),
      ...(keepalive && { keepalive }),
      headers: {
        ...(type !== undefined && { 'Content-Type': type }),
        ...(version !== undefined && { 'If-Match': `"${version}"` }),
      },
      ...(kind && { body: kind.is === 'json' ? JSON.stringify(body) : (body as BodyInit) }),
    },
  ];
}

/** Asks a route, and reads its answer, or its problem details in words. */
export async function send<Path extends string, Right, Sends, Reads, Answer>(
  route: Route<Path, Right, Sends, Reads, Answer>,
  asking: Asking<Path, Sends>,
  how?: How,
): Promise<Reply<Answer>> {
  try {
    const response = await fetch(...requestOf(route, asking, how));
    const text = await response.text();
    const body: unknown = text ? JSON.parse(text) : undefined;
    return response.ok ? { ok: true, value: body as Answer } : refused(body);
  } catch {
    return unreachable();
  }
}

/** Problem details (RFC 9457), for the reader. */
export function refused(body: unknown): Reply<never> {
  const { detail = 'The server rejected the request.', errors = [] } = (body ?? {}) as ProblemDetails;
  return { ok: false, detail, fields: Object.fromEntries(errors.map((one) => [one.field, one.detail])) };
}

export const unreachable = (): Reply<never> => ({
  ok: false,
  detail: 'The server cannot be reached, so nothing was changed. Check your connection and try again.',
  fields: {},
});

interface ProblemDetails {
  readonly detail?: string;
  readonly errors?: readonly { readonly field: string; readonly detail: string }[];
}
