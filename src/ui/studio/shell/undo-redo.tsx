'use client';

import { Redo2, Undo2 } from 'lucide-react';
import type { DraftState, DraftStore } from './draft-store';

/** Takes back one's own last change, or does it again. */
export function UndoRedo({ store, draft }: { store: DraftStore; draft: DraftState }) {
  const { undo, redo } = draft.standing;
  const button = 'rounded-sm border border-edge p-1 hover:border-ink disabled:border-rule disabled:text-edge';
  return (
    <span role="group" aria-label="Undo and redo" className="flex gap-1">
      <button
        type="button"
        className={button}
        disabled={undo === undefined}
        onClick={() => store.turn('undo')}
        aria-label="Undo"
        title="Undo your last change (Ctrl+Z)"
      >
        <Undo2 size={15} aria-hidden />
      </button>
      <button
        type="button"
        className={button}
        disabled={redo === undefined}
        onClick={() => store.turn('redo')}
        aria-label="Redo"
        title="Redo (Ctrl+Shift+Z)"
      >
        <Redo2 size={15} aria-hidden />
      </button>
    </span>
  );
}
