'use client';

import type { liveRecords } from '@/contract/live';
import type { lookRecords } from '@/contract/studio/look';
import type {
  BeforeSaving,
  BulkChange,
  Choice,
  RecordDone,
  RecordSent,
  SentRecord,
} from '@/contract/records';
import { type Reply, send } from '@/ui/client/send';
import type { Route } from '@/contract/route';
import { useNeeded } from '../parts/need-context';
import type { Value } from '@/core/model';
import { createContext } from 'react';

/** A record as it was written: it, or that it is done or sent, where its writer does not see it. */
export type WrittenRecord = SentRecord | RecordSent | RecordDone;

export interface Option {
  readonly id: string;
  readonly label: string;
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
      }) => Promise<Reply<BeforeSaving>>)
    | undefined;
  /** Where a list is to be had as a file, with its search, filter and sort; undefined on the canvas. */
  readonly exportHref: (list: string, query: string) => string | undefined;
  /** All that can be chosen of a list for a bulk change, with its search and filter; undefined on the canvas. */
  readonly choices: ((list: string, query: string) => Promise<Reply<readonly Choice[]>>) | undefined;
  /** Changes the same fields of several records of a list. */
  readonly bulk: (list: string, change: BulkChange) => Promise<Reply<{ readonly changed: number }>>;
  /** Lets somebody who may open a locked element sign in over it. Undefined where nobody may. */
  readonly unlock: ((asked: UnlockAsked) => Promise<Reply<{ readonly minutes: number }>>) | undefined;
  /** Locks again what was unlocked. */
  readonly lockAgain?: (what: Pick<UnlockAsked, 'element' | 'record'>) => Promise<Reply<unknown>>;
  /** Sends the builders a note that one should see this; undefined where that makes no sense. */
  readonly note: ((note: NoteSent) => Promise<Reply<unknown>>) | undefined;
  /** The application whose people are looked after; undefined on the canvas. */
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

/** The routes of the records of a released application, or of those on the studio's canvas and in its panes. */
type RecordsRoutes = {
  readonly [Name in keyof typeof liveRecords]: Either<(typeof liveRecords)[Name], (typeof lookRecords)[Name]>;
};
/** Of two routes that are sent and answer the same. */
type Either<A, B> =
  A extends Route<infer One, unknown, infer Sends, infer Reads, infer Answer>
    ? B extends Route<infer Other, unknown, Sends, Reads, Answer>
      ? Route<One | Other, unknown, Sends, Reads, Answer>
      : never
    : never;

type Written = Readonly<Record<string, Value | null>>;

/** Talks to a records API. Every write names the version that its writer has seen. */
export class RecordsClient {
  constructor(
    private readonly routes: RecordsRoutes,
    private readonly app: string,
    private readonly query = '',
  ) {}

  create(entity: string, values: Written): Promise<Reply<WrittenRecord>> {
    return send(this.routes.create, { ...this.at(entity), body: { values } });
  }

  update(entity: string, id: string, version: string, values: Written): Promise<Reply<WrittenRecord>> {
    return send(this.routes.update, { ...this.at(entity), id, body: { values } }, { version });
  }

  remove(entity: string, id: string, version: string): Promise<Reply<undefined>> {
    return send(this.routes.delete, { ...this.at(entity), id }, { version });
  }

  act(entity: string, id: string, action: string, version: string): Promise<Reply<WrittenRecord>> {
    return send(this.routes.act, { ...this.at(entity), id, action }, { version });
  }

  /** Records that have these words, of those that the viewer may see. Throws what the server says where it refuses. */
  async search(entity: string, q: string): Promise<readonly Option[]> {
    const query = [this.query, `q=${encodeURIComponent(q)}&size=12`].filter(Boolean).join('&');
    const found = await send(this.routes.list, { app: this.app, entity, query });
    if (!found.ok) throw new Error(found.detail);
    return found.value.records.flatMap(({ id, label }) => (label ? [{ id, label }] : []));
  }

  private at(entity: string) {
    return { app: this.app, entity, query: this.query };
  }
}
