/** What a CSV file would do, or has done. */
export interface Imported {
  readonly columns: readonly { readonly name: string; readonly field: string | null }[];
  readonly added: number;
  readonly changed: number;
  readonly wrong: readonly { readonly line: number; readonly column: string; readonly says: string }[];
  readonly wrongCount: number;
}
