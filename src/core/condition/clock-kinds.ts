import { isDate } from '../model/day';
import type { ComparedKind, Named } from '../model/values/kind';
import { WEEKDAYS } from './clock';

/** The types of what the clock reads, beside those that fields have too. */
export type ClockType =
  { readonly kind: 'moment' } | { readonly kind: 'time' } | { readonly kind: 'weekday' };

const WEEKDAY_NAMES: readonly Named[] = WEEKDAYS.map((id) => ({
  id,
  name: id.slice(0, 1).toUpperCase() + id.slice(1),
}));

/** What conditions can ask of each of them. */
export const CLOCK_KINDS: {
  readonly [K in ClockType['kind']]: ComparedKind<Extract<ClockType, { readonly kind: K }>>;
} = {
  moment: {
    form: 'text',
    literal: 'moment',
    family: 'moment',
    asks: 'order',
    oneOf: false,
    sentence: () => 'a date and time',
    constant: (value) => {
      const [, date, time] =
        /^(\d{4}-\d{2}-\d{2})T((?:[01]\d|2[0-3]):[0-5]\d(?::[0-5]\d)?)$/.exec(value) ?? [];
      if (!date || !time || !isDate(date)) return undefined;
      return `${date}T${time.length === 5 ? `${time}:00` : time}`;
    },
    example: '2026-03-14T09:30',
    start: (today) => `${today}T12:00:00`,
  },
  time: {
    form: 'text',
    literal: 'time',
    family: 'time',
    asks: 'order',
    oneOf: false,
    sentence: () => 'a time of day',
    constant: (value) => (/^([01]\d|2[0-3]):[0-5]\d$/.test(value) ? value : undefined),
    example: '09:30',
    start: () => '09:00',
  },
  weekday: {
    form: 'text',
    literal: 'weekday',
    family: 'weekday',
    asks: 'equality',
    oneOf: true,
    sentence: () => 'a weekday',
    constant: (value) => ((WEEKDAYS as readonly string[]).includes(value) ? value : undefined),
    listed: () => WEEKDAY_NAMES,
  },
};
