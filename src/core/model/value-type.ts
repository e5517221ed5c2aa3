import type { Id } from './id';

/** A stored value. Decimals are strings, dates are `YYYY-MM-DD`, a pointed-to record is its id. */
export type Value = string | boolean;

/** The fields of one record by field id. A field that is not here, or null, is empty. */
export type Values = Readonly<Record<Id, Value | null>>;

export type ValueType =
  | { readonly kind: 'text'; readonly long?: boolean }
  | { readonly kind: 'number'; readonly decimals: number }
  | { readonly kind: 'money' }
  | { readonly kind: 'date' }
  | { readonly kind: 'boolean' }
  | { readonly kind: 'choice'; readonly options: readonly ChoiceOption[] }
  | { readonly kind: 'record'; readonly entity: Id }
  | { readonly kind: 'unit' };

export interface ChoiceOption {
  readonly id: Id;
  readonly name: string;
  /** Options that are no more, and whose records have this one. */
  readonly merged?: readonly Id[];
}
