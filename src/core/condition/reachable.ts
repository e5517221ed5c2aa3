import type { Definition } from '../model/definition';
import type { Id } from '../model/id';
import type { Value, Values } from '../model/value-type';
import type { Literal } from '../model/values/kind';
import { bind, constant, type Facts } from './bind';
import { clocksFor } from './clocks';
import { constantsFor } from './constants';
import { operandsOf, type Condition, type Operand } from './condition';
import { addDays } from './clock';
import { holds } from './formula';
import { operatorKind } from './operators';
import { comparedKind, listedOf, typeOf, type Scope, type Type } from './type';

/** Which answers a condition can have, apart from *cannot tell*. */
export interface Reachable {
  readonly isTrue: boolean;
  readonly isFalse: boolean;
  /** What a record can hold for it to be so, by field; `behind` is of the record that a field points to. */
  readonly whenTrue?: Witness;
  readonly whenFalse?: Witness;
}

export interface Witness {
  readonly record: Values;
  readonly behind: Readonly<Record<Id, Values>>;
}

/** So many combinations of values are tried; of a condition that has more, nothing is told. */
const MOST_TRIED = 20_000;
/** So many constants a text may be compared with, for all ways in which they could follow each other to be tried. */
const MOST_TEXTS = 3;
/** Of a type with more listed values than this, nothing is told. */
const MOST_LISTED = 100;

/**
 * Which answers the condition can have at all, whoever asks, on whatever record, whenever: found by trying the values
 * on both sides of each constant in it, in all combinations, and times that there really are. What compares two values
 * with each other, or asks for a role, may be answered either way, so "can be" may be said too often, and "cannot be"
 * never wrongly. Undefined where there would be too much to try. From a day on (`YYYY-MM-DD`, in the application's time
 * zone), where it is given: what is over can no longer be.
 */
export function reachable(scope: Scope, condition: Condition, from?: string): Reachable | undefined {
  const { definition, entity } = scope;
  const { attributes, sessionValues, units, groups, conditions, entities, timeZone } = definition;
  const asks = [entity, attributes, sessionValues, units, groups, conditions, entities, timeZone, from];
  const found = known.get(condition);
  // An edit leaves what it does not change as it is, the very same.
  if (found && asks.every((one, n) => one === found.asks[n])) return found.answers;
  const answers = tried(scope, condition, from);
  known.set(condition, { asks, answers });
  return answers;
}

const known = new WeakMap<
  Condition,
  { readonly asks: readonly unknown[]; readonly answers: Reachable | undefined }
>();

function tried(scope: Scope, condition: Condition, from: string | undefined): Reachable | undefined {
  const { condition: plain, free } = plainly(scope.definition, condition);
  const asked = questionsIn(plain);
  const domains = new Map<string, Domain>();
  const clocks = clocksFor(scope.definition.timeZone, asked, from);
  for (const question of asked)
    for (const operand of operandsOf(question)) {
      if ('value' in operand || 'clock' in operand) continue;
      const values = valuesFor(scope, operand, asked);
      if (!values) return undefined;
      domains.set(keyOf(operand), { operand, values });
    }
  for (const id of free)
    domains.set(`session ${id}`, { operand: { session: id }, values: ['yes', 'no', null] });
  const all = [...domains.values()];
  const count = all.reduce((product, { values }) => product * values.length, clocks.length);
  if (count > MOST_TRIED) return undefined;
  let [whenTrue, whenFalse]: (Witness | undefined)[] = [];
  for (const clock of clocks)
    for (let n = 0; n < count / clocks.length && !(whenTrue && whenFalse); n++) {
      const values = valuesAt(all, n);
      const truth = truthOf(scope, plain, clock, values);
      if (truth === true) whenTrue ??= witnessOf(values);
      if (truth === false) whenFalse ??= witnessOf(values);
    }
  return {
    isTrue: whenTrue !== undefined,
    isFalse: whenFalse !== undefined,
    ...(whenTrue && { whenTrue }),
    ...(whenFalse && { whenFalse }),
  };
}

