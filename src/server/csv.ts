import { stringify } from 'csv-stringify/sync';

/** A spreadsheet takes a cell that begins so for a formula; one that looks kept from it already is kept once more. */
const LIKE_A_FORMULA = /^'*[=+\-@\t\r\n]/;

/** A cell that cannot act as a formula: an apostrophe before it makes it a text to every spreadsheet. */
const harmless = (cell: string): string => (LIKE_A_FORMULA.test(cell) ? `'${cell}` : cell);

/** What keeps a cell from acting as a formula is taken off again. */
export const plainCell = (cell: string): string => cell.replace(/^'(?='*[=+\-@\t\r\n])/, '');

/**
 * Rows as CSV (RFC 4180), its header among them: the only place that writes any. A line break of any kind stands
 * within quotes, so that what follows it is not taken for a row of its own.
 */
export const toCsv = (
  rows: readonly (readonly string[])[],
  /** Files have line ends as in the RFC; what is piped to other programs has the system's. */
  lines: 'windows' | 'unix' = 'windows',
): string =>
  stringify(
    rows.map((cells) => cells.map(harmless)),
    { quoted_match: /[\r\n\t\u0085\u2028\u2029]/, record_delimiter: lines },
  );

/** The most characters of a cell that is read. */
export const MOST_IN_CELL = 32_768;

const [QUOTE, LINE_FEED] = [0x22, 0x0a];
/** What an empty line may hold: spaces, tabs, carriage returns, and marks between cells. */
const BLANK: readonly number[] = [0x20, 0x09, 0x0d, 0x2c, 0x3b];

/**
 * How many rows a CSV file has, its header among them: counted by its line ends outside quotes, without empty lines,
 * before anything of it is read, so that one that is too long is refused at once.
 */
export function countRows(bytes: Uint8Array): number {
  let rows = 0;
  let [quoted, filled] = [false, false];
  for (const byte of bytes) {
    if (byte === LINE_FEED && !quoted) {
      if (filled) rows++;
      filled = false;
    } else {
      if (byte === QUOTE) quoted = !quoted;
      filled ||= !BLANK.includes(byte);
    }
  }
  return filled ? rows + 1 : rows;
}
