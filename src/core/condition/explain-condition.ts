import type { RecordFacts } from './atom';
import { bind, type Facts } from './bind';
import { addDays } from './clock';
import { operandsOf, partsOf, type Condition, type Operand, type Truth } from './condition';
import { holds } from './formula';
import { operand, print } from './print';
import { constantInWords, entityFor, typeOf, type Scope, type Type } from './type';
import type { Values } from '../model/value-type';

/** One question of a condition, with its answer and what it was asked of. */
export interface ConditionStep {
  /** The question in the text form of conditions. */
  readonly question: string;
  /** Undefined: it cannot be told; a value is missing, or (`differs`) differs among a kind's people. */
  readonly answer: Truth;
  readonly differs?: true;
  /** What it looked at, and what was there: `weekday` is `Sunday`. Constants are left out. */
  readonly values: readonly { readonly name: string; readonly value: string }[];
}

/**
 * A condition's questions one by one, each with its answer for this viewer, moment and record, and with the
 * values that made it so. For people who may see those values. What asks of the record is left out where
 * none is known.
 */
export function explainCondition(
  facts: Facts,
  scope: Scope,
  condition: Condition,
  record: RecordFacts | undefined,
): ConditionStep[] {
  const parts = partsOf(condition);
  if (parts.length > 0) return parts.flatMap((one) => explainCondition(facts, scope, one, record));
  const inner = namedWithin(scope, condition);
  if (inner) return explainCondition(facts, scope, inner, record);
  const answer = answerOf(facts, scope, condition, record);
  if (answer === 'depends') return [];
  const values = operandsOf(condition).flatMap((one) => valueOf(facts, scope, one, record) ?? []);
  const differs = values.some((one) => one.value === NOT_KNOWN_YET);
  return [
    {
      question: print(scope, condition),
      answer: differs ? undefined : answer,
      ...(differs && { differs }),
      values,
    },
  ];
}

/** The condition that a name stands for. */
function namedWithin({ definition }: Scope, condition: Condition): Condition | undefined {
  if ('meets' in condition) return definition.conditions.find((one) => one.id === condition.meets)?.condition;
  if ('inGroup' in condition) return definition.groups.find((one) => one.id === condition.inGroup)?.condition;
  return undefined;
}

function answerOf(
  facts: Facts,
  scope: Scope,
  condition: Condition,
  record: RecordFacts | undefined,
): Truth | 'depends' {
  const [yes, no] = [bind(facts, scope, condition, 'be true'), bind(facts, scope, condition, 'be false')];
  if (!record && (typeof yes !== 'boolean' || typeof no !== 'boolean')) return 'depends';
  const is = (formula: typeof yes): boolean =>
    typeof formula === 'boolean' ? formula : record !== undefined && holds(formula, record);
  return is(yes) ? true : is(no) ? false : undefined;
}

/** What is told of an attribute or a session value of a kind of viewer. */
const NOT_KNOWN_YET = 'differs by person';

function valueOf(
  facts: Facts,
  scope: Scope,
  one: Operand,
  record: RecordFacts | undefined,
): ConditionStep['values'][number] | undefined {
  if ('value' in one) return undefined;
  const type: Type = typeOf(scope, one) ?? { kind: 'text' };
  const name = operand(scope, one);
  const { notKnown } = facts;
  if (notKnown.includes('user') && 'user' in one && facts.user?.[one.user] === undefined)
    return { name, value: NOT_KNOWN_YET };
  if (notKnown.includes('session') && 'session' in one && facts.session?.[one.session] === undefined)
    return { name, value: NOT_KNOWN_YET };
  const value = readOf(facts, scope, one, record);
  return {
    name,
    value:
      value === undefined
        ? 'no value'
        : value === null
          ? 'empty'
          : constantInWords(scope.definition, value, type),
  };
}

function readOf(
  facts: Facts,
  scope: Scope,
  one: Exclude<Operand, { value: unknown }>,
  record: RecordFacts | undefined,
): Values[string] | undefined {
  if ('user' in one) return facts.user && (facts.user[one.user] ?? null);
  if ('session' in one) return facts.session && (facts.session[one.session] ?? null);
  if ('clock' in one) {
    const reading = facts.clock[one.clock];
    return one.clock === 'today' ? addDays(reading, one.plus ?? 0) : reading;
  }
  if (one.through === undefined) return record && (record.values[one.record] ?? null);
  const target = record?.values[one.through];
  const entity = entityFor(scope, one.through);
  if (!record || !entity || typeof target !== 'string') return undefined;
  return record.lookUp?.(entity.id, target)?.[one.record] ?? null;
}