/** What the record holds in a combination of values. */
function witnessOf(values: ReadonlyMap<Domain, Value | null>): Witness {
  const record: Written = {};
  const behind: Record<Id, Written> = {};
  for (const [{ operand }, value] of values) {
    if (!('record' in operand)) continue;
    if (operand.through === undefined) record[operand.record] = value;
    else (behind[operand.through] ??= {})[operand.record] = value;
  }
  return { record, behind };
}

interface Domain {
  readonly operand: Exclude<Operand, { value: unknown } | { clock: unknown }>;
  readonly values: readonly (Value | null)[];
}

const keyOf = (operand: Domain['operand']): string =>
  'user' in operand
    ? `user ${operand.user}`
    : 'session' in operand
      ? `session ${operand.session}`
      : `record ${operand.through ?? ''} ${operand.record}`;

/** The condition with what it names put in, and with free answers for what cannot be tried. */
function plainly(
  definition: Definition,
  condition: Condition,
): { readonly condition: Condition; readonly free: readonly string[] } {
  const free = new Map<string, string>();
  const freely = (one: Condition): Condition => {
    const key = JSON.stringify(one);
    const id = free.get(key) ?? `free ${free.size}`;
    free.set(key, id);
    return { compare: '=', left: { session: id }, right: { value: 'yes' } };
  };
  const plain = (one: Condition, within: readonly string[]): Condition => {
    if ('all' in one) return { all: one.all.map((part) => plain(part, within)) };
    if ('any' in one) return { any: one.any.map((part) => plain(part, within)) };
    if ('not' in one) return { not: plain(one.not, within) };
    const id = 'inGroup' in one ? one.inGroup : 'meets' in one ? one.meets : undefined;
    const named =
      id !== undefined && !within.includes(id)
        ? [...definition.groups, ...definition.conditions].find((each) => each.id === id)
        : undefined;
    if (named && id !== undefined) return plain(named.condition, [...within, id]);
    return canBeTried(one) ? one : onOneSide(one, freely);
  };
  const made = plain(condition, []);
  return { condition: made, free: [...free.values()] };
}

/** A comparison of two values as one of `=` and `<`, so that what says the opposite is its opposite. */
function onOneSide(one: Condition, freely: (plain: Condition) => Condition): Condition {
  if (!('compare' in one)) return freely(one);
  const { test, turned, not } = operatorKind(one.compare);
  const [left, right] = turned ? [one.right, one.left] : [one.left, one.right];
  // That one is at most another says that the other is not less.
  const is: Condition =
    test === '<='
      ? { not: freely({ ...one, compare: '<', left: right, right: left }) }
      : freely({ ...one, compare: test, left, right });
  return not ? { not: is } : is;
}

/** Does it look at one value, beside constants? */
function canBeTried(one: Condition): boolean {
  if ('call' in one || operandsOf(one).length === 0) return false;
  return operandsOf(one).filter((operand) => !('value' in operand)).length === 1;
}

/** The questions that look at a value, however they are joined. */
function questionsIn(condition: Condition): Condition[] {
  if ('all' in condition) return condition.all.flatMap(questionsIn);
  if ('any' in condition) return condition.any.flatMap(questionsIn);
  if ('not' in condition) return questionsIn(condition.not);
  const free = operandsOf(condition).some((one) => 'session' in one && one.session.startsWith('free '));
  return free ? [] : [condition];
}

/** Values of the operand on both sides of each constant, and none; undefined where there are too many. */
function valuesFor(
  scope: Scope,
  operand: Domain['operand'],
  asked: readonly Condition[],
): (Value | null)[] | undefined {
  const type = typeOf(scope, operand);
  const constants = constantsFor(operand, asked);
  const values = type && sidesOf(scope, type, constants);
  return values && [...new Set<Value | null>([...values, null])];
}

function sidesOf({ definition }: Scope, type: Type, constants: readonly string[]): Value[] | undefined {
  const kind = comparedKind(type);
  if (kind.form === 'boolean') return [true, false];
  if (!kind.listed) return SIDES[kind.literal](constants, kind.places?.(type) ?? 0);
  const all = listedOf(definition, type).map(({ id }) => id);
  return all.length > MOST_LISTED ? undefined : all;
}

