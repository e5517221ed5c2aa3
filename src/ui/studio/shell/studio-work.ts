'use client';

import { createContext, useEffect, useSyncExternalStore, type RefObject } from 'react';
import { useNeeded } from '../../parts/need-context';
import type { DraftState, DraftStore } from './draft-store';

/** What the palette does on a bench, rather than leaving it for another. */
export interface PaletteActions {
  readonly onElement?: (id: string) => void;
  readonly onViewer?: (key: string) => void;
}

/** What all benches of an application share; it is loaded once, and lives as long as one stays in the application. */
export interface StudioWork {
  /** The application's address. */
  readonly app: string;
  readonly store: DraftStore;
  readonly mayChange: boolean;
  /** Releasing is a right of its own. */
  readonly mayRelease: boolean;
  /** May they manage people, who are live? */
  readonly mayManage: boolean;
  /** Are they the application's owner, who gives rights? */
  readonly owns: boolean;
  /** Is it not released yet, and theirs to change? Then they see the steps to that. */
  readonly isNew: boolean;
  /** The people whom this builder has pinned to the rail, and how to pin others. */
  readonly pins: readonly string[];
  readonly pin: (people: readonly string[]) => void;
  readonly actionsRef: RefObject<PaletteActions>;
}

const StudioContext = createContext<StudioWork | undefined>(undefined);
export const StudioProvider = StudioContext.Provider;

export const useStudio = (): StudioWork => useNeeded(StudioContext, 'Studio');

/** The draft as it is now, with one's own edits in it that are still being saved. */
export function useDraft(): DraftState {
  const { store } = useStudio();
  return useSyncExternalStore(store.subscribe, store.read, store.read);
}

/** Says what the palette does while this bench is open. */
export function usePaletteActions(actions: PaletteActions): void {
  const { actionsRef } = useStudio();
  useEffect(() => {
    actionsRef.current = actions;
    return () => {
      actionsRef.current = {};
    };
  });
}
