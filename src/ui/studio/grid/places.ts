import type { Place } from './why-card';

/** The place that was pointed at: a cell, or a row's name before them; undefined elsewhere. */
export function placeOf(target: EventTarget): Place | undefined {
  if (!(target instanceof globalThis.Element)) return undefined;
  const head = target.closest<HTMLElement>('[data-head]');
  if (head) return { row: Number(head.dataset['head']), column: -1 };
  const found = target.closest('[role=gridcell]');
  const row = found?.closest('[role=row]');
  if (!found || !row) return undefined;
  return {
    row: Number(row.getAttribute('aria-rowindex')) - 2,
    column: Number(found.getAttribute('aria-colindex')) - 2,
  };
}

/** The cell at this place, where it is drawn. */
export const cellAt = (grid: HTMLElement | null, { row, column }: Place): HTMLElement | null | undefined =>
  grid?.querySelector<HTMLElement>(`[aria-rowindex="${row + 2}"] > [aria-colindex="${column + 2}"]`);