type Sides = (constants: readonly string[], places: number) => Value[] | undefined;

const andAnother: Sides = (constants) => [...constants, 'another'];

/** Values on both sides of constants that are written so. */
const SIDES: Readonly<Record<Literal, Sides>> = {
  number: aroundNumbers,
  date: (constants) =>
    constants.length === 0
      ? ['2026-01-01']
      : constants.flatMap((date) => [addDays(date, -1), date, addDays(date, 1)]),
  string: (constants) => (constants.length > MOST_TEXTS ? undefined : aroundTexts(constants)),
  time: andAnother,
  moment: andAnother,
  weekday: andAnother,
  truth: andAnother,
  name: andAnother,
  id: andAnother,
};

/** So many places after the point a decimal has at most. */
const PLACES = 10;

/** Each number, and the nearest on both sides that there can be: exact, however long they are. */
function aroundNumbers(constants: readonly string[], decimals: number): string[] {
  if (constants.length === 0) return ['0'];
  const step = 10n ** BigInt(PLACES - Math.min(decimals, PLACES));
  return constants.flatMap((one) => {
    const at = scaled(one);
    return [unscaled(at - step), one, unscaled(at + step)];
  });
}

function scaled(decimal: string): bigint {
  const [whole = '0', part = ''] = decimal.split('.');
  return BigInt(whole + part.padEnd(PLACES, '0').slice(0, PLACES));
}

function unscaled(n: bigint): string {
  const digits = (n < 0n ? -n : n).toString().padStart(PLACES + 1, '0');
  return `${n < 0n ? '-' : ''}${digits.slice(0, -PLACES)}.${digits.slice(-PLACES)}`;
}

/** Each text, in capitals and in small letters, and all ways in which some of them follow each other. */
function aroundTexts(constants: readonly string[]): string[] {
  const texts = new Set<string>(['', '~', ...constants]);
  const follow = (text: string, left: readonly string[]): void => {
    for (const join of ['', '~'])
      for (const one of left) {
        const longer = text + join + one;
        for (const end of [longer, `${longer}~`]) texts.add(end);
        follow(
          longer,
          left.filter((other) => other !== one),
        );
      }
  };
  follow('', constants);
  for (const text of [...texts]) for (const one of [text.toUpperCase(), text.toLowerCase()]) texts.add(one);
  return [...texts];
}

/** The n-th combination of values. */
function valuesAt(domains: readonly Domain[], n: number): ReadonlyMap<Domain, Value | null> {
  let rest = n;
  return new Map(
    domains.map((domain) => {
      const value = domain.values[rest % domain.values.length] ?? null;
      rest = Math.floor(rest / domain.values.length);
      return [domain, value] as const;
    }),
  );
}

type Written = Record<string, Value | null>;

function truthOf(
  scope: Scope,
  condition: Condition,
  clock: Facts['clock'],
  values: ReadonlyMap<Domain, Value | null>,
): boolean | undefined {
  const user: Written = {};
  const session: Written = {};
  const record: Written = {};
  const behind: Written = {};
  for (const [{ operand }, value] of values) {
    if ('user' in operand) user[operand.user] = value;
    else if ('session' in operand) session[operand.session] = value;
    else if (operand.through === undefined) record[operand.record] = value;
    else {
      record[operand.through] ??= 'there';
      behind[operand.record] = value;
    }
  }
  const facts: Facts = {
    definition: scope.definition,
    signedIn: true,
    user,
    session,
    notKnown: [],
    unknown: 'against',
    clock,
    hasRole: () => constant(undefined),
    hasPrivilege: () => constant(undefined),
  };
  const entity = scope.entity ?? { id: '', name: '', plural: '', labelField: '', fields: [], actions: [] };
  const on = { entity, values: record, lookUp: () => behind };
  const is = (must: 'be true' | 'be false'): boolean => holds(bind(facts, scope, condition, must), on);
  return is('be true') ? true : is('be false') ? false : undefined;
}
