import type { Compiled } from '../../access/deciding/compile';
import { Grants } from '../../access/deciding/grants';
import { SIGNED_IN, type Circumstances, type Viewer } from '../../access/deciding/viewer';
import { bind, type Facts } from '../../condition/bind';
import { addDays, momentOf, readClock } from '../../condition/clock';
import { operandsOf, type ClockReading, type Condition, type Operand } from '../../condition/condition';
import { constantsFor } from '../../condition/constants';
import { allNamed } from '../../condition/named';
import type { Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import type { Values } from '../../model/value-type';

/** So many are looked at; where conditions ask for more times that are not alike, not all. */
const MOST = 150;
const MINUTE = 60_000;
/** Each weekday is among so many days; and each day of a month among so many. */
const [WEEK, TWO_MONTHS] = [7, 62];

/** One of the definitions that are compared, with the conditions in it that count. */
interface TimedSide {
  readonly definition: Definition;
  readonly conditions: readonly Condition[];
}

/**
 * Moments and sessions in which something could be otherwise that depends on them: each session value that is asked for
 * and can be set, and each time of day that a condition compares, just before and at it, on each day of a week (or of two
 * months, where the day of the month is asked for) and around each date that is asked for. Of moments that are alike to
 * all conditions, people and assignments, one is enough. The circumstances that one begins with are not among them.
 * The conditions are those of the older and of the newer definition that count.
 */
export function* otherTimes(
  { before, after }: { readonly before: Compiled; readonly after: Compiled },
  [old, now]: readonly [readonly Condition[], readonly Condition[]],
  { moment, session: own }: Circumstances,
  everybody: readonly { readonly viewer: Viewer }[],
): Generator<Circumstances> {
  const sides: readonly TimedSide[] = [
    { definition: before.definition, conditions: old },
    { definition: after.definition, conditions: now },
  ];
  const sessions: (Values | undefined)[] = [undefined, ...sides.flatMap(settableIn)];
  const moments = new Set([moment, ...sides.flatMap((one) => momentsIn(one, moment))]);
  const alike = alikeTo(sides, everybody);
  const seen = new Set<string>();
  let left = MOST;
  for (const at of moments) {
    const key = alike(at);
    if (seen.has(key)) continue;
    seen.add(key);
    for (const session of sessions) {
      if (at === moment && !session && !own) continue;
      if (left-- <= 0) return;
      yield { moment: at, ...(session && { session }) };
    }
  }
}

/** The conditions with all that they name. */
const partsOf = ({ definition, conditions }: TimedSide): Condition[] =>
  conditions.flatMap((one) => allNamed(definition, one));

const operandsIn = (side: TimedSide): Operand[] => partsOf(side).flatMap(operandsOf);

/** What a session could hold of what is asked for, one value at a time. */
function settableIn(side: TimedSide): Values[] {
  const asked = new Set(operandsIn(side).flatMap((one) => ('session' in one ? [one.session] : [])));
  return side.definition.sessionValues.flatMap(({ id, type }): Values[] => {
    if (!asked.has(id)) return [];
    if (type.kind === 'boolean') return [{ [id]: true }, { [id]: false }];
    return type.kind === 'choice' ? type.options.map((option) => ({ [id]: option.id })) : [];
  });
}

/** What a condition itself compares a reading of the clock with; of `today` plus some days, that many days before. */
function namedIn(condition: Condition, reading: ClockReading): string[] {
  return operandsOf(condition).flatMap((operand) => {
    if (!('clock' in operand) || operand.clock !== reading) return [];
    const named = constantsFor(operand, [condition]);
    return operand.plus ? named.map((one) => addDays(one, -(operand.plus ?? 0))) : named;
  });
}

/**
 * The times of day that conditions compare, and a minute before each, and this time of day: in the week from this moment
 * on, around the dates that conditions name, and in the two months in which each day of a month is, where that is asked for.
 * And the moments that conditions name, with a minute before each. What is likeliest to differ comes first.
 */
function momentsIn(side: TimedSide, moment: number): number[] {
  const { timeZone } = side.definition;
  const parts = partsOf(side);
  const readings = new Set(
    parts.flatMap(operandsOf).flatMap((operand) => ('clock' in operand ? [operand.clock] : [])),
  );
  if (readings.size === 0) return [];
  const named = (reading: ClockReading): string[] => [
    ...new Set(parts.flatMap((one) => namedIn(one, reading))),
  ];
  const times = named('time');
  const { today, time } = readClock(moment, timeZone);
  const at = (local: string): number[] => {
    const found = momentOf(local, timeZone);
    return Number.isNaN(found) ? [] : [found];
  };
  const before = (found: number): number[] => [found - MINUTE, found];
  const on = (day: string): number[] => [
    ...times.flatMap((one) => at(`${day}T${one}`).flatMap(before)),
    ...(day === today ? [] : at(`${day}T${time}`)),
  ];
  const days = (from: number, until: number): string[] =>
    Array.from({ length: until - from }, (_, n) => addDays(today, from + n));
  return [
    ...days(0, WEEK).flatMap(on),
    ...named('now').flatMap((one) => at(one).flatMap(before)),
    ...named('today').flatMap((date) => [0, -1, 1].flatMap((by) => on(addDays(date, by)))),
    ...(readings.has('day') ? days(WEEK, TWO_MONTHS).flatMap(on) : []),
  ];
}

/** So many different values of an attribute are compared with the clock one by one. */
const MOST_VALUES = 200;

/** What tells moments apart: the same for two of which no condition, no person and no assignment knows which it is. */
function alikeTo(
  sides: readonly TimedSide[],
  everybody: readonly { readonly viewer: Viewer }[],
): (moment: number) => string {
  const signedIn = everybody.flatMap(({ viewer }) => (viewer.kind === 'signed-in' ? [viewer] : []));
  const ends = new Set<number>();
  for (const { assignments } of signedIn)
    for (const { from, until } of assignments)
      for (const one of [from, until]) if (one !== undefined) ends.add(Date.parse(one));
  const bounds = [...ends];
  const valuesOf = (attribute: Id): Values[] =>
    [...new Set(signedIn.map(({ attributes }) => attributes?.[attribute] ?? null))].map((value) => ({
      [attribute]: value,
    }));
  const folds = sides.map(({ definition, conditions }) => new ClockFold(definition, conditions, valuesOf));
  return (moment) =>
    JSON.stringify([bounds.filter((one) => one <= moment).length, ...folds.map((fold) => fold.at(moment))]);
}

/** What is left of a condition once all that asks only for the time is folded in. */
type Folded = boolean | readonly unknown[];

/** Conditions with the time folded in: the same for moments that make no difference to them. */
class ClockFold {
  private readonly conditions: readonly Condition[];
  private readonly users = new Map<Id, readonly Values[]>();

  constructor(
    private readonly definition: Definition,
    conditions: readonly Condition[],
    private readonly valuesOf: (attribute: Id) => readonly Values[],
  ) {
    const distinct = new Map(conditions.map((one) => [JSON.stringify(one), one]));
    this.conditions = [...distinct.values()].filter((condition) =>
      allNamed(definition, condition).some((one) => operandsOf(one).some((operand) => 'clock' in operand)),
    );
  }

  at(moment: number): readonly Folded[] {
    const { facts } = new Grants(this.definition, SIGNED_IN, { moment });
    return this.conditions.map((one) => this.folded(one, facts, new Set()));
  }

  private folded(condition: Condition, facts: Facts, within: ReadonlySet<Id>): Folded {
    const inner = (one: Condition): Folded => this.folded(one, facts, within);
    if ('all' in condition) return joined(condition.all.map(inner), true);
    if ('any' in condition) return joined(condition.any.map(inner), false);
    if ('not' in condition) {
      const one = inner(condition.not);
      return typeof one === 'boolean' ? !one : ['not', one];
    }
    const { conditions, groups } = this.definition;
    const id =
      'meets' in condition ? condition.meets : 'inGroup' in condition ? condition.inGroup : undefined;
    if (id === undefined) return this.atom(condition, facts);
    const named = [...conditions, ...groups].find((one) => one.id === id);
    return named && !within.has(id) ? this.folded(named.condition, facts, new Set([...within, id])) : [];
  }

  private atom(condition: Condition, facts: Facts): Folded {
    const operands = operandsOf(condition);
    if (!operands.some((one) => 'clock' in one)) return [];
    const [attribute, ...others] = new Set(operands.flatMap((one) => ('user' in one ? [one.user] : [])));
    const users = attribute === undefined ? [{}] : this.usersBy(attribute);
    const isTried =
      !('call' in condition) &&
      others.length === 0 &&
      users.length <= MOST_VALUES &&
      !operands.some((one) => 'record' in one || 'session' in one);
    // What is compared with a record, say, counts itself.
    if (!isTried) return operands.map((one) => ('clock' in one ? facts.clock[one.clock] : null));
    const { definition } = this;
    const is = users.map(
      (user) => bind({ ...facts, user, notKnown: [] }, { definition }, condition, 'be true') === true,
    );
    return attribute === undefined ? is[0] === true : is;
  }

  private usersBy(attribute: Id): readonly Values[] {
    let found = this.users.get(attribute);
    if (!found) this.users.set(attribute, (found = this.valuesOf(attribute)));
    return found;
  }
}

/** All of these, or any: what decides is the whole, what does not is left out. */
function joined(all: readonly Folded[], isAll: boolean): Folded {
  if (all.includes(!isAll)) return !isAll;
  const left = all.filter((one) => one !== isAll);
  return left.length === 0 ? isAll : [isAll, ...left];
}
