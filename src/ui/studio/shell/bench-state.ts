'use client';

import { keptValue } from '@/ui/client/kept-value';

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

const CARRIED = keptValue<BenchState>(() => window.sessionStorage, 'zinc-at', {});

/** Keeps what one works at now. */
export const carry = (slug: string, change: BenchState): void => CARRIED.write(slug, change);

/** What is carried along; nothing while the page is made on the server. */
export const useCarried = (slug: string): BenchState => CARRIED.useValue(slug);

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
