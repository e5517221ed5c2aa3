import { decimalIn, placesOf } from '../model/values/decimal';
import { DAY_ORDERS, valueIn, type CellKind } from './cell';
import { pointingOf } from './pointing';
import { cellsOf, type Sheet } from './sheet';

/** A cell that does not fit what its column is read as. */
interface Misfit {
  readonly line: number;
  readonly cell: string;
}

/** What a column is taken for, and what speaks for it. */
export interface GuessedColumn {
  readonly name: string;
  readonly as: CellKind;
  /** Has every row something there? */
  readonly needed: boolean;
  readonly empty: number;
  /** Has each row something else there, so that other sheets can point to it? */
  readonly key: boolean;
  readonly examples: readonly string[];
  /** The first cells that do not fit, and how many there are. They would be empty. */
  readonly misfits: readonly Misfit[];
  readonly misfitCount: number;
}

const FEW = 5;
const MOST_OPTIONS = 12;
/** A kind is guessed though some cells do not fit it, where they are at most one in so many. */
const ONE_IN = 50;
/** A number has so many figures after its mark at most. */
const MOST_DECIMALS = 6;

/**
 * What each column of each sheet holds, by all its rows: the narrowest kind that all cells fit, or all but one in
 * fifty of them; or what is known of them. A column that holds what stands in a column of another sheet without repeats points to it.
 *
 * @param today `2026-11-26`: years of two figures are those around it
 */
export function guessSheets(sheets: readonly Sheet[], today: string): GuessedColumn[][] {
  const kinds = sheets.map((sheet) =>
    sheet.columns.map((_, n) => sheet.kinds?.[n] ?? guessKind(cellsOf(sheet, n), today)),
  );
  for (const { from, to } of pointingOf(sheets))
    if (!sheets[from.sheet]?.kinds)
      (kinds[from.sheet] as CellKind[])[from.column] = { kind: 'points', ...to };
  return sheets.map((sheet, s) =>
    sheet.columns.map((name, c) =>
      lookAt(sheets, s, c, name, (kinds[s] as CellKind[])[c] as CellKind, today),
    ),
  );
}

/** A column read as a kind that somebody has chosen: what fits, and what does not. */
export function lookAt(
  sheets: readonly Sheet[],
  sheet: number,
  column: number,
  name: string,
  as: CellKind,
  today: string,
): GuessedColumn {
  const { rows } = sheets[sheet] as Sheet;
  const cells = cellsOf(sheets[sheet] as Sheet, column);
  const keys = as.kind === 'points' ? new Set(cellsOf(sheets[as.sheet] as Sheet, as.column)) : undefined;
  const known = new Map<string, boolean>();
  const fits = (cell: string): boolean => {
    if (keys) return keys.has(cell);
    let is = known.get(cell);
    if (is === undefined)
      known.set(cell, (is = as.kind === 'left' || valueIn(cell, as, today) !== undefined));
    return is;
  };
  const misfits: Misfit[] = [];
  let misfitCount = 0;
  let empty = 0;
  const examples = new Set<string>();
  cells.forEach((cell, n) => {
    if (cell === '') empty++;
    else if (!fits(cell)) {
      if (misfitCount++ < FEW) misfits.push({ line: rows[n]?.line ?? 0, cell: cell.slice(0, 80) });
    } else if (examples.size < FEW) examples.add(cell.slice(0, 80));
  });
  return {
    name,
    as,
    key: cells.length > 1 && empty === 0 && new Set(cells).size === cells.length,
    needed: cells.length > 0 && empty === 0 && misfitCount === 0 && as.kind !== 'boolean',
    empty,
    examples: [...examples],
    misfits,
    misfitCount,
  };
}

/** The narrower kinds, in the order in which they are preferred; of numbers, the figures after the mark are counted. */
const NARROWER: readonly CellKind[] = [
  { kind: 'boolean' },
  ...DAY_ORDERS.map((order): CellKind => ({ kind: 'date', order })),
  { kind: 'number', decimals: MOST_DECIMALS },
  { kind: 'money' },
];

/** The kind of a column, in one pass over its cells: a kind that too many of them do not fit is not tried any further. */
function guessKind(all: readonly string[], today: string): CellKind {
  const counts = new Map<string, number>();
  for (const cell of all) if (cell !== '') counts.set(cell, (counts.get(cell) ?? 0) + 1);
  const filled = [...counts.values()].reduce((sum, count) => sum + count, 0);
  if (filled === 0) return { kind: 'text' };
  const most = Math.floor(filled / ONE_IN);
  let open = NARROWER.map((as) => ({ as, not: 0 }));
  let [decimals, signs, long, years, options] = [0, false, false, true, true];
  for (const [cell, count] of counts) {
    for (const one of open) if (valueIn(cell, one.as, today) === undefined) one.not += count;
    if (open.some(({ not }) => not > most)) open = open.filter(({ not }) => not <= most);
    if (open.some(({ as }) => as.kind === 'number'))
      decimals = Math.max(decimals, placesOf(decimalIn(cell) ?? ''));
    signs ||= /\p{Sc}/u.test(cell);
    long ||= cell.length > 120 || /[\r\n]/.test(cell);
    // Where the first figures are four, they are the year.
    years &&= /^\d{4}\D/.test(cell);
    options &&= isOption(cell);
  }
  const found = open.find(({ as }) => {
    if (as.kind === 'boolean') return counts.size === 2;
    if (as.kind === 'date') return !years || as.order === 'ymd';
    return as.kind !== 'money' || signs;
  })?.as;
  if (found) return found.kind === 'number' ? { kind: 'number', decimals } : found;
  if (long) return { kind: 'long' };
  const repeats = counts.size <= MOST_OPTIONS && filled >= counts.size * 4;
  return repeats && options ? { kind: 'choice' } : { kind: 'text' };
}

/** Is it a word or a few, rather than a sentence? */
const isOption = (cell: string): boolean => cell.length <= 40 && cell.split(/\s+/).length <= 3;

/** Which sign of money means which currency (ISO 4217), where it means one more often than others. */
const SIGNS: readonly (readonly [string, string])[] = [
  ['£', 'GBP'],
  ['€', 'EUR'],
  ['$', 'USD'],
  ['¥', 'JPY'],
  ['₹', 'INR'],
  ['zł', 'PLN'],
  ['₺', 'TRY'],
  ['₩', 'KRW'],
];

/** The currency whose sign stands in the examples of the columns; undefined where none does. */
export function currencyIn(sheets: readonly (readonly GuessedColumn[])[]): string | undefined {
  const examples = sheets.flatMap((columns) =>
    columns.flatMap(({ as, examples: some }) => (as.kind === 'money' ? some : [])),
  );
  return SIGNS.find(([sign]) => examples.some((cell) => cell.includes(sign)))?.[1];
}
