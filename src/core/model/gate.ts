import type { Condition } from '../condition/condition';
import type { Id } from './id';
import { sameJson } from './same-json';

/** Whom a line speaks of. A role means the role and all that include it, unless `exactly`: assigned directly. */
export type Who =
  | { readonly kind: 'everyone' }
  | { readonly kind: 'signed-out' }
  | { readonly kind: 'signed-in' }
  | { readonly kind: 'role'; readonly role: Id; readonly exactly?: boolean }
  | { readonly kind: 'privilege'; readonly privilege: Id }
  | { readonly kind: 'group'; readonly group: Id }
  /** People whose home is in the unit, or below it. */
  | { readonly kind: 'unit'; readonly unit: Id }
  | { readonly kind: 'person'; readonly person: Id };

/** What a line does: give a level, cap it, or take it away. */
export type What = 'see' | 'edit' | 'at-most-see' | 'block';

/** One line of a gate. */
export interface Line {
  readonly id: Id;
  readonly who: Who;
  readonly what: What;
  readonly when?: Condition;
}

/**
 * A gate with lines of its own. An element without a gate follows its container
 * (a door of data without one follows the screens). A gate with no lines left gives nobody.
 */
export interface Gate {
  readonly lines: readonly Line[];
}

/** Does the line give something, rather than take it away? */
export const gives = ({ what }: Pick<Line, 'what'>): boolean => what === 'see' || what === 'edit';

/** Do the two lines say the same, whatever the order of their parts? */
export const sameLine = (a: Line, b: Line): boolean =>
  a.id === b.id && a.what === b.what && sameWho(a.who, b.who) && sameJson(a.when, b.when);

export const sameWho = (a: Who, b: Who): boolean => sameJson(plain(a), plain(b));

/** `exactly: false` says what a role line says without it. */
const plain = (who: Who): Who =>
  who.kind === 'role' && !who.exactly ? { kind: 'role', role: who.role } : who;

/** Are the two lists of lines the same, in order? */
export const sameLines = (a: readonly Line[], b: readonly Line[]): boolean =>
  a.length === b.length && a.every((line, i) => sameLine(line, b[i] as Line));
