import { isDate, readDay } from '../model/day';
import type { Value } from '../model/value-type';
import { booleanIn } from '../model/values/boolean';
import { decimalIn, moneyIn, placesOf } from '../model/values/decimal';

/** In which order days are written in figures: day, month, year and so on. */
export const DAY_ORDERS = ['dmy', 'mdy', 'ymd'] as const;
export type DayOrder = (typeof DAY_ORDERS)[number];

/** What a column can be read as. */
export type CellKind =
  | { readonly kind: 'text' | 'long' | 'choice' | 'boolean' | 'money' }
  | { readonly kind: 'number'; readonly decimals: number }
  | { readonly kind: 'date'; readonly order: DayOrder }
  /** Is not taken over. */
  | { readonly kind: 'left' }
  /** Holds what stands in a column of another sheet, and so points to its rows. */
  | { readonly kind: 'points'; readonly sheet: number; readonly column: number };

/** A cell read as a day: as it is kept (`2026-03-14`), in figures in that order, or with the month's name. */
export function dayIn(cell: string, order: DayOrder, today: string): string | undefined {
  const text = cell.replace(/[T ]00:00(:00(\.0+)?)?(Z|[+-]00:?00)?$/, '');
  if (isDate(text)) return text;
  // Eight figures, and numbers with marks of other kinds between them, are not days.
  if (!/^\d{1,4}[./-]\d{1,2}[./-]\d{1,4}\.?$/.test(text) && !/\p{L}{3}/u.test(text)) return undefined;
  return readDay({ dmy: 'en-GB', mdy: 'en-US', ymd: 'sv' }[order], text, today);
}

/**
 * What a cell is as a value of that kind; undefined where it does not fit. What points is not read here: its
 * value is the record that it points to.
 */
export const valueIn = (cell: string, as: CellKind, today: string): Value | undefined =>
  (CELLS[as.kind] as ReadCell)(cell, as, today);

type ReadCell = (cell: string, as: CellKind, today: string) => Value | undefined;

const upTo =
  (most: number): ReadCell =>
  (cell) =>
    cell.length <= most && !/[\r\n]/.test(cell) ? cell : undefined;

/** How a column of each kind is read. */
const CELLS: {
  readonly [K in CellKind['kind']]: (
    cell: string,
    as: Extract<CellKind, { readonly kind: K }>,
    today: string,
  ) => Value | undefined;
} = {
  text: upTo(300),
  choice: upTo(120),
  long: (cell) => (cell.length <= 10_000 ? cell : undefined),
  boolean: booleanIn,
  money: moneyIn,
  number: (cell, { decimals }) => {
    const found = decimalIn(cell);
    return found !== undefined && placesOf(found) <= decimals ? found : undefined;
  },
  date: (cell, { order }, today) => dayIn(cell, order, today),
  points: () => undefined,
  left: () => undefined,
};
