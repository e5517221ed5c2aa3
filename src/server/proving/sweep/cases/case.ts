import { accessOf } from '@/core';
import { EDIT, type Access, type KnownRecord } from '@/core/access';
import type { Id, Values } from '@/core/model';
import type { Predicted, Predictor } from '@/core/sweep';
import type { Asking } from '../asker';
import type { Copy } from '../copy';

/** What is done by a request that must be carried out. */
export interface Doing {
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
export interface Deed extends Request {
  readonly does: Doing;
  /** What is only so, or has to be put back, once it is done. */
  readonly then?: readonly Deed[];
  /** It changes what the session holds: that is put back after it. */
  readonly setsSession?: true;
}

/** One request, and what should come of it. */
export type Case =
  | Reading
  /** This viewer may not do this: it must be refused. */
  | (Request & { readonly refused: true })
  | Deed
  /** Whatever it answers: nothing may be in it that they may not know. */
  | (Request & { readonly tells: 'what may be known' });

/** The request and all that should come of it, as a text: the same for two only where there is no difference. */
export function inFull(one: Case): string {
  const told = (expected: Predicted | undefined) =>
    expected && { ...expected, marks: [...expected.marks.keys()] };
  if ('reads' in one) return JSON.stringify([one.asking, told(one.predicted)]);
  if (!('does' in one)) return JSON.stringify([one.asking, 'refused' in one]);
  const { becomes, makes, predicted } = one.does;
  const values = [...(becomes ?? [])].map(([id, record]) => [id, record?.values ?? null]);
  return JSON.stringify([one.asking, values, makes?.values, told(predicted), one.then?.map(inFull)]);
}

/** What cases are worked out from, for one viewer. */
export interface Asked {
  readonly copy: Copy;
  readonly access: Access;
  readonly predictor: Predictor;
  readonly records: readonly KnownRecord[];
  readonly signedOut: boolean;
  /** The place in the copy's people of who is asked as, as themselves. */
  readonly self?: number | undefined;
}

/** What the viewer is sent once their session holds these too; null takes one away. */
export function withSession({ access, predictor }: Asked, set: Values): Predictor {
  const { compiled, held } = access;
  const all = Object.entries({ ...held.circumstances.session, ...set });
  const session = Object.fromEntries(all.filter(([, value]) => value !== null));
  return predictor.with(accessOf(compiled, held.viewer, { ...held.circumstances, session }));
}

/** The id of what there is nowhere. */
export const NONESUCH = 'zinc-none-such';

/** On so many records of a kind everything is tried that may be written, and all that may not. */
export const TRIED = 4;

export const base = ({ slug }: Copy): string => `/live/${slug}`;

/** May this viewer use it, on the record? */
export const may = ({ access }: Asked, id: Id, record?: KnownRecord): boolean =>
  access.level(access.element(id), record) === EDIT;

export const recordsOf = ({ records }: Asked, entity: Id): KnownRecord[] =>
  records.filter((record) => record.entity.id === entity);

/** The record, where it is open to the viewer. */
export const isOpen = ({ access }: Asked, record: KnownRecord): boolean =>
  access.level(access.element(record.entity.id), record) > 0;
