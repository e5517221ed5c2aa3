'use client';

import { ArrowDown, ArrowUp } from 'lucide-react';
import { useEffect } from 'react';
import type { Edit } from '@/core/edit';
import type { Placed } from '@/core/model';
import { useBench } from '../frame/bench';
import { isTyping } from '../shell/is-typing';
import { otherHolders } from './other-holders';
import { Select } from '@/ui/parts/select';

interface Props {
  readonly place: Placed;
}

/** Moves the selected element among its like, also by Alt with the arrows, and to another place that can hold it. */
export function MoveButtons({ place }: Props) {
  const { selected, compiled, apply } = useBench();
  const { slot, at, of } = place;
  const others = otherHolders(compiled.tree, selected, slot);
  const move = (to: Extract<Edit, { do: 'moveElement' }>['to']): void =>
    apply({ do: 'moveElement', id: selected.id, from: { ...slot, at }, to });
  const step = (by: number): void => {
    if (at + by >= 0 && at + by < of) move({ ...slot, at: at + by });
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!event.altKey || event.ctrlKey || event.metaKey || isTyping(event.target as HTMLElement)) return;
      const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
      if (by === 0) return;
      event.preventDefault();
      event.stopPropagation();
      step(by);
    };
    // Before the outline, where the arrows walk.
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  });
  return (
    <>
      <button type="button" className="button" disabled={at === 0} title="Alt+Up" onClick={() => step(-1)}>
        <ArrowUp size={14} aria-hidden /> Up
      </button>
      <button
        type="button"
        className="button"
        disabled={at >= of - 1}
        title="Alt+Down"
        onClick={() => step(1)}
      >
        <ArrowDown size={14} aria-hidden /> Down
      </button>
      {others.length > 0 && (
        <Select
          aria-label="Move to"
          className="w-36"
          value=""
          onChoose={(chosen) => {
            const holder = others.find(({ id }) => id === chosen);
            if (holder) move({ in: holder.id, list: slot.list, at: holder.count });
          }}
          none="Move to…"
          options={others}
        />
      )}
    </>
  );
}
