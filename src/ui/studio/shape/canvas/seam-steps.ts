import type { KeyboardCoordinateGetter } from '@dnd-kit/core';

const BY: Readonly<Record<string, 1 | -1>> = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 };

/** Carries what is moved by keyboard from seam to seam, in their order: asked for at each step, since it is known only then. */
export const seamSteps =
  (keys: () => readonly string[]): KeyboardCoordinateGetter =>
  (event, { context: { over, droppableRects, collisionRect } }) => {
    const by = BY[event.code];
    if (by === undefined) return undefined;
    event.preventDefault();
    const order = keys();
    const at = over ? order.indexOf(String(over.id)) : -1;
    const next = order[Math.max(0, Math.min(order.length - 1, at < 0 ? 0 : at + by))];
    const rect = next === undefined ? undefined : droppableRects.get(next);
    if (!rect || !collisionRect) return undefined;
    // The middle of what is moved comes to the middle of the seam.
    return {
      x: rect.left + rect.width / 2 - collisionRect.width / 2,
      y: rect.top + rect.height / 2 - collisionRect.height / 2,
    };
  };
