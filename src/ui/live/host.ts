'use client';

import type { ChosenRow } from './chosen';
import { useNeeded } from '../parts/need-context';
import type { ShownSection } from '@/core/access';
import type { Value } from '@/core/model';
import { createContext } from 'react';

/** What came of asking the server for something. */
export type Reply<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly detail: string; readonly fields: Readonly<Record<string, string>> };

export interface WrittenRecord {
  readonly id: string;
  readonly version: string;
  readonly address?: string;
  /** It was made, and its maker does not see it: then there is nothing else. */
  readonly sent?: boolean;
  /** An action took it out of sight of who ran it: then there is nothing else. */
  readonly done?: boolean;
}

export interface Option {
  readonly id: string;
  readonly label: string;
}

export interface BulkChange {
  readonly record?: string;
  readonly records: readonly { readonly id: string; readonly version: string }[];
  readonly values: Record<string, Value | null>;
}

interface NoteSent {
  /** Left out: the address where one is. */
  readonly element?: string;
  readonly text: string;
}

interface UnlockAsked {
  readonly element: string;
  readonly record: string;
  readonly email: string;
  readonly password: string;
}

/** Sends JSON, and reads the answer. */
export const send = <T>(
  method: string,
  url: string,
  body?: unknown,
  signal?: AbortSignal,
): Promise<Reply<T>> =>
  ask<T>(url, {
    method,
    ...(signal && { signal }),
    ...(body !== undefined && {
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    }),
  });

/** Where a drawn screen lives: in a released application, or on the studio's canvas. */
export interface Host {
  /** Goes to an address of the application, with the part of a list's search, sort and page. */
  readonly go: (address: string, query?: string) => void;
  /** The link that leads there, for opening in another tab; undefined on the canvas. */
  readonly hrefOf: (address: string) => string | undefined;
  readonly records: RecordsClient;
  /** Sets what a button sets for this session; `record` is that of its screen or row. */
  readonly press: (button: string, record?: string) => Promise<Reply<unknown>>;
  /** How a screen would be with the values as they are written; undefined where nothing can be written. */
  readonly beforeSaving:
    | ((asked: {
        readonly address: string;
        readonly values: Readonly<Record<string, Value | null>>;
        readonly face?: string;
      }) => Promise<Reply<{ readonly sections: readonly ShownSection[] }>>)
    | undefined;
  /** Where a list is to be had as a file, with its search, filter and sort; undefined on the canvas. */
  readonly exportHref: (list: string, query: string) => string | undefined;
  /** All that can be chosen of a list for a bulk change, with its search and filter; undefined on the canvas. */
  readonly choices:
    | ((list: string, query: string) => Promise<Reply<readonly (ChosenRow & { readonly id: string })[]>>)
    | undefined;
  /** Changes the same fields of several records of a list. */
  readonly bulk: (list: string, change: BulkChange) => Promise<Reply<{ readonly changed: number }>>;
  /** Lets somebody who may open a locked element sign in over it. Undefined where nobody may. */
  readonly unlock: ((asked: UnlockAsked) => Promise<Reply<{ readonly minutes: number }>>) | undefined;
  /** Locks again what was unlocked. */
  readonly lockAgain?: (what: Pick<UnlockAsked, 'element' | 'record'>) => Promise<Reply<unknown>>;
  /** Sends the builders a note that one should see this; undefined where that makes no sense. */
  readonly note: ((note: NoteSent) => Promise<Reply<unknown>>) | undefined;
  /** Where people are looked after; undefined on the canvas. */
  readonly people: string | undefined;
  /** Loads the page again. */
  readonly refresh: () => void;
  readonly signOut: () => void;
  /** Says something that is not about one field. */
  readonly tell: (message: string) => void;
  /** What is said when something was written. */
  readonly said: {
    readonly saved: string;
    readonly added: string;
    /** It was added, and its maker will not see it again. */
    readonly sent: string;
    readonly deleted: string;
    readonly done: string;
  };
  /** In which days are written and read (BCP 47). */
  readonly language: string;
  /** In which days are told and meant. */
  readonly timeZone: string;
  /** A moment's day, and its time of day, in the application's language and time zone. */
  readonly day: (moment: string | number) => string;
  readonly time: (moment: string | number) => string;
  /** On the canvas nothing is kept, so there is nowhere to go after writing. */
  readonly keeps: boolean;
}

