import { addDays, momentOf, readClock, WEEKDAYS, type Clock } from './clock';
import { operandsOf, type ClockReading, type Condition } from './condition';
import { constantsFor } from './constants';

/** The last day from which days of all sorts were asked for, with these. */
let lastDays: { readonly from: string; readonly days: readonly string[] } | undefined;

/** In so many years each day of a month has been on each weekday. */
const YEARS = 8;

/** Where it does not matter from when on. */
const SOME_DAY = '2026-06-01';

/** From a day on, a day on each weekday that is each day of a month: there are 217. */
function daysOfAllSorts(from: string): readonly string[] {
  if (lastDays?.from !== from) {
    const found = new Map<string, string>();
    const end = `${Number(from.slice(0, 4)) + YEARS}${from.slice(4)}`;
    for (let day = from; day < end; day = addDays(day, 1)) {
      const sort = `${weekdayOf(day)} ${day.slice(8)}`;
      if (!found.has(sort)) found.set(sort, day);
    }
    lastDays = { from, days: [...found.values()] };
  }
  return lastDays.days;
}

const weekdayOf = (day: string): string =>
  WEEKDAYS[(new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7] as string;

/**
 * Times on both sides of all that these questions ask of the clock. Of what a clock change leaves out on a day that is
 * asked for, there is none; and where it is told from which day on (`YYYY-MM-DD`), none of the days before.
 */
export function clocksFor(timeZone: string, asked: readonly Condition[], from?: string): readonly Clock[] {
  const readings = new Map<ClockReading, string[]>();
  for (const operand of asked.flatMap(operandsOf))
    if ('clock' in operand) {
      const shifted = constantsFor(operand, asked).map((one) =>
        operand.clock === 'today' ? addDays(one, -(operand.plus ?? 0)) : one,
      );
      readings.set(operand.clock, [...(readings.get(operand.clock) ?? []), ...shifted]);
    }
  const dates = [
    ...(readings.get('today') ?? []),
    ...(readings.get('now') ?? []).map((one) => one.slice(0, 10)),
  ];
  const around = dates.flatMap((date) => [addDays(date, -1), date, addDays(date, 1)]);
  const near = [...new Set(from === undefined || around.length === 0 ? around : daysFrom(from, around))];
  const recurring = readings.has('weekday') || readings.has('day');
  const far = recurring ? daysOfAllSorts(from ?? SOME_DAY) : near.length > 0 ? [] : [SOME_DAY];
  const times = timesFor(readings);
  const clocks = new Map<string, Clock>();
  for (const [days, exact] of [
    [near, true],
    [far, false],
  ] as const)
    for (const day of days)
      for (const time of times) {
        const local = `${day}T${time}`;
        if (exact && !readClock(momentOf(local, timeZone), timeZone).now.startsWith(local)) continue;
        const clock: Clock = {
          now: local,
          today: day,
          time: time.slice(0, 5),
          weekday: weekdayOf(day),
          day: String(Number(day.slice(8))),
        };
        // What is not asked for tells no two times apart.
        clocks.set([...readings.keys()].map((reading) => clock[reading]).join(' '), clock);
      }
  return [...clocks.values()];
}

/** Of these days those that are still to come; and the first ones, since on one of them a clock change may leave out hours. */
const daysFrom = (from: string, days: readonly string[]): string[] => [
  ...days.filter((day) => day >= from),
  from,
  addDays(from, 1),
];

/** Times of day (to the second) around those that are asked for. */
function timesFor(readings: ReadonlyMap<ClockReading, readonly string[]>): readonly string[] {
  const times = [
    ...(readings.get('time') ?? []).map((one) => `${one}:00`),
    ...(readings.get('now') ?? []).map((one) => one.slice(11).padEnd(8, ':00')),
  ];
  const around = times.flatMap((time) => {
    const seconds = Number(time.slice(0, 2)) * 3600 + Number(time.slice(3, 5)) * 60 + Number(time.slice(6));
    return [-60, -1, 0, 1, 60].map((by) => seconds + by);
  });
  return [...new Set([0, 12 * 3600, 24 * 3600 - 1, ...around])]
    .filter((one) => one >= 0 && one < 24 * 3600)
    .map((one) => new Date(one * 1000).toISOString().slice(11, 19));
}
