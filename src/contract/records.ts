import type { Id, Value } from '@/core/model';
import type { ShownSection } from '@/core/access';

/** What is written to fields of a record, by their ids. */
export type Written = Readonly<Record<Id, unknown>>;

/** A record as the API sends it: only fields that the viewer may see on it. */
export interface SentRecord {
  readonly id: Id;
  /** Another one once something that the viewer may see has changed: its entity tag. */
  readonly version: string;
  /** How people call it, where they may know. */
  readonly label?: string;
  readonly values: Readonly<Record<Id, Value | null>>;
  /** The labels of the records that it points to. */
  readonly labels: Readonly<Record<Id, string>>;
  /** The screen that shows it to this viewer. */
  readonly address?: string;
}

/** A page of records. */
export interface RecordsPage {
  readonly records: readonly SentRecord[];
  readonly total: number;
  readonly page: number;
  readonly size: number;
}

/** It was made, and whoever made it does not see it: that is all there is to say. */
export interface RecordSent {
  readonly sent: true;
}

/** An action took the record out of sight of whoever ran it: that is all there is to say. */
export interface RecordDone {
  readonly done: true;
}

/** So many records of a list may be changed at once. */
export const MOST_CHANGED = 500;

/** A change of many records of a list: which, each as it was seen, and to what. */
export interface BulkChange {
  readonly record?: string;
  readonly records: readonly { readonly id: Id; readonly version: string }[];
  readonly values: Readonly<Record<Id, Value | null>>;
}

/** A record of a list that may be chosen, as it was seen, with what of it may be changed. */
export interface Choice {
  readonly id: Id;
  readonly version: string;
  readonly changes: readonly Id[];
}

/** How a screen would be with the values as they are written. */
export interface BeforeSaving {
  readonly sections: readonly ShownSection[];
}
