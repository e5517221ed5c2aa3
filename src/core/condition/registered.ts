import type { Type } from './type';

/** A comparable value as conditions see it; undefined where it is missing. */
export type Comparable = string | boolean | undefined;

/**
 * A condition that is written in code. To add one: describe it here, and, since it may be asked of a
 * record, say in `src/server/records/registered.ts` how PostgreSQL works it out. `decide` is only called
 * with values that are there; one that is missing makes the answer *cannot tell*. It must not throw.
 */
export interface Registered {
  readonly name: string;
  /** What it says, for the list that builders pick from. */
  readonly about: string;
  readonly takes: readonly { readonly name: string; readonly type: Type }[];
  decide(values: readonly (string | boolean)[]): boolean;
}

/** Is the first date in the same month of the year as the second? For anniversaries and yearly checks. */
const sameMonth: Registered = {
  name: 'same_month',
  about: 'both dates are in the same month, in any year',
  takes: [
    { name: 'a date', type: { kind: 'date' } },
    { name: 'another date', type: { kind: 'date' } },
  ],
  decide: ([a, b]) => String(a).slice(5, 7) === String(b).slice(5, 7),
};

export const REGISTERED: readonly Registered[] = [sameMonth];

export const registered = (name: string): Registered | undefined =>
  REGISTERED.find((one) => one.name === name);
