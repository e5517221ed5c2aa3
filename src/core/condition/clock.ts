import { isMoment } from '../model/moment';
import type { ClockReading } from './condition';

/** One moment as it is read in a time zone. All are texts that sort as the times do. */
export type Clock = Readonly<Record<ClockReading, string>>;

export const WEEKDAYS = [
  'monday',
  'tuesday',
  'wednesday',
  'thursday',
  'friday',
  'saturday',
  'sunday',
] as const;

const formats = new Map<string, Intl.DateTimeFormat>();

function formatFor(timeZone: string): Intl.DateTimeFormat {
  let found = formats.get(timeZone);
  if (!found) {
    found = new Intl.DateTimeFormat('en-GB-u-ca-iso8601-nu-latn', {
      timeZone,
      hourCycle: 'h23',
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      second: '2-digit',
    });
    formats.set(timeZone, found);
  }
  return found;
}

/** Is it the name of a time zone that this platform knows? */
export function isTimeZone(name: string): boolean {
  try {
    formatFor(name);
    return true;
  } catch {
    return false;
  }
}

/**
 * The moment (milliseconds since 1970, UTC) in the time zone (IANA name): `now` as local date and time to
 * the second, `today` as a date, `time` to the minute, the weekday's name, the day of the month.
 */
export function readClock(moment: number, timeZone: string): Clock {
  // A request, and all that is decided for many viewers at once, has one moment.
  if (last?.moment !== moment || last.timeZone !== timeZone)
    last = { moment, timeZone, clock: workClock(moment, timeZone) };
  return last.clock;
}

let last: { readonly moment: number; readonly timeZone: string; readonly clock: Clock } | undefined;

function workClock(moment: number, timeZone: string): Clock {
  const parts = new Map(
    formatFor(timeZone)
      .formatToParts(moment)
      .map((part) => [part.type, part.value]),
  );
  const part = (type: Intl.DateTimeFormatPartTypes): string => parts.get(type) ?? '';
  const today = `${part('year').padStart(4, '0')}-${part('month')}-${part('day')}`;
  const time = `${part('hour')}:${part('minute')}`;
  return {
    now: `${today}T${time}:${part('second')}`,
    today,
    time,
    weekday: WEEKDAYS[(new Date(`${today}T00:00:00Z`).getUTCDay() + 6) % 7] as string,
    day: String(Number(part('day'))),
  };
}

/** The day so many days later than a date. */
export function addDays(date: string, days: number): string {
  const at = new Date(`${date}T00:00:00Z`);
  at.setUTCDate(at.getUTCDate() + days);
  return Number.isNaN(at.getTime()) ? date : at.toISOString().slice(0, 10);
}

/**
 * The moment (milliseconds since 1970, UTC) of a local date and time (`2026-11-29T19:00`) in the time zone. One
 * that is there twice, when clocks go back, is the earlier; one that is left out, when they go forward, is as
 * much later. NaN where it is no date and time.
 */
export function momentOf(local: string, timeZone: string): number {
  const asUtc = Date.parse(`${local.length === 16 ? `${local}:00` : local}Z`);
  if (Number.isNaN(asUtc)) return NaN;
  const offsetAt = (moment: number): number => Date.parse(`${readClock(moment, timeZone).now}Z`) - moment;
  const day = 24 * 3600_000;
  // The offset is one of those of the days around it.
  const found = [offsetAt(asUtc - day), offsetAt(asUtc + day)].map((offset) => asUtc - offset);
  const exact = found.filter((moment) => readClock(moment, timeZone).now === readClock(asUtc, 'UTC').now);
  return exact.length > 0 ? Math.min(...exact) : Math.max(...found);
}

/**
 * A moment as people write one (RFC 3339), in UTC; without a zone it is one of the time zone, and without a time
 * the beginning of that day. Undefined where it is none, or in a year that not every store knows.
 */
export function readMoment(text: string, timeZone: string): string | undefined {
  if (isMoment(text)) return new Date(text.replace(' ', 'T')).toISOString();
  const [, day, time = '00:00', seconds = ':00'] =
    /^(\d{4}-\d{2}-\d{2})(?:[T ](\d{2}:\d{2})(:\d{2})?)?$/.exec(text) ?? [];
  if (day === undefined || !isMoment(`${day}T${time}${seconds}Z`)) return undefined;
  return new Date(momentOf(`${day}T${time}${seconds}`, timeZone)).toISOString();
}
