'use client';

import { useEffect, type RefObject } from 'react';

/** Marks the selected element wherever it is drawn in the frame, and brings it into view. */
export function useMark(
  frame: RefObject<HTMLElement | null>,
  id: string | undefined,
  redrawn: unknown,
): void {
  useEffect(() => {
    const marked = id === undefined ? [] : drawnIn(frame, id);
    marked.forEach((one) => one.classList.add('is-selected'));
    marked[0]?.scrollIntoView({ block: 'nearest' });
    return () => marked.forEach((one) => one.classList.remove('is-selected'));
  }, [frame, id, redrawn]);
}

/** Marks all elements of the frame that differ from other panes. */
export function useDifferenceMarks(
  frame: RefObject<HTMLElement | null>,
  ids: ReadonlySet<string>,
  redrawn: unknown,
): void {
  useEffect(() => {
    const marked = [...ids].flatMap((id) => drawnIn(frame, id));
    marked.forEach((one) => one.classList.add('differs'));
    return () => marked.forEach((one) => one.classList.remove('differs'));
  }, [frame, ids, redrawn]);
}

/** Makes everything that can be asked about reachable by Tab: also what is only to be read, and ghosts. */
export function useReachable(frame: RefObject<HTMLElement | null>, redrawn: unknown): void {
  useEffect(() => {
    const found = [...(frame.current?.querySelectorAll<HTMLElement>('[data-element]') ?? [])].filter(
      (one) =>
        one.tabIndex < 0 && !one.querySelector('[data-element], a[href], button, input, select, textarea'),
    );
    for (const one of found) one.tabIndex = 0;
  }, [frame, redrawn]);
}

const drawnIn = (frame: RefObject<HTMLElement | null>, id: string): HTMLElement[] => [
  ...(frame.current?.querySelectorAll<HTMLElement>(`[data-element="${CSS.escape(id)}"]`) ?? []),
];
