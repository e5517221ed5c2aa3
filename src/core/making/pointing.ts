import { namesOf } from './names';
import { cellsOf, type Sheet } from './sheet';

export interface Place {
  readonly sheet: number;
  readonly column: number;
}

/** So many of a hundred cells must stand in the other column. */
const AT_LEAST = 95;

/**
 * Which columns point to rows of another sheet: those whose cells stand in a column there that has each once. Small
 * numbers stand in many columns, so a column of them points only where its name speaks of the other sheet.
 */
export function pointingOf(sheets: readonly Sheet[]): { readonly from: Place; readonly to: Place }[] {
  const keys = sheets.flatMap((sheet, s) =>
    sheet.columns.flatMap((name, c) => {
      const cells = cellsOf(sheet, c);
      const all = new Set(cells);
      return cells.length > 1 && all.size === cells.length && !all.has('')
        ? [{ sheet: s, column: c, name, all }]
        : [];
    }),
  );
  return sheets.flatMap((sheet, s) =>
    sheet.columns.flatMap((name, c) => {
      const cells = cellsOf(sheet, c).filter((cell) => cell !== '');
      const distinct = new Set(cells);
      if (distinct.size < 2) return [];
      const telling = [...distinct].every((cell) => cell.length >= 4 && /\p{L}/u.test(cell));
      const to = keys
        .filter((key) => key.sheet !== s && standIn(distinct, key.all))
        .map((key) => ({ key, speaks: speaksOf(name, sheets[key.sheet] as Sheet, key.name) }))
        .filter(({ speaks }) => speaks || telling)
        .sort((a, b) => Number(b.speaks) - Number(a.speaks))[0]?.key;
      return to ? [{ from: { sheet: s, column: c }, to: { sheet: to.sheet, column: to.column } }] : [];
    }),
  );
}

/** Do so many of the cells stand in the other column? It is given up as soon as too many do not. */
function standIn(cells: ReadonlySet<string>, keys: ReadonlySet<string>): boolean {
  let left = Math.floor((cells.size * (100 - AT_LEAST)) / 100);
  for (const cell of cells) if (!keys.has(cell) && left-- <= 0) return false;
  return true;
}

/** Does a column's name speak of another sheet: "member", "member_id", "Member no." of members? */
function speaksOf(column: string, sheet: Sheet, key: string): boolean {
  const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
  const { name, plural } = namesOf(sheet.name);
  const said = plain(column);
  const generic = /^(id|no|nr|key|code|number|ref)$/.test(plain(key));
  return [name, plural].some((one) => said.startsWith(plain(one))) || (!generic && said === plain(key));
}
