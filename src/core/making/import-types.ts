import type { Entity } from '../model/definition';
import type { Id } from '../model/id';
import type { DisplayFormat } from '../model/values/formats';
import type { Values } from '../model/value-type';

/** A record as builders have it in a table. */
export interface DataRow {
  readonly id: Id;
  readonly version: number;
  readonly values: Values;
  /** What the records are called that it points to, by the field. */
  readonly labels: Readonly<Record<Id, string>>;
}

export interface DataPage {
  /** As the draft has it, or the release where they are live. */
  readonly entity: Entity;
  readonly manner: DisplayFormat;
  readonly rows: readonly DataRow[];
  /** How many there are in all. */
  readonly total: number;
  readonly page: number;
  readonly size: number;
}

/** What a CSV file would do to the records of an entity, or has done. */
export interface Imported {
  /** Each of its columns, and the field that it goes to; null: it goes to none. */
  readonly columns: readonly { readonly name: string; readonly field: string | null }[];
  readonly added: number;
  readonly changed: number;
  /** What does not fit, the first of it, and how often. */
  readonly wrong: readonly { readonly line: number; readonly column: string; readonly says: string }[];
  readonly wrongCount: number;
}
