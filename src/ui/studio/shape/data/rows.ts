import type { Entity, Manner, Value } from '@/core/model';

/** A record as the table has it. */
export interface DataRow {
  readonly id: string;
  readonly version: number;
  readonly values: Readonly<Record<string, Value | null>>;
  /** What the records are called that it points to, by the field. */
  readonly labels: Readonly<Record<string, string>>;
}

export interface DataPage {
  readonly entity: Entity;
  readonly manner: Manner;
  readonly rows: readonly DataRow[];
  readonly total: number;
  readonly page: number;
  readonly size: number;
}

export type Kind = 'sample' | 'live';
