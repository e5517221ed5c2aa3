import { conditionsOf } from '../../access/deciding/reads';
import type { Circumstances } from '../../access/deciding/viewer';
import { addDays, momentOf, readClock } from '../../condition/clock';
import { allWithin, operandsOf, type Condition } from '../../condition/condition';
import type { Definition } from '../../model/definition';
import type { Values } from '../../model/value-type';

/** So many are looked at; of a definition that asks for more times than that, not all. */
const MOST = 150;
const MINUTE = 60_000;
const DAYS = 7;

/**
 * Moments and sessions in which something could be otherwise that depends on them: each session value that can be set,
 * and each time of day that a condition compares, just before and at it, on each day of a week. The circumstances that
 * one begins with are not among them.
 */
export function* otherTimes(
  definitions: readonly Definition[],
  { moment }: Circumstances,
): Generator<Circumstances> {
  const sessions: (Values | undefined)[] = [undefined, ...definitions.flatMap(settableIn)];
  const moments = new Set([moment, ...definitions.flatMap((one) => momentsIn(one, moment))]);
  let left = MOST;
  for (const at of moments)
    for (const session of sessions) {
      if (at === moment && !session) continue;
      if (left-- <= 0) return;
      yield { moment: at, ...(session && { session }) };
    }
}

/** What a session could hold, one value at a time. */
const settableIn = ({ sessionValues }: Definition): Values[] =>
  sessionValues.flatMap(({ id, type }): Values[] => {
    if (type.kind === 'boolean') return [{ [id]: true }];
    return type.kind === 'choice' ? type.options.map((option) => ({ [id]: option.id })) : [];
  });

/** The times of day that a condition names itself. */
function timesIn(condition: Condition): string[] {
  const operands = operandsOf(condition);
  if (!operands.some((one) => 'clock' in one && one.clock === 'time')) return [];
  const constants = operands.flatMap((one) => ('value' in one ? [one.value] : []));
  return [...constants, ...('oneOf' in condition ? condition.values : [])].map(String);
}

/** The times of day that conditions compare, and a minute before each, in the days from this moment on. */
function momentsIn(definition: Definition, moment: number): number[] {
  const times = new Set(conditionsOf(definition).flatMap(allWithin).flatMap(timesIn));
  if (times.size === 0) return [];
  const { today } = readClock(moment, definition.timeZone);
  const days = Array.from({ length: DAYS }, (_, n) => addDays(today, n));
  return days.flatMap((day) =>
    [...times].flatMap((time) => {
      const at = momentOf(`${day}T${time}`, definition.timeZone);
      return Number.isNaN(at) ? [] : [at - MINUTE, at];
    }),
  );
}
