'use client';

import { useDraggable, type DraggableSyntheticListeners } from '@dnd-kit/core';
import { GripVertical } from 'lucide-react';
import { useEffect } from 'react';
import type { Movable } from './canvas-layout';

interface Props {
  readonly movable: Movable;
  readonly selected: boolean;
  /** Told what starts moving it, so that it can be taken anywhere and not by its grip only. */
  readonly onListeners: (id: string, listeners: DraggableSyntheticListeners) => void;
}

/** What an element is moved by: with the mouse, and with Space and the arrows. */
export function Grip({ movable: { element, box, slot }, selected, onListeners }: Props) {
  const { setNodeRef, listeners, attributes, isDragging } = useDraggable({
    id: element.id,
    attributes: { roleDescription: 'draggable' },
  });
  useEffect(() => {
    onListeners(element.id, listeners);
    return () => onListeners(element.id, undefined);
  }, [element.id, listeners, onListeners]);
  const always = slot.list === 'sections';
  return (
    <button
      type="button"
      ref={setNodeRef}
      data-shaping
      {...attributes}
      {...listeners}
      tabIndex={selected ? 0 : -1}
      aria-label={`Move ${element.name}`}
      title={`Move ${element.name}: drag it, or press Space and use the arrow keys`}
      className={`grip ${always || selected ? 'grip-seen' : ''} ${isDragging ? 'grip-moving' : ''}`}
      style={{ left: box.left - 12, top: box.top + 2 }}
    >
      <GripVertical size={14} className="-mx-px" aria-hidden />
    </button>
  );
}
