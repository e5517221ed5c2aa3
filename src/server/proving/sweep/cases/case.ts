import { accessOf } from '@/core';
import { EDIT, type Access, type KnownRecord } from '@/core/access';
import type { AppElement, Entity, Id, Values } from '@/core/model';
import type { Predicted, Predictor } from '@/core/sweep';
import type { Asking } from '../asker';
import type { Copy } from '../copy';

/** What is done by a request that must be carried out. */
export interface RequestedChange {
  /** The records that are changed by it, as they are then; taken away where undefined. */
  readonly becomes?: ReadonlyMap<Id, KnownRecord | undefined>;
  /** The record that is made. */
  readonly makes?: KnownRecord;
  /** What the answer carries, and what may be known then. */
  readonly predicted?: Predicted;
  readonly by: Predictor;
}

interface Request {
  readonly asking: Asking;
  readonly about?: Id | undefined;
  /** It must be answered in the very words of all that have the same `to`, but for this id: what is hidden is as what is not there. */
  readonly alike?: { readonly to: string; readonly but: Id };
}

/** A request that reads, and what should come of it. A part has nothing but what the page has, and need not have all of it. */
export interface Reading extends Request {
  readonly reads: 'page' | 'api' | 'part';
  readonly predicted: Predicted;
}

/** A request that must be carried out, and nothing else. */
export interface ChangeRequest extends Request {
  readonly does: RequestedChange;
  /** What is only so, or has to be put back, once it is done. */
  readonly then?: readonly ChangeRequest[];
  /** It changes what the session holds: that is put back after it. */
  readonly setsSession?: true;
  /** The record is written to by somebody else before, and its version is another one then, or not, as they may see. */
  readonly meanwhile?: { readonly record: KnownRecord; readonly version: 'same' | 'another' };
}

/** One request, and what should come of it. */
export type Case =
  | Reading
  /** This viewer may not do this: it must be refused. */
  | (Request & {
      readonly refused: true;
      /** Why, in words, where that is not plain from the request. */
      readonly since?: string;
    })
  | ChangeRequest
  /** Whatever it answers: nothing may be in it that they may not know. */
  | (Request & { readonly tells: 'what may be known' });

/** What cases are worked out from, for one viewer. */
export interface SweepContext {
  readonly copy: Copy;
  readonly access: Access;
  readonly predictor: Predictor;
  readonly records: readonly KnownRecord[];
  readonly signedOut: boolean;
  /** The place in the copy's people of who is asked as, as themselves. */
  readonly self?: number | undefined;
  /** Is nothing left out for being like another case? */
  readonly whole: boolean;
  /** These cases about a topic, unless all that decides here was asked about as somebody else, each with what the main elements give. */
  readonly once: (
    topic: Id,
    main: readonly AppElement[],
    elements: readonly AppElement[],
    cases: () => Iterable<Case>,
  ) => Iterable<Case>;
}

export type ScreenElement = Extract<AppElement, { kind: 'screen' }>;

/** One of each sort; all of them where nothing is left out. */
export function ofEachSort<T>(
  { whole }: SweepContext,
  all: readonly T[],
  sortOf: (one: T) => string,
): readonly T[] {
  if (whole) return all;
  const sorts = new Map<string, T>();
  for (const one of all) {
    const sort = sortOf(one);
    if (!sorts.has(sort)) sorts.set(sort, one);
  }
  return [...sorts.values()];
}

/** What the viewer gets on a screen's record of each of these, as a text. */
export const levelsOn = (
  { access }: SweepContext,
  elements: readonly AppElement[],
  record: KnownRecord,
): string =>
  elements
    .map((element) => {
      const isInList = element.kind === 'list' || element.list !== undefined;
      return access.level(element, isInList ? undefined : record, record);
    })
    .join('');

/** What the viewer is sent once their session holds these too; null takes one away. */
export function withSession({ access, predictor }: SweepContext, set: Values): Predictor {
  const { compiled, held } = access;
  const all = Object.entries({ ...held.circumstances.session, ...set });
  const session = Object.fromEntries(all.filter(([, value]) => value !== null));
  return predictor.with(accessOf(compiled, held.viewer, { ...held.circumstances, session }));
}

/** The id of what there is nowhere. */
export const MISSING_ID = 'zinc-none-such';

export const base = ({ slug }: Copy): string => `/live/${slug}`;

/** The doors of a kind of data: its records, what they hold and what can be done with them. */
export const doorsOf = ({ access }: SweepContext, { id, fields, actions }: Entity): AppElement[] =>
  [id, ...[...fields, ...actions].map((one) => one.id)].map((one) => access.element(one));

/** May this viewer use it, on the record? */
export const may = ({ access }: SweepContext, id: Id, record?: KnownRecord): boolean =>
  access.level(access.element(id), record) === EDIT;

export const recordsOf = ({ records }: SweepContext, entity: Id): KnownRecord[] =>
  records.filter((record) => record.entity.id === entity);

/** The record, where it is open to the viewer. */
export const isOpen = ({ access }: SweepContext, record: KnownRecord): boolean =>
  access.level(access.element(record.entity.id), record) > 0;
