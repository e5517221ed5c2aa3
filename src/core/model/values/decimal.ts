import * as yup from 'yup';

const SPACES = /[\s\u00a0\u202f']/g;
const SIGNS = /\p{Sc}/gu;

/** What decimals of any type have in common. */
export const DECIMAL = {
  form: 'decimal',
  literal: 'number',
  family: 'number',
  asks: 'order',
  oneOf: true,
  measured: true,
  example: '12.50',
  sentence: () => 'a number',
  start: () => '0',
  constant: (value: string): string | undefined =>
    /^-?\d{1,15}(\.\d{1,10})?$/.test(value) ? plainDecimal(value) : undefined,
} as const;

/** Up to 15 digits, and so many after a point. */
export const decimalSchema = (places: number): yup.StringSchema =>
  yup
    .string()
    .matches(
      places > 0 ? new RegExp(`^-?\\d{1,15}(\\.\\d{1,${places}})?$`) : /^-?\d{1,15}$/,
      places > 0
        ? `Enter a number such as 1250.50, with at most ${places} decimal places.`
        : 'Enter a whole number such as 12.',
    );

/** How many digits stand after the point. */
export const placesOf = (decimal: string): number => decimal.split('.')[1]?.length ?? 0;

/** The one way to write a decimal: no leading or trailing zeros, no minus zero. `007.50` is `7.5`. */
export function plainDecimal(text: string): string {
  const [, sign = '', whole = '', part = ''] = /^(-?)0*(\d+?)(?:\.(\d*?)0*)?$/.exec(text) ?? [];
  const plain = part ? `${whole}.${part}` : whole;
  return plain === '0' ? '0' : sign + plain;
}

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
  return found !== undefined && placesOf(found) <= 2 ? found : undefined;
}
