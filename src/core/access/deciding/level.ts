import type { ElementKind } from '../../model/tree';

/** How much a viewer gets of an element: none, see or edit. Numbers, so that they compare. */
export type Level = 0 | 1 | 2;

export const NONE: Level = 0;
export const SEE: Level = 1;
export const EDIT: Level = 2;

/**
 * The answer where the record is not known: what every record gives at least, and what some record
 * could give. Where the two differ, the interface says "depends".
 */
export interface Answer {
  readonly least: Level;
  readonly most: Level;
}

export const sameAnswer = (a: Answer, b: Answer): boolean => a.least === b.least && a.most === b.most;

/** A column, a chart and a text only show: whether the data could be edited elsewhere makes no difference to them. */
export function seenOf(kind: ElementKind, { least, most }: Answer): Answer {
  if (kind !== 'column' && kind !== 'text' && kind !== 'chart') return { least, most };
  return { least: Math.min(least, SEE) as Level, most: Math.min(most, SEE) as Level };
}
