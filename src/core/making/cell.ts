import { isDate, readDay } from '../model/day';
import { plainDecimal } from '../model/value';
import type { Value } from '../model/value-type';

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

const YES = /^(yes|y|true|x|1)$/i;
const NO = /^(no|n|false|0)$/i;
const SPACES = /[\s\u00a0\u202f']/g;
const SIGNS = /\p{Sc}/gu;

/**
 * A cell read as a decimal: with a point or a comma before its fraction, and with points, commas, spaces or
 * apostrophes between thousands. Undefined where it is none, or where it starts with a zero and so is a number only
 * by its looks (`0042`).
 *
 * @example
 * decimalIn('1.250,50') // → '1250.5'
 * decimalIn('1,250') // → '1250'
 * decimalIn('0042') // → undefined
 */
export function decimalIn(cell: string): string | undefined {
  const plain = cell.replace(SPACES, '');
  if (!/^[+-]?\d[\d.,]*$/.test(plain)) return undefined;
  const digits = plain.replace(/^\+/, '');
  const last = Math.max(digits.lastIndexOf('.'), digits.lastIndexOf(','));
  const [whole, part] = last < 0 ? [digits, ''] : [digits.slice(0, last), digits.slice(last + 1)];
  const mark = digits[last];
  const marks = [...digits].filter((one) => one === '.' || one === ',');
  // A mark that stands more than once parts thousands; one comma before three figures does, and one point does not.
  const thousands =
    (marks.length > 1 && marks.every((one) => one === mark)) || /^-?[1-9]\d{0,2},\d{3}$/.test(digits);
  const text = thousands ? digits.replace(/[.,]/g, '') : `${whole.replace(/[.,]/g, '')}${part && `.${part}`}`;
  if (thousands && !/^-?\d{1,3}([.,]\d{3})+$/.test(digits)) return undefined;
  if (/^-?0\d/.test(text) || !/^-?\d{1,15}(\.\d{1,6})?$/.test(text)) return undefined;
  return plainDecimal(text);
}

/** A cell read as money: a decimal with at most two figures after its mark, perhaps beside a currency sign or code. */
export function moneyIn(cell: string): string | undefined {
  const text = cell.replace(SIGNS, '').replace(/^[A-Z]{3}\s|\s[A-Z]{3}$/g, '');
  const found = decimalIn(text.trim());
  return found !== undefined && /^-?\d+(\.\d{1,2})?$/.test(found) ? found : undefined;
}

/** A cell read as a day: as it is kept (`2026-03-14`), in figures in that order, or with the month's name. */
export function dayIn(cell: string, order: DayOrder, today: string): string | undefined {
  const text = cell.replace(/[T ]00:00(:00(\.0+)?)?(Z|[+-]00:?00)?$/, '');
  if (isDate(text)) return text;
  // Eight figures, and numbers with marks of other kinds between them, are not days.
  if (!/^\d{1,4}[./-]\d{1,2}[./-]\d{1,4}\.?$/.test(text) && !/\p{L}{3}/u.test(text)) return undefined;
  return readDay({ dmy: 'en-GB', mdy: 'en-US', ymd: 'sv' }[order], text, today);
}

export function booleanIn(cell: string): boolean | undefined {
  return YES.test(cell) ? true : NO.test(cell) ? false : undefined;
}

/**
 * What a cell is as a value of that kind; undefined where it does not fit. What points is not read here: its
 * value is the record that it points to.
 */
export function valueIn(cell: string, as: CellKind, today: string): Value | undefined {
  switch (as.kind) {
    case 'text':
    case 'choice':
      return cell.length <= (as.kind === 'text' ? 300 : 120) && !/[\r\n]/.test(cell) ? cell : undefined;
    case 'long':
      return cell.length <= 10_000 ? cell : undefined;
    case 'boolean':
      return booleanIn(cell);
    case 'money':
      return moneyIn(cell);
    case 'number': {
      const found = decimalIn(cell);
      return found !== undefined && (found.split('.')[1]?.length ?? 0) <= as.decimals ? found : undefined;
    }
    case 'date':
      return dayIn(cell, as.order, today);
    case 'points':
    case 'left':
      return undefined;
  }
}
