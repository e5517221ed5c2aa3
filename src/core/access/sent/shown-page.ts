import type { Id } from '../../model/id';
import type { ValueType } from '../../model/value-type';
import type { ShownRow, ShownScreen } from './shown';

/** A field that a filter can ask of. */
export interface FilterField {
  readonly path: string;
  readonly label: string;
  readonly type: ValueType;
}

/** The rows of one list, and how they were asked for. */
export interface ShownRows {
  readonly rows: readonly (ShownRow & { readonly version: string })[];
  readonly total: number;
  readonly page: number;
  readonly size: number;
  readonly q: string;
  /** A condition over what the viewer may see, in its text form. */
  readonly filter: string;
  /** Why the filter could not be read; then there are no rows. */
  readonly problem?: string;
  /** What can be filtered by: how it is written, what it is called, and its type. */
  readonly filters: readonly FilterField[];
  /** A field's id, with `-` before it when descending. */
  readonly sort: string;
}

/** One bar or point of a chart. */
export interface ChartPoint {
  readonly label: string;
  /** For drawing; `text` is what is read. */
  readonly value: number;
  readonly text: string;
}

/** Something that somebody has unlocked for this session, on one record. */
export interface ShownUnlock {
  readonly element: Id;
  readonly record: Id;
  readonly name: string;
  /** Who did it. */
  readonly by: string;
  /** Milliseconds since 1970. */
  readonly until: number;
}

/** A page of the application, ready to be drawn: all of it may be sent to the viewer. */
export interface ShownPage {
  readonly address: string;
  readonly screen: ShownScreen;
  readonly lists: Readonly<Record<Id, ShownRows>>;
  readonly charts?: Readonly<Record<Id, readonly ChartPoint[]>>;
  /** The version of the screen's record. */
  readonly version?: string;
  /** What is unlocked on it. */
  readonly unlocked?: readonly ShownUnlock[];
  /** Where to go when the record is gone. */
  readonly leaveTo?: string;
}

export type Outcome =
  | { readonly is: 'open'; readonly page: ShownPage }
  /** The screen is closed to this viewer; `text` is what the builder says of it. */
  | { readonly is: 'refused'; readonly text?: string }
  /** The screen is closed, and sends to another that is open. */
  | { readonly is: 'sent'; readonly address: string }
  /** No such address, or a record that is closed: the same. */
  | { readonly is: 'not-there' };
