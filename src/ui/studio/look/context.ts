'use client';

import { useNeeded } from '../../parts/need-context';
import { createContext } from 'react';
import type { Definition } from '@/core/model';
import type { KeptViewer } from '@/core/access';

/** What the parts of the look bench share. */
export interface LookWork {
  readonly app: string;
  /** The draft, with one's own edits that are still being saved. */
  readonly draft: { readonly definition: Definition; readonly revision: number };
  readonly releases: readonly number[];
  readonly kept: readonly KeptViewer[];
  /** Forgets one of them, for all builders. */
  readonly forget: (viewer: KeptViewer) => void;
  readonly mayChange: boolean;
  /** What one may do with the live records. */
  readonly live: 'none' | 'read' | 'change';
  /** Opens the window in which the owner gives that right; absent for others. */
  readonly giveLive: (() => void) | undefined;
  readonly tell: (message: string) => void;
}

const LookContext = createContext<LookWork | undefined>(undefined);
export const LookProvider = LookContext.Provider;

export const useLook = (): LookWork => useNeeded(LookContext, 'Look bench');

/** What is asked about: an element as one pane has it, on a row where it stands in a list. */
export interface InspectedElement {
  readonly element: string;
  readonly pane: number;
  readonly row?: string | undefined;
}
