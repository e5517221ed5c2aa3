import { Readable } from 'node:stream';
import { parse, type CsvError } from 'csv-parse';
import type { Sheet, SheetRow } from '@/core/making';
import { isStorable } from '@/core/model';
import { countRows, MOST_IN_CELL } from '../csv';
import { Refused } from '../http/problem';

const MOST_COLUMNS = 200;
const MOST_ROWS = 200_000;
const SLICE = 65_536;
/** So many rows are read before others have their turn. */
const AT_ONCE = 2000;

/**
 * A CSV file (RFC 4180) as a sheet: parted by commas, semicolons or tabs, in UTF-8, with a header. What is wrong is
 * refused with the file, the line and what to do; rows with nothing in them are left out.
 *
 * @param file its name, with its ending
 */
export async function readSheet(file: string, bytes: Uint8Array, signal?: AbortSignal): Promise<Sheet> {
  const wrong = (detail: string): Refused => new Refused(422, 'csv', `${file.slice(0, 80)}: ${detail}`);
  const tooLong = (): Refused =>
    wrong(`it has more than ${MOST_ROWS.toLocaleString('en')} rows. Split it into several files.`);
  if (countRows(bytes) > MOST_ROWS + 1) throw tooLong();
  const text = decoded(bytes, wrong);
  const name = file.replace(/\.[a-z0-9]{1,4}$/i, '').trim() || 'Rows';
  let columns: readonly string[] | undefined;
  const rows: SheetRow[] = [];
  /** Where the row begins that is read next: the parser counts where one ends. */
  let next = 1;
  const starts: number[] = [];
  const parser = Readable.from(slices(text)).pipe(
    parse({
      delimiter: delimiterOf(text),
      // Told as it is read: what is written out waits in a line.
      on_record: (cells: string[], { lines }) => {
        starts.push(next);
        next = lines + 1;
        return cells;
      },
      relax_column_count: true,
      skip_empty_lines: true,
      max_record_size: 2_000_000,
    }),
  );
  try {
    let read = 0;
    for await (const cells of parser as AsyncIterable<string[]>) {
      const line = starts[read++] ?? 0;
      if (!columns) columns = header(cells, wrong);
      else if (cells.some((cell) => cell.trim() !== '')) {
        if (cells.length > columns.length)
          throw wrong(
            `line ${line} has ${cells.length} cells but the header has ${columns.length}. Put cells that contain a comma in quotes, or add the missing column names.`,
          );
        const odd = cells.find((cell) => !isStorable(cell));
        if (odd !== undefined) throw wrong(`line ${line} contains a null character. Remove it.`);
        if (cells.some((cell) => cell.length > MOST_IN_CELL))
          throw wrong(
            `line ${line} has a cell of more than ${MOST_IN_CELL.toLocaleString('en')} characters. Shorten it.`,
          );
        rows.push({ line, cells });
      }
      if (rows.length > MOST_ROWS) throw tooLong();
      if (rows.length % AT_ONCE === 0) {
        await new Promise((resolve) => setImmediate(resolve));
        signal?.throwIfAborted();
      }
    }
  } catch (error) {
    if (error instanceof Refused || signal?.aborted) throw error;
    throw wrong(inWords(error as CsvError, next));
  }
  if (!columns)
    throw wrong(
      'it is empty. The first line must contain the column names, and the following lines the rows.',
    );
  if (rows.length === 0)
    throw wrong(
      'it has a header but no rows. Add at least one row so that the column types can be recognised.',
    );
  return { name, columns, rows };
}

/** UTF-8, also with a mark at its start. A file in another coding is refused with the first line that shows it. */
function decoded(bytes: Uint8Array, wrong: (detail: string) => Refused): string {
  if ((bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff))
    throw wrong('it is in UTF-16. Save it as "CSV UTF-8".');
  if (bytes[0] === 0x50 && bytes[1] === 0x4b)
    throw wrong('it is a workbook or an archive, not CSV. Save the sheet as "CSV UTF-8".');
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw wrong(`line ${firstOddLine(bytes)} is not in UTF-8. Save the file as "CSV UTF-8".`);
  }
}

function firstOddLine(bytes: Uint8Array): number {
  let from = 0;
  for (let line = 1; ; line++) {
    const end = bytes.indexOf(0x0a, from);
    try {
      new TextDecoder('utf-8', { fatal: true }).decode(bytes.subarray(from, end < 0 ? undefined : end));
    } catch {
      return line;
    }
    if (end < 0) return line;
    from = end + 1;
  }
}

/** What parts the cells: whichever of them the header has most of, outside quotes. */
function delimiterOf(text: string): string {
  const header = (/^(?:"(?:[^"]|"")*"|[^"\r\n])*/.exec(text.slice(0, SLICE))?.[0] ?? '').replace(
    /"(?:[^"]|"")*"/g,
    '',
  );
  const counts = [',', ';', '\t'].map((mark) => [mark, header.split(mark).length] as const);
  return counts.reduce((most, one) => (one[1] > most[1] ? one : most))[0];
}

function header(cells: readonly string[], wrong: (detail: string) => Refused): string[] {
  const names = cells.map((cell) => cell.trim());
  // A comma at the end of every line is no column.
  while (names.at(-1) === '') names.pop();
  if (names.length === 0) throw wrong('its first line has no column names. Add them.');
  if (names.length > MOST_COLUMNS)
    throw wrong(
      `it has ${names.length.toLocaleString('en')} columns; at most ${MOST_COLUMNS} can be imported. Remove the columns you do not need.`,
    );
  const empty = names.indexOf('');
  if (empty >= 0) throw wrong(`column ${empty + 1} has no name in line 1. Name it or remove it.`);
  const twice = names.findIndex((one, n) => names.indexOf(one) !== n);
  if (twice >= 0)
    throw wrong(
      `columns ${names.indexOf(names[twice] as string) + 1} and ${twice + 1} are both called ${(names[twice] as string).slice(0, 60)} in line 1. Rename one of them.`,
    );
  return names;
}

/** What the parser says of the row that begins on that line, in words for who has the file. */
function inWords(error: CsvError, line: number): string {
  const code: string = error.code;
  switch (code) {
    case 'CSV_QUOTE_NOT_CLOSED':
      return `a quote opened in line ${line} is never closed. Close or remove it.`;
    case 'CSV_INVALID_CLOSING_QUOTE':
    case 'INVALID_OPENING_QUOTE':
      return `line ${line} has a quote inside a cell. Double the quote and put the whole cell in quotes.`;
    case 'CSV_MAX_RECORD_SIZE':
      return `line ${line} is longer than two million characters. Check whether an earlier quote is not closed.`;
    default:
      return `it is not valid CSV (RFC 4180) near line ${line}. ${error.message.split('\n')[0]}`;
  }
}

/** The text in pieces, so that no reading of it keeps others waiting. */
function* slices(text: string): Generator<string> {
  for (let n = 0; n < text.length; n += SLICE) yield text.slice(n, n + SLICE);
}
