import type { Id } from './id';

/** Whom a line speaks of. A role means the role and all that include it, unless `exactly`: assigned directly. */
export type Who =
  | { readonly kind: 'everyone' }
  | { readonly kind: 'signed-out' }
  | { readonly kind: 'signed-in' }
  | { readonly kind: 'role'; readonly role: Id; readonly exactly?: boolean }
  | { readonly kind: 'person'; readonly person: Id };

/** What a line does: give a level, cap it, or take it away. */
export type What = 'see' | 'edit' | 'at-most-see' | 'block';

/** One line of a gate. */
export interface Line {
  readonly id: Id;
  readonly who: Who;
  readonly what: What;
}

/**
 * A gate with lines of its own. An element without a gate follows its container
 * (a door of data without one follows the screens). A gate with no lines left gives nobody.
 */
export interface Gate {
  readonly lines: readonly Line[];
}

/** Does the line give something, rather than take it away? */
export const gives = (line: Line): boolean => line.what === 'see' || line.what === 'edit';

/** Do the two lines say the same, whatever their ids and the order of their parts? */
export function sameLine(a: Line, b: Line): boolean {
  return a.id === b.id && a.what === b.what && sameWho(a.who, b.who);
}

export function sameWho(a: Who, b: Who): boolean {
  if (a.kind === 'role' && b.kind === 'role')
    return a.role === b.role && (a.exactly ?? false) === (b.exactly ?? false);
  if (a.kind === 'person' && b.kind === 'person') return a.person === b.person;
  return a.kind === b.kind;
}

/** Are the two lists of lines the same, in order? */
export function sameLines(a: readonly Line[], b: readonly Line[]): boolean {
  return a.length === b.length && a.every((line, i) => sameLine(line, b[i] as Line));
}