/** How an application tells days and times, wherever it is looked at. */
export function timesOf(
  language: string,
  timeZone: string,
): Pick<Host, 'language' | 'timeZone' | 'day' | 'time'> {
  return {
    language,
    timeZone,
    day: (moment) => new Date(moment).toLocaleDateString(language, { dateStyle: 'medium', timeZone }),
    time: (moment) => new Date(moment).toLocaleTimeString(language, { timeStyle: 'short', timeZone }),
  };
}

const HostContext = createContext<Host | undefined>(undefined);
export const HostProvider = HostContext.Provider;

export const useHost = (): Host => useNeeded(HostContext, 'The host of a screen');

/** Talks to a records API. Every write names the version that its writer has seen. */
export class RecordsClient {
  constructor(
    private readonly base: string,
    private readonly query = '',
  ) {}

  create(entity: string, values: Record<string, Value | null>): Promise<Reply<WrittenRecord>> {
    return this.send('POST', entity, { values });
  }

  update(
    entity: string,
    id: string,
    version: string,
    values: Record<string, Value | null>,
  ): Promise<Reply<WrittenRecord>> {
    return this.send('PATCH', `${entity}/${id}`, { values }, version);
  }

  remove(entity: string, id: string, version: string): Promise<Reply<WrittenRecord>> {
    return this.send('DELETE', `${entity}/${id}`, undefined, version);
  }

  act(entity: string, id: string, action: string, version: string): Promise<Reply<WrittenRecord>> {
    return this.send('POST', `${entity}/${id}/actions/${action}`, {}, version);
  }

  /** Records that have these words, of those that the viewer may see. Throws what the server says where it refuses. */
  async search(entity: string, q: string): Promise<readonly Option[]> {
    const found = await this.send<{ records: readonly { id: string; label?: string }[] }>(
      'GET',
      entity,
      undefined,
      undefined,
      `q=${encodeURIComponent(q)}&size=12`,
    );
    if (!found.ok) throw new Error(found.detail);
    return found.value.records.flatMap(({ id, label }) => (label ? [{ id, label }] : []));
  }

  private async send<T>(
    method: string,
    path: string,
    body?: unknown,
    version?: string,
    more = '',
  ): Promise<Reply<T>> {
    const query = [this.query, more].filter(Boolean).join('&');
    return ask<T>(`${this.base}/${path}${query && `?${query}`}`, {
      method,
      headers: {
        ...(body !== undefined && { 'Content-Type': 'application/json' }),
        ...(version !== undefined && { 'If-Match': `"${version}"` }),
      },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
  }
}

interface ProblemDetails {
  readonly detail?: string;
  readonly errors?: readonly { readonly field: string; readonly detail: string }[];
}

/** Sends a request and reads its answer, or its problem details in words. */
export async function ask<T>(url: string, init: RequestInit): Promise<Reply<T>> {
  try {
    const response = await fetch(url, init);
    const text = await response.text();
    const body: unknown = text ? JSON.parse(text) : undefined;
    if (response.ok) return { ok: true, value: body as T };
    const { detail, errors = [] } = (body ?? {}) as ProblemDetails;
    const fields = Object.fromEntries(errors.map((one) => [one.field, one.detail]));
    return { ok: false, detail: detail ?? 'The server refused this.', fields };
  } catch {
    return { ok: false, detail: 'The server cannot be reached. Nothing was changed; try again.', fields: {} };
  }
}
