'use client';

import { useDroppable } from '@dnd-kit/core';
import { Plus } from 'lucide-react';
import { AddHere } from '../add-here';
import type { DrawnSeam } from './canvas-layout';

interface Props {
  readonly seam: DrawnSeam;
  /** Is something being moved that could come here? */
  readonly takes: boolean;
  readonly moving: boolean;
  /** Does it stand beside what is selected? Then it is seen, and Tab leads to it. */
  readonly near: boolean;
  readonly mayAdd: boolean;
  readonly onAdded: (id: string) => void;
}

/** A place between elements: choosing it offers what can come there, and what is moved can be put there. */
export function SeamView({ seam, takes, moving, near, mayAdd, onAdded }: Props) {
  const { setNodeRef, isOver } = useDroppable({ id: seam.key, disabled: !takes });
  const { box, upright } = seam;
  return (
    <div
      ref={setNodeRef}
      data-shaping
      className={`seam ${upright ? 'seam-upright' : ''} ${near ? 'seam-near' : ''} ${takes ? 'seam-takes' : ''} ${isOver ? 'seam-over' : ''}`}
      style={box}
    >
      {mayAdd && !moving && (
        <AddHere
          seam={seam}
          onAdded={onAdded}
          trigger={
            <button
              type="button"
              className="seam-button"
              tabIndex={near ? 0 : -1}
              aria-label={`Add ${seam.about}`}
              title={`Add ${seam.about}`}
            >
              <span className="seam-plus">
                <Plus size={13} strokeWidth={3} aria-hidden />
              </span>
            </button>
          }
        />
      )}
    </div>
  );
}
