/** A day of the calendar as it is kept: `2026-03-14` (RFC 3339, full-date). Is it one that there is? */
export function isDate(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const date = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(date.getTime()) && date.toISOString().slice(0, 10) === text;
}

/** How a language (BCP 47) writes days: what the reading needs to know. */
interface DayFormat {
  readonly shown: Intl.DateTimeFormat;
  /** The order in which day, month and year are written in figures. */
  readonly order: readonly Part[];
  /** The months' names, in every form that the language writes them, and which month each is. */
  readonly months: ReadonlyMap<string, number>;
  /** Its figures, where they are not 0 to 9. */
  readonly figures: ReadonlyMap<string, string>;
}

type Part = 'day' | 'month' | 'year';

const known = new Map<string, DayFormat>();

function formatOf(language: string): DayFormat {
  let found = known.get(language);
  if (!found) {
    // One calendar whatever the language: it is the one that is kept.
    const locale = new Intl.Locale(language, { calendar: 'gregory' });
    const format = (options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat =>
      new Intl.DateTimeFormat(locale, { timeZone: 'UTC', ...options });
    const shown = format({ dateStyle: 'medium' });
    const written = format({ day: 'numeric', month: 'numeric', year: 'numeric' });
    const order = written
      .formatToParts(0)
      .map(({ type }) => type)
      .filter((type): type is Part => type === 'day' || type === 'month' || type === 'year');
    const months = new Map<string, number>();
    for (const month of ['long', 'short'] as const)
      // A month alone, and beside a day: in some languages these are two words.
      for (const each of [format({ month }), format({ month, day: 'numeric', year: 'numeric' }), shown])
        namesIn(each).forEach((name, n) => name && months.set(name, n + 1));
    const figure = new Intl.NumberFormat(locale, { useGrouping: false });
    const figures = new Map(Array.from({ length: 10 }, (_, n) => [figure.format(n), String(n)]));
    known.set(language, (found = { shown, order, months, figures }));
  }
  return found;
}

/** What the format calls each month: the words that it does not write for all of them. */
function namesIn(format: Intl.DateTimeFormat): string[] {
  const written = Array.from({ length: 12 }, (_, n) => wordsIn(format.format(Date.UTC(2026, n, 15))));
  return written.map((words) =>
    words.filter((word) => !written.every((one) => one.includes(word))).join(' '),
  );
}

/** The day as the language writes it; nothing where it is no day. */
export const dayInWords = (language: string, day: string): string =>
  isDate(day) ? formatOf(language).shown.format(new Date(`${day}T00:00:00Z`)) : '';

/**
 * Reads a day as somebody of that language writes it: as it is shown, with the month's name or number, in the
 * language's order, or as it is kept (`2026-03-14`). A year of two figures is one of the eighty before `today` or of
 * the twenty after; where none is written it is the year of `today`. Undefined where it cannot be told.
 *
 * @param today `2026-11-26`
 */
export function readDay(language: string, text: string, today: string): string | undefined {
  const plain = text.trim();
  if (isDate(plain)) return plain;
  const { order, months, figures } = formatOf(language);
  const latin = [...plain].map((one) => figures.get(one) ?? one).join('');
  const numbers = latin.match(/\d+/g) ?? [];
  const month = monthIn(latin, months);
  if (month === undefined) return numbers.length === 3 ? inOrder(numbers, order, today) : undefined;
  if (numbers.length === 1) return dayOf(today.slice(0, 4), month, numbers[0]);
  if (numbers.length !== 2) return undefined;
  const [a = '', b = ''] = numbers;
  const yearFirst = a.length > 2 || (b.length <= 2 && order.indexOf('year') < order.indexOf('day'));
  return yearFirst ? dayOf(wholeYear(a, today), month, b) : dayOf(wholeYear(b, today), month, a);
}

function inOrder(numbers: readonly string[], order: readonly Part[], today: string): string | undefined {
  const [first = '', second = '', third = ''] = numbers;
  if (first.length > 2) return dayOf(first, Number(second), third);
  const of = (part: Part): string => numbers[order.indexOf(part)] ?? '';
  return dayOf(wholeYear(of('year'), today), Number(of('month')), of('day'));
}

/** The month that is named in the text, by the longest name; undefined where none is. */
function monthIn(text: string, months: ReadonlyMap<string, number>): number | undefined {
  const words = ` ${wordsIn(text).join(' ')} `;
  let longest = '';
  for (const name of months.keys())
    if (name.length > longest.length && words.includes(` ${name} `)) longest = name;
  return months.get(longest);
}

/** Its words, in small letters and without signs. */
const wordsIn = (text: string): string[] =>
  text
    .normalize('NFC')
    .toLowerCase()
    .match(/[\p{L}\p{M}]+/gu) ?? [];

function wholeYear(year: string, today: string): string {
  if (year.length > 2) return year;
  const now = Number(today.slice(0, 4));
  const found = now - (now % 100) + Number(year);
  return String(found > now + 20 ? found - 100 : found <= now - 80 ? found + 100 : found);
}

function dayOf(year: string, month: number, day = ''): string | undefined {
  const found = [year.padStart(4, '0'), String(month).padStart(2, '0'), day.padStart(2, '0')].join('-');
  return isDate(found) ? found : undefined;
}
