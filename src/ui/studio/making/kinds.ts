import type { CellKind } from '@/core/making';
import type { LookedSheet } from '@/contract/studio/making';
import { counted } from '@/core/edit';

/** What the server says of a column. */
/** A kind as the value of a list to choose from. */
export function keyOf(kind: CellKind): string {
  switch (kind.kind) {
    case 'number':
      return `number ${kind.decimals}`;
    case 'date':
      return `date ${kind.order}`;
    case 'points':
      return `points ${kind.sheet} ${kind.column}`;
    default:
      return kind.kind;
  }
}

/** The kind of which that is the key. */
export function kindOf(key: string): CellKind {
  const [kind, first = '', second = ''] = key.split(' ');
  switch (kind) {
    case 'number':
      return { kind, decimals: Number(first) };
    case 'date':
      return { kind, order: first as 'dmy' | 'mdy' | 'ymd' };
    case 'points':
      return { kind, sheet: Number(first), column: Number(second) };
    default:
      return { kind } as CellKind;
  }
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
    ['choice', 'Choice of what stands there'],
    ['date dmy', 'Day, written day first'],
    ['date mdy', 'Day, written month first'],
    ['date ymd', 'Day, written year first'],
    ...sheets.flatMap(({ name, columns }, s) =>
      s === own
        ? []
        : columns.flatMap((column, c) =>
            column.key ? [[`points ${s} ${c}`, `Points to a ${name}, by its ${column.title}`] as const] : [],
          ),
    ),
    ['left', 'Leave it out'],
  ];
}
