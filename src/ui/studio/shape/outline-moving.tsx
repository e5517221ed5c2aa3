'use client';

import {
  DndContext,
  DragOverlay,
  PointerSensor,
  pointerWithin,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragMoveEvent,
} from '@dnd-kit/core';
import { createContext, useContext, useState, type ComponentProps, type ReactNode } from 'react';
import { mayStandIn, moveTo } from '@/core/edit';
import { placeOf, type AppElement, type Slot } from '@/core/model';
import { useBench } from '../frame/bench';
import { Row } from '../frame/outline-row';

/** Where what is moved would come: before, in or behind the element of a row. */
interface Drop {
  readonly row: string;
  readonly where: 'before' | 'in' | 'behind';
  readonly slot: Slot;
  readonly at: number;
}

const DropContext = createContext<Drop | undefined>(undefined);

/** Rows of the outline can be moved by the mouse, among their like and to where else they can stand. */
export function OutlineMoving({ children }: { children: ReactNode }) {
  const { compiled, definition, mayChange, apply, select } = useBench();
  const { tree } = compiled;
  const [moving, setMoving] = useState<AppElement>();
  const [drop, setDrop] = useState<Drop>();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));

  /** The places that a row offers to what is moved, the nearest to the pointer first. */
  const dropOn = ({ active, over, activatorEvent, delta }: DragMoveEvent): Drop | undefined => {
    const [element, row] = [tree.get(String(active.id)), tree.get(String(over?.id))];
    const from = element && placeOf(definition, element.id);
    if (!element || !from || !row || !over || element === row) return undefined;
    const down = ((activatorEvent as PointerEvent).clientY + delta.y - over.rect.top) / over.rect.height;
    const place = placeOf(definition, row.id);
    const held = (row.node as unknown as Record<string, readonly unknown[] | undefined>)[from.slot.list];
    const offered: (Drop & { readonly far: number })[] = [];
    const offer = (where: Drop['where'], slot: Slot, at: number, far: number): void => {
      if (mayStandIn(tree, element, from.slot, slot) && moveTo(definition, element.id, slot, at))
        offered.push({ row: row.id, where, slot, at, far });
    };
    if (place) {
      offer('before', place.slot, place.at, down);
      offer('behind', place.slot, place.at + 1, 1 - down);
    }
    if (held) offer('in', { in: row.id, list: from.slot.list }, held.length, Math.abs(down - 0.5));
    return offered.sort((a, b) => a.far - b.far)[0];
  };
  const end = (): void => {
    setMoving(undefined);
    setDrop(undefined);
  };
  if (!mayChange) return children;
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={({ active }) => {
        setMoving(tree.get(String(active.id)));
        select(String(active.id));
      }}
      onDragMove={(event) => setDrop(dropOn(event))}
      onDragCancel={end}
      onDragEnd={(event) => {
        const to = dropOn(event);
        const edit = to && moveTo(definition, String(event.active.id), to.slot, to.at);
        end();
        if (edit) apply(edit);
      }}
    >
      <DropContext value={drop}>{children}</DropContext>
      <DragOverlay dropAnimation={null}>
        {moving && (
          <div className="w-max max-w-64 truncate border border-open bg-paper px-2 py-1 font-medium shadow-md">
            {moving.name}
          </div>
        )}
      </DragOverlay>
    </DndContext>
  );
}

/** A row that can be moved, and that shows where what is moved would come. */
export function MovableRow(props: ComponentProps<typeof Row>) {
  const { id } = props.row.element;
  const drop = useContext(DropContext);
  const { setNodeRef, listeners } = useDraggable({ id });
  const { setNodeRef: setOver } = useDroppable({ id });
  const where = drop?.row === id ? drop.where : undefined;
  return (
    <div
      ref={(node) => {
        setNodeRef(node);
        setOver(node);
      }}
      role="presentation"
      {...listeners}
      className={`relative ${where === 'in' ? 'outline-2 -outline-offset-2 outline-open' : ''}`}
    >
      <Row {...props} />
      {(where === 'before' || where === 'behind') && (
        <div
          className={`pointer-events-none absolute inset-x-0 z-10 h-[3px] bg-open ${where === 'before' ? '-top-0.5' : '-bottom-0.5'}`}
        />
      )}
    </div>
  );
}
