import type { Id } from '../model/id';
import type { Value } from '../model/value-type';
import type { Operator } from './operators';

/** True, false, or cannot tell. */
export type Truth = boolean | undefined;

/**
 * What must hold: a tree of *all of*, *any of*, *not* over comparisons. It names things by id; its text
 * form (print.ts, parse.ts) names them as builders do, and the two turn into each other without loss.
 */
export type Condition =
  | { readonly all: readonly Condition[] }
  | { readonly any: readonly Condition[] }
  | { readonly not: Condition }
  | Comparison
  | { readonly empty: Operand }
  /** From the one to the other, both included. */
  | { readonly between: Operand; readonly from: Operand; readonly to: Operand }
  | { readonly oneOf: Operand; readonly values: readonly Value[] }
  /** Is the unit the other one, or below it? */
  | { readonly inUnit: Operand; readonly unit: Operand }
  | { readonly hasRole: Id; readonly exactly?: boolean; readonly held?: HeldWhere }
  | { readonly hasPrivilege: Id; readonly held?: HeldWhere }
  | { readonly inGroup: Id }
  /** A named condition of the definition. */
  | { readonly meets: Id }
  /** A condition that code registers (registered.ts). */
  | { readonly call: string; readonly with: readonly Operand[] };

/**
 * Where a role or a privilege must be held, whatever the record: without a limit to a unit, or at least in some
 * unit. Where nothing is said, for the record's unit.
 */
export const HELD_WHERE = ['everywhere', 'anywhere'] as const;
export type HeldWhere = (typeof HELD_WHERE)[number];

export interface Comparison {
  readonly compare: Operator;
  readonly left: Operand;
  readonly right: Operand;
  /** Texts: are capital and small letters the same? */
  readonly anyCase?: boolean;
}

/** What a comparison looks at. */
export type Operand =
  /** An attribute of the viewer: `name`, `email`, `home_unit`, or the builder's own. */
  | { readonly user: Id }
  /** A field of the record, or of the record that its field `through` points to. */
  | { readonly record: Id; readonly through?: Id }
  | { readonly session: Id }
  | { readonly clock: ClockReading; /** For today: so many days later. */ readonly plus?: number }
  /** A constant, in the plain form of the type that it is compared with. */
  | { readonly value: Value };

/** Readings of the clock, in the application's time zone. */
export const CLOCK_READINGS = ['now', 'today', 'time', 'weekday', 'day'] as const;
export type ClockReading = (typeof CLOCK_READINGS)[number];

/** The attributes that every person has. */
export const BUILT_IN_ATTRIBUTES = [
  { id: 'name', name: 'Name', type: { kind: 'text' } },
  { id: 'email', name: 'Email', type: { kind: 'text' } },
  { id: 'home_unit', name: 'Home unit', type: { kind: 'unit' } },
] as const;

/** The conditions directly within this one. */
export function partsOf(condition: Condition): readonly Condition[] {
  if ('all' in condition) return condition.all;
  if ('any' in condition) return condition.any;
  return 'not' in condition ? [condition.not] : [];
}

/** The operands that the condition itself looks at, without those of its parts. */
export function operandsOf(condition: Condition): readonly Operand[] {
  if ('compare' in condition) return [condition.left, condition.right];
  if ('empty' in condition) return [condition.empty];
  if ('between' in condition) return [condition.between, condition.from, condition.to];
  if ('oneOf' in condition) return [condition.oneOf];
  if ('inUnit' in condition) return [condition.inUnit, condition.unit];
  return 'call' in condition ? condition.with : [];
}

/** The condition and all within it, itself first. */
export function allWithin(condition: Condition): Condition[] {
  return [condition, ...partsOf(condition).flatMap(allWithin)];
}
