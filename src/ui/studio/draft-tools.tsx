'use client';

import { Redo2, Undo2 } from 'lucide-react';
import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import type { Standing } from '@/core/edit/history';
import type { Definition } from '@/core/model/definition';
import { useConfirm } from '../parts/asking';
import type { Tell } from '../parts/toasts';
import { DraftStore, type DraftState } from './draft-store';

const CATCH_UP_MS = 10_000;

/** While the page is made on the server nothing waits. */
const NOWHERE = { getItem: () => null, setItem: () => undefined, removeItem: () => undefined };

/** The draft that a bench works on: kept up to date, with undo by keys, and a warning before unsaved work is left. */
export function useDraft(
  url: string,
  first: { readonly definition: Definition; readonly revision: number; readonly standing: Standing },
  mayChange: boolean,
  tell: Tell,
): { store: DraftStore; draft: DraftState } {
  const confirm = useConfirm();
  const asks = useRef(confirm);
  asks.current = confirm;
  const [store] = useState(
    () =>
      new DraftStore(url, first.definition, first.revision, first.standing, {
        tell,
        confirm: (text) => asks.current({ title: 'Who would get more', text, go: 'Delete it' }),
        keeps: typeof window === 'undefined' ? NOWHERE : window.sessionStorage,
      }),
  );
  useEffect(() => {
    if (mayChange) store.resume();
  }, [store, mayChange]);
  const draft = useSyncExternalStore(store.subscribe, store.read, store.read);
  useEffect(() => {
    const catchUp = (): void => void store.catchUp();
    const timer = setInterval(catchUp, CATCH_UP_MS);
    window.addEventListener('focus', catchUp);
    return () => {
      clearInterval(timer);
      window.removeEventListener('focus', catchUp);
    };
  }, [store]);
  useUndoKeys(store, mayChange);
  useLeaveWarning(draft);
  return { store, draft };
}

export const isTyping = (element: HTMLElement): boolean =>
  element.closest('input, textarea, select, [role=dialog], [role=alertdialog]') !== null &&
  element.closest('.canvas-selects') === null;

function useUndoKeys(store: DraftStore, mayChange: boolean): void {
  useEffect(() => {
    if (!mayChange) return;
    const onKey = (event: globalThis.KeyboardEvent): void => {
      const key = event.key.toLowerCase();
      if (!(event.ctrlKey || event.metaKey) || event.altKey || isTyping(event.target as HTMLElement)) return;
      const turn = key === 'z' ? (event.shiftKey ? 'redo' : 'undo') : key === 'y' ? 'redo' : undefined;
      const { standing, saved } = store.read();
      // While an edit is still being saved there is something to undo, though the server has not said so yet.
      if (!turn || (standing[turn] === undefined && saved === 'saved')) return;
      event.preventDefault();
      store.turn(turn);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [store, mayChange]);
}

/** Leaving while something is not saved yet asks first. */
function useLeaveWarning({ saved }: DraftState): void {
  useEffect(() => {
    if (saved === 'saved') return;
    const onLeave = (event: BeforeUnloadEvent): void => event.preventDefault();
    window.addEventListener('beforeunload', onLeave);
    return () => window.removeEventListener('beforeunload', onLeave);
  }, [saved]);
}

export function SavedState({
  draft,
  waiting,
  released,
  mayChange,
}: {
  draft: DraftState;
  waiting: number;
  released: number | undefined;
  mayChange: boolean;
}) {
  const since =
    released === undefined
      ? 'never released'
      : `${waiting === 0 ? 'no change' : waiting === 1 ? '1 change' : `${waiting} changes`} since release ${released}`;
  const saved = {
    saved: mayChange ? 'Saved' : 'For reading only',
    saving: 'Saving …',
    unreachable: 'Not saved: the server cannot be reached. Trying again …',
    'signed-out': 'Not saved: you are signed out. Sign in in another window, and it is saved.',
  }[draft.saved];
  return (
    <span
      role="status"
      className={draft.saved === 'saved' || draft.saved === 'saving' ? 'text-quiet' : 'font-semibold'}
    >
      {saved}
      {draft.saved === 'saved' && `, ${since}`}
    </span>
  );
}

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
        title="Undo your last change (Ctrl Z)"
      >
        <Undo2 size={15} aria-hidden />
      </button>
      <button
        type="button"
        className={button}
        disabled={redo === undefined}
        onClick={() => store.turn('redo')}
        aria-label="Redo"
        title="Do it again (Ctrl Shift Z)"
      >
        <Redo2 size={15} aria-hidden />
      </button>
    </span>
  );
}
