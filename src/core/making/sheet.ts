import type { CellKind } from './cell';

/** Rows of texts with a name for each column, as a file has them. */
export interface Sheet {
  /** What the file is called, without its ending: "loan items". */
  readonly name: string;
  readonly columns: readonly string[];
  readonly rows: readonly SheetRow[];
  /** What a column is known to hold, where it is known; else that is guessed. */
  readonly kinds?: readonly (CellKind | undefined)[];
}

export interface SheetRow {
  /** The line of the file, counted from 1, to find it again. */
  readonly line: number;
  readonly cells: readonly string[];
}

/** What stands in a column, cell by cell, without the space around it. */
export const cellsOf = ({ rows }: Sheet, column: number): string[] =>
  rows.map(({ cells }) => cells[column]?.trim() ?? '');
