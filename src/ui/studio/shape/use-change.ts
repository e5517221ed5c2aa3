'use client';

import { sameJson } from '@/core/model';
import { useBench } from '../frame/bench';

/** Changes some keys of the selected element; null takes one away. What stays the same is not said. */
export function useChange(): (to: Readonly<Record<string, unknown>>) => void {
  const { selected, apply } = useBench();
  const node = selected.node as unknown as Readonly<Record<string, unknown>>;
  return (to) => {
    const from = Object.fromEntries(Object.keys(to).map((key) => [key, node[key] ?? null]));
    if (!sameJson(from, to)) apply({ do: 'changeElement', id: selected.id, from, to });
  };
}
