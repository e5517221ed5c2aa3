'use client';

import { useSyncExternalStore } from 'react';

/** What one works at, kept from bench to bench while the window is open. */
export interface BenchState {
  readonly element?: string;
  readonly viewer?: string;
  /** The address on the canvas, or in the pane that was worked in. */
  readonly address?: string;
  /** The form of the gates bench. */
  readonly form?: string;
  /** The panes of the look bench, as its address has them, and which was worked in. */
  readonly panes?: readonly string[];
  readonly pane?: number;
  /** The part of the people bench. */
  readonly part?: string;
}

const NOTHING = '{}';
const listeners = new Set<() => void>();
const placeOf = (slug: string): string => `zinc-at ${slug}`;

function readText(slug: string): string {
  try {
    return window.sessionStorage.getItem(placeOf(slug)) ?? NOTHING;
  } catch {
    return NOTHING;
  }
}

function parsed(text: string): BenchState {
  try {
    return JSON.parse(text) as BenchState;
  } catch {
    return {};
  }
}

/** Keeps what one works at now. */
export function carry(slug: string, change: BenchState): void {
  try {
    const next = JSON.stringify({ ...parsed(readText(slug)), ...change });
    if (next === readText(slug)) return;
    window.sessionStorage.setItem(placeOf(slug), next);
  } catch {
    // Without a store, benches begin anew.
    return;
  }
  for (const listener of listeners) listener();
}

/** What is carried along; nothing while the page is made on the server. */
export function useCarried(slug: string): BenchState {
  const text = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => readText(slug),
    () => NOTHING,
  );
  return parsed(text);
}

/** The address of a bench, with what is carried to it; `more` is said beside. */
export function benchHref(
  slug: string,
  bench: string,
  carried: BenchState,
  more: Readonly<Record<string, string>> = {},
): string {
  const query = new URLSearchParams();
  const { element, viewer, address, form, part } = carried;
  if (bench === 'gates' || bench === 'shape')
    for (const [key, value] of Object.entries({ element, viewer, address, form }))
      if (value) query.set(key, value);
  if (bench === 'people' && part) query.set('part', part);
  if (bench === 'look') {
    for (const pane of lookPanes(carried)) query.append('p', pane);
    if (element) query.set('element', element);
  }
  for (const [key, value] of Object.entries(more)) query.set(key, value);
  const text = query.toString();
  return `/studio/${slug}/${bench}${text ? `?${text}` : ''}`;
}

/** The panes there were; the one that was worked in goes on with the viewer and the address that one comes with. */
function lookPanes({ panes = [], pane = 0, viewer, address }: BenchState): readonly string[] {
  const at = panes.length > 0 ? Math.min(pane, panes.length - 1) : 0;
  const query = new URLSearchParams(panes[at] ?? '');
  if (viewer) query.set('viewer', viewer);
  const here = query.get('address') ?? '';
  // What it asks of its lists stays, where the address does.
  if (address !== undefined && here.split('?')[0] !== address) query.set('address', address);
  if (panes.length === 0) return viewer ? [query.toString()] : [];
  return panes.map((one, n) => (n === at ? query.toString() : one));
}
