'use client';

import { useLatest } from '@/ui/parts/use-latest';
import { useEffect, useState } from 'react';
import type { UndoState } from '@/core/edit';
import type { Definition } from '@/core/model';
import { useConfirm } from '@/ui/parts/asking';
import { useTell } from '@/ui/parts/toasts';
import { DraftStore } from './draft-store';
import { undoesItself } from './is-typing';

/** While the page is made on the server nothing waits. */
const NOWHERE = { getItem: () => null, setItem: () => undefined, removeItem: () => undefined };

/** The draft of the application: kept up to date, with undo by keys, and a warning before unsaved work is left. */
export function useDraftStore(
  app: string,
  first: { readonly definition: Definition; readonly revision: number; readonly standing: UndoState },
  mayChange: boolean,
): DraftStore {
  const tell = useTell();
  const confirm = useConfirm();
  const asks = useLatest(confirm);
  const [store] = useState(
    () =>
      new DraftStore(app, first.definition, first.revision, first.standing, {
        tell,
        confirm: (text) =>
          asks.current({ title: 'This gives some people more access', text, go: 'Delete anyway' }),
        keeps: typeof window === 'undefined' ? NOWHERE : window.sessionStorage,
      }),
  );
  useEffect(() => {
    if (mayChange) store.resume();
  }, [store, mayChange]);
  useUndoKeys(store, mayChange);
  useLeaveWarning(store);
  return store;
}

function useUndoKeys(store: DraftStore, mayChange: boolean): void {
  useEffect(() => {
    if (!mayChange) return;
    const onKey = (event: KeyboardEvent): void => {
      const key = event.key.toLowerCase();
      if (!(event.ctrlKey || event.metaKey) || event.altKey || undoesItself(event.target as HTMLElement))
        return;
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

/** Leaving the studio while something is not saved yet asks first; going from bench to bench leaves nothing. */
function useLeaveWarning(store: DraftStore): void {
  useEffect(() => {
    const onLeave = (event: BeforeUnloadEvent): void => {
      if (store.read().saved !== 'saved') event.preventDefault();
    };
    window.addEventListener('beforeunload', onLeave);
    return () => window.removeEventListener('beforeunload', onLeave);
  }, [store]);
}
