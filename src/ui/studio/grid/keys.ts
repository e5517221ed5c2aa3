import type { KeyboardEvent } from 'react';
import type { Level } from '@/core/access';
import { isTyping } from '../shell/is-typing';
import type { GridRow } from './grid-rows';

/** What a key asks of the grid; those that change the draft say so. */
type Work =
  | { readonly do: 'go'; readonly rows: number; readonly columns: number }
  | { readonly do: 'fold'; readonly element: string; readonly folded: boolean }
  | { readonly do: 'why' | 'leave' | 'copy' | 'nothing' }
  | { readonly do: 'paste' | 'follow' | 'expect'; readonly changes: true }
  | { readonly do: 'set'; readonly level: Level; readonly changes: true };

/** Where one is, as far as keys ask for it. */
interface Where {
  readonly row: GridRow | undefined;
  /** On the row's name, before its cells; or on that or the first cell. */
  readonly atHead: boolean;
  readonly atFirst: boolean;
  /** So many rows are a page. */
  readonly page: number;
  readonly columns: number;
}

const go = (rows: number, columns: number): Work => ({ do: 'go', rows, columns });

/** The work of a key on the grid (WAI-ARIA's treegrid pattern); undefined for one that is not the grid's. */
export function workOf(
  event: KeyboardEvent,
  { row, atHead, atFirst, page, columns }: Where,
): Work | undefined {
  if (isTyping(event.target as HTMLElement)) return undefined;
  const folding = (folded: boolean): Work | undefined =>
    row?.hasContents && row.folded !== folded ? { do: 'fold', element: row.element.id, folded } : undefined;
  if (event.ctrlKey || event.metaKey) {
    const key = event.key.toLowerCase();
    return key === 'c' ? { do: 'copy' } : key === 'v' ? { do: 'paste', changes: true } : undefined;
  }
  if (event.altKey) return undefined;
  switch (event.key) {
    case 'ArrowDown':
      return go(1, 0);
    case 'ArrowUp':
      return go(-1, 0);
    case 'PageDown':
      return go(page, 0);
    case 'PageUp':
      return go(-page, 0);
    case 'Home':
      return go(0, -columns);
    case 'End':
      return go(0, columns);
    case 'ArrowRight':
      return (atHead && folding(false)) || go(0, 1);
    case 'ArrowLeft':
      return (atFirst && !event.shiftKey && folding(true)) || go(0, atFirst ? 0 : -1);
    case ' ':
      return folding(!row?.folded) ?? { do: 'nothing' };
    case 'Enter':
      return { do: 'why' };
    case 'Escape':
      return { do: 'leave' };
    case 'e':
    case 'E':
      return { do: 'expect', changes: true };
    case 'Delete':
    case 'Backspace':
      return { do: 'follow', changes: true };
    case '0':
    case '1':
    case '2':
      return { do: 'set', level: Number(event.key) as Level, changes: true };
    default:
      return undefined;
  }
}
