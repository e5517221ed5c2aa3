import type { CellKind } from '@/core/making';
import type { LookedSheet } from '@/contract/studio/making';
import { counted } from '@/core/edit';

/** A kind as the value of a list to choose from: `number 2`, `points 0 1`. */
export const keyOf = (kind: CellKind): string => Object.values(kind).join(' ');

/** The kind of which that is the key. */
export function kindOf(key: string): CellKind {
  const [kind, first = '', second = ''] = key.split(' ') as [CellKind['kind'], string?, string?];
  if (kind === 'number') return { kind, decimals: Number(first) };
  if (kind === 'date') return { kind, order: first as 'dmy' | 'mdy' | 'ymd' };
  return kind === 'points' ? { kind, sheet: Number(first), column: Number(second) } : { kind };
}

/** What a column can be read as, in groups: what it holds, and what of the other sheets it points to. */
export function kindsFor(
  sheets: readonly LookedSheet[],
  own: number,
  now: CellKind,
): readonly (readonly [string, string])[] {
  const decimals = now.kind === 'number' && now.decimals > 0 ? now.decimals : 2;
  return [
    ['text', 'Text'],
    ['long', 'Long text'],
    ['number 0', 'Whole number'],
    [`number ${decimals}`, `Number, ${counted(decimals, 'decimal')}`],
    ['money', 'Money'],
    ['boolean', 'Yes or no'],
    ['choice', 'Choice (options from the column’s values)'],
    ['date dmy', 'Date, day first'],
    ['date mdy', 'Date, month first'],
    ['date ymd', 'Date, year first'],
    ...sheets.flatMap(({ name, columns }, s) =>
      s === own
        ? []
        : columns.flatMap((column, c) =>
            column.key ? [[`points ${s} ${c}`, `Reference to ${name}, by ${column.title}`] as const] : [],
          ),
    ),
    ['left', 'Do not import'],
  ];
}
