'use client';

import {
  closestCenter,
  DndContext,
  DragOverlay,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
  type CollisionDetection,
  type DraggableSyntheticListeners,
} from '@dnd-kit/core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useLatest } from '../../../parts/use-latest';
import { mayStandIn, moveTo } from '@/core/edit';
import type { Screen } from '@/core/model';
import { useBench } from '../../frame/bench';
import { Grip } from './grip';
import type { DrawnSeam } from './canvas-layout';
import { seamSteps } from './seam-steps';
import { SeamView } from './seam-view';
import { useCanvasLayout } from './use-canvas-layout';

interface Props {
  /** What scrolls in the canvas, with the screen in it. */
  readonly content: HTMLElement;
  readonly screen: Screen;
  /** What tells one drawing from another. */
  readonly drawn: unknown;
  readonly onAdded: (id: string) => void;
}

/** Lies over the screen that is being shaped: the seams between its parts, and what its parts are moved by. */
export function ShapingLayer({ content, screen, drawn, onAdded }: Props) {
  const { compiled, definition, selected, mayChange, apply, select } = useBench();
  const element = compiled.tree.get(screen.id);
  const { seams, movables } = useCanvasLayout(content, element, drawn);
  const [moving, setMoving] = useState<string>();
  const moved = movables.find((one) => one.element.id === moving);
  const takes = (seam: DrawnSeam): boolean =>
    moved !== undefined &&
    mayStandIn(compiled.tree, moved.element, moved.slot, seam.slot) &&
    moveTo(definition, moved.element.id, seam.slot, seam.at) !== undefined;
  const onListeners = useTaking(content, mayChange);
  const order = useLatest(seams.filter(takes).map(({ key }) => key));
  const steps = useMemo(() => seamSteps(() => order.current), [order]);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: steps }),
  );
  const about = (key: unknown): string => seams.find((seam) => seam.key === key)?.about ?? 'nowhere';
  const name = (id: unknown): string =>
    movables.find(({ element: one }) => one.id === id)?.element.name ?? 'The element';
  if (!mayChange) return null;
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={onOrNear}
      onDragStart={({ active }) => {
        setMoving(String(active.id));
        select(String(active.id));
      }}
      onDragCancel={() => setMoving(undefined)}
      onDragEnd={({ active, over }) => {
        const seam = seams.find(({ key }) => key === over?.id);
        const edit = seam && moveTo(definition, String(active.id), seam.slot, seam.at);
        setMoving(undefined);
        if (edit) apply(edit);
      }}
      accessibility={{
        announcements: {
          onDragStart: ({ active }) => `${name(active.id)} picked up. Use the arrow keys to move it.`,
          onDragOver: ({ active, over }) =>
            over ? `${name(active.id)} would be placed ${about(over.id)}.` : undefined,
          onDragEnd: ({ active, over }) =>
            `${name(active.id)} placed ${over ? about(over.id) : 'where it was'}.`,
          onDragCancel: ({ active }) => `Move cancelled. ${name(active.id)} is where it was.`,
        },
        screenReaderInstructions: {
          draggable:
            'Press Space to pick it up, the arrow keys to move it, Space to drop it, or Escape to cancel.',
        },
      }}
    >
      <div className="pointer-events-none absolute inset-0" data-shaping>
        {seams.map((seam) => (
          <SeamView
            key={seam.key}
            seam={seam}
            takes={takes(seam)}
            moving={moved !== undefined}
            near={isBeside(seam, selected.id, selected.container?.id, selected.container?.contents)}
            mayAdd={mayChange}
            onAdded={onAdded}
          />
        ))}
        {movables.map((one) => (
          <Grip
            key={one.element.id}
            movable={one}
            selected={one.element.id === selected.id}
            onListeners={onListeners}
          />
        ))}
      </div>
      <DragOverlay dropAnimation={null}>
        {moved && (
          <div className="w-max max-w-64 truncate border border-open bg-paper px-2 py-1 font-medium shadow-md">
            {moved.element.name}
          </div>
        )}
      </DragOverlay>
    </DndContext>
  );
}

/** The seam that the pointer is on, else the nearest. */
const onOrNear: CollisionDetection = (args) => {
  const on = pointerWithin(args);
  return on.length > 0 ? on : closestCenter(args);
};

/** Is the seam right before or behind what is selected, or the last one in it? */
function isBeside(
  { slot, at }: DrawnSeam,
  selected: string,
  container: string | undefined,
  among: readonly { readonly id: string; readonly kind: string }[] = [],
): boolean {
  if (slot.in === selected) return true;
  if (slot.in !== container) return false;
  const like = among.filter(({ kind }) => (slot.list === 'sections' ? kind === 'section' : kind !== 'face'));
  const place = like.findIndex(({ id }) => id === selected);
  return place >= 0 && (at === place || at === place + 1);
}

type Start = (event: { readonly nativeEvent: PointerEvent; readonly persist: () => void }) => void;

/** Starts to move what the pointer is put down on, wherever it is put down on it. */
function useTaking(content: HTMLElement, on: boolean) {
  const listenersOf = useRef(new Map<string, DraggableSyntheticListeners>());
  const onListeners = useCallback((id: string, listeners: DraggableSyntheticListeners): void => {
    if (listeners) listenersOf.current.set(id, listeners);
    else listenersOf.current.delete(id);
  }, []);
  useEffect(() => {
    if (!on) return;
    const onPointerDown = (event: PointerEvent): void => {
      if (!(event.target instanceof Element) || event.target.closest('[data-shaping]')) return;
      if (!content.closest('.canvas-selects')) return;
      const drawn = event.target.closest('[data-element]');
      for (let one = drawn; one; one = one.parentElement?.closest('[data-element]') ?? null) {
        const start = listenersOf.current.get(one.getAttribute('data-element') ?? '')?.['onPointerDown'] as
          Start | undefined;
        // The sensor reads only what React's events wrap.
        if (start) return start({ nativeEvent: event, persist: () => undefined });
      }
    };
    content.addEventListener('pointerdown', onPointerDown);
    return () => content.removeEventListener('pointerdown', onPointerDown);
  }, [content, on]);
  return onListeners;
}
