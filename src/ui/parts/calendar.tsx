'use client';

import { DayPicker } from 'react-day-picker';

interface Props {
  /** The application's, BCP 47. */
  readonly language: string;
  /** `2026-03-14`, or empty. */
  readonly day: string;
  readonly onDay: (day: string) => void;
}

/** A calendar in a language, with the day that is chosen. */
export default function Calendar({ language, day, onDay }: Props) {
  const chosen = day === '' ? undefined : dateOf(day);
  const locale = new Intl.Locale(language, { calendar: 'gregory' });
  const write = (options: Intl.DateTimeFormatOptions) => (date: Date) =>
    new Intl.DateTimeFormat(locale, options).format(date);
  const month = write({ month: 'long', year: 'numeric' });
  const whole = write({ dateStyle: 'full' });
  return (
    <DayPicker
      autoFocus
      mode="single"
      required
      showOutsideDays
      selected={chosen}
      {...(chosen && { defaultMonth: chosen })}
      onSelect={(date) => onDay(textOf(date))}
      weekStartsOn={firstDayOf(locale)}
      formatters={{
        formatCaption: month,
        formatDay: write({ day: 'numeric' }),
        formatWeekdayName: write({ weekday: 'short' }),
      }}
      labels={{ labelDayButton: whole, labelGrid: month, labelWeekday: write({ weekday: 'long' }) }}
      classNames={CLASSES}
    />
  );
}

const CLASSES = {
  root: 'relative',
  month_caption: 'flex h-8 items-center justify-center font-semibold capitalize',
  nav: 'absolute inset-x-0 top-0 flex h-8 justify-between',
  button_previous: 'button px-1',
  button_next: 'button px-1',
  chevron: 'size-4 fill-ink',
  month_grid: 'mt-1',
  weekday: 'size-8 text-[12px] font-normal text-quiet',
  day: 'p-0 text-center',
  day_button: 'size-8 rounded-sm tabular-nums hover:bg-sheet',
  outside: 'text-quiet',
  today: 'font-semibold underline',
  selected: '[&>button]:bg-open [&>button]:text-white',
};

/** Dates are of the machine's own time zone here, and only their days count. */
const dateOf = (day: string): Date => new Date(`${day}T00:00:00`);

const textOf = (date: Date): string =>
  [
    String(date.getFullYear()).padStart(4, '0'),
    String(date.getMonth() + 1).padStart(2, '0'),
    String(date.getDate()).padStart(2, '0'),
  ].join('-');

type Weekday = 0 | 1 | 2 | 3 | 4 | 5 | 6;

/** On which day weeks begin: where it is not known, on Monday (ISO 8601). */
function firstDayOf(locale: Intl.Locale): Weekday {
  const known = locale as { getWeekInfo?: () => { firstDay: number }; weekInfo?: { firstDay: number } };
  const { firstDay } = known.getWeekInfo?.() ?? known.weekInfo ?? { firstDay: 1 };
  return (firstDay % 7) as Weekday;
}
