import type { Id } from '../model/id';
import type { Value, Values } from '../model/value';

/** True, false, or cannot tell. */
export type Truth = boolean | undefined;

/** Does a record's field equal a constant? The one comparison that a list's fixed filter needs. */
export interface Condition {
  readonly field: Id;
  readonly equals: Value;
}

/**
 * Whether the condition holds for a record. A missing value cannot be told. Never throws.
 * Decimals are stored in one plain form, so equal numbers are equal texts.
 */
export function evaluate(condition: Condition, values: Values): Truth {
  const value = values[condition.field];
  if (value === null || value === undefined || typeof value !== typeof condition.equals) return undefined;
  return value === condition.equals;
}
