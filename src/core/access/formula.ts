import { evaluate, type Condition } from '../condition/condition';
import type { Values } from '../model/value';

/**
 * What must hold of a record for a viewer to get something, once all that is known of the viewer is
 * folded in. Two-valued: a leaf holds only where its condition is *surely* so, and doubt is closed.
 */
export type Formula =
  | boolean
  | { readonly all: readonly Formula[] }
  | { readonly any: readonly Formula[] }
  | { readonly surely: Condition };

/** All of them, folded: constants vanish, and what is left is as small as it was given. */
export function all(...parts: readonly Formula[]): Formula {
  if (parts.includes(false)) return false;
  const open = parts.filter((part) => part !== true);
  return open.length === 0 ? true : open.length === 1 ? (open[0] as Formula) : { all: open };
}

/** Any of them, folded. */
export function any(...parts: readonly Formula[]): Formula {
  if (parts.includes(true)) return true;
  const open = parts.filter((part) => part !== false);
  return open.length === 0 ? false : open.length === 1 ? (open[0] as Formula) : { any: open };
}

export const surely = (condition: Condition | undefined): Formula =>
  condition === undefined ? true : { surely: condition };

/** Does the formula hold for a record with these values? */
export function holds(formula: Formula, values: Values): boolean {
  if (typeof formula === 'boolean') return formula;
  if ('all' in formula) return formula.all.every((part) => holds(part, values));
  if ('any' in formula) return formula.any.some((part) => holds(part, values));
  return evaluate(formula.surely, values) === true;
}
