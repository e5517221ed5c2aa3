'use client';

import { createContext, useContext } from 'react';

/** A row that is chosen: the version seen, and what of it may be changed. */
export interface ChosenRow {
  readonly version: string;
  readonly changes: readonly string[];
}

/** The rows that are chosen on a screen, for changing many at once, by list. */
export interface Chosen {
  /** The lists that can be chosen from, since a button on the screen changes many of them. */
  readonly lists: ReadonlySet<string>;
  readonly rows: ReadonlyMap<string, ReadonlyMap<string, ChosenRow>>;
  readonly choose: (list: string, rows: ReadonlyMap<string, ChosenRow>) => void;
}

const NOTHING: Chosen = { lists: new Set(), rows: new Map(), choose: () => undefined };
const ChosenContext = createContext<Chosen>(NOTHING);
export const ChosenProvider = ChosenContext.Provider;
export const useChosen = (): Chosen => useContext(ChosenContext);
