import { SIGNED_OUT } from '../access/deciding/viewer';
import { Grants } from '../access/deciding/grants';
import { bind } from '../condition/bind';
import { addDays, momentOf, readClock } from '../condition/clock';
import { clocksFor } from '../condition/clocks';
import { type Condition, operandsOf, partsOf } from '../condition/condition';
import { allNamed } from '../condition/named';
import type { Definition } from '../model/definition';
import { lineScopes } from './conditions';

/** So many other times are asked at, at most. */
const MOST = 6;
/** Each weekday, and each day of a month, is among so many days that follow. */
const DAYS = 35;

/**
 * Times (milliseconds since 1970) at which, together with now, all that lines and lists ask of the clock is seen true and
 * not: as few as will do, and the next ones that there are.
 */
export function sweepMoments(definition: Definition, now: number): readonly number[] {
  const questions = clockQuestions(definition);
  if (questions.length === 0) return [];
  const seenAt = (moment: number): string[] => {
    const { facts } = new Grants(definition, SIGNED_OUT, { moment });
    return questions.map((one, n) => `${n} ${bind(facts, { definition }, one, 'be true') === true}`);
  };
  const seen = new Set(seenAt(now));
  const left = candidates(definition, questions, now).map((moment) => ({ moment, shows: seenAt(moment) }));
  const chosen: number[] = [];
  while (chosen.length < MOST) {
    const news = left.map(({ shows }) => shows.filter((one) => !seen.has(one)).length);
    const most = Math.max(0, ...news);
    const next = most > 0 ? left[news.indexOf(most)] : undefined;
    if (!next) break;
    chosen.push(next.moment);
    for (const one of next.shows) seen.add(one);
  }
  return chosen;
}

/** What asks of the clock and of nothing else, alone and joined: each once. */
function clockQuestions(definition: Definition): Condition[] {
  const found = new Map<string, Condition>();
  for (const { condition } of lineScopes(definition))
    for (const one of allNamed(definition, condition))
      if (asksClock(one)) found.set(JSON.stringify(one), one);
  return [...found.values()];
}

function asksClock(condition: Condition): boolean {
  const parts = partsOf(condition);
  if (parts.length > 0) return parts.every(asksClock);
  const asked = operandsOf(condition).filter((one) => !('value' in one));
  return asked.length > 0 && asked.every((one) => 'clock' in one);
}

/** Times on both sides of all that is asked for, from today on; dates that are asked for also before. */
function candidates(definition: Definition, questions: readonly Condition[], now: number): number[] {
  const { timeZone } = definition;
  const clocks = clocksFor(timeZone, questions);
  const today = readClock(now, timeZone).today;
  const days = Array.from({ length: DAYS }, (_, n) => addDays(today, n));
  const times = [...new Set(clocks.map((clock) => clock.now.slice(11)))];
  const coming = days.flatMap((day) => times.map((time) => `${day}T${time}`));
  return [...coming, ...clocks.map((clock) => clock.now)].flatMap((local) => {
    const moment = momentOf(local, timeZone);
    return Number.isNaN(moment) ? [] : [moment];
  });
}
