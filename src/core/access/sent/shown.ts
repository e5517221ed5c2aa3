import type { Id } from '../../model/id';
import type { Value, ValueType } from '../../model/value-type';

/** What a viewer may be sent of a screen, and nothing else. */
export interface ShownScreen {
  readonly id: Id;
  readonly heading: string;
  readonly binds?: { readonly entity: Id; readonly record?: Id };
  /** The faces that are open to the viewer, where there are several. */
  readonly faces?: readonly { readonly id: Id; readonly name: string; readonly shown: boolean }[];
  readonly sections: readonly ShownSection[];
  /** Of the fields that can be written on it, those on which it can depend how the screen is. */
  readonly asks?: readonly Id[];
}

/** Something closed that is shown all the same: with a lock, or with the builder's own text. */
export interface ShownClosed {
  readonly text?: string;
}

/** Its name, and never what it holds. */
interface ShownClosedPart {
  readonly kind: 'closed';
  readonly id: Id;
  readonly name: string;
  readonly closed: ShownClosed;
}

export interface ShownSection {
  readonly id: Id;
  readonly name: string;
  readonly parts: readonly ShownPart[];
}

export type ShownPart =
  ShownField | ShownButton | ShownList | ShownChart | ShownText | ShownPeople | ShownClosedPart;

/** How a value is written. */
export interface ShownInput {
  readonly type: ValueType;
  readonly required: boolean;
}

export interface ShownField {
  readonly kind: 'field';
  readonly id: Id;
  readonly field: Id;
  readonly label: string;
  readonly value: Value | null;
  /** The value in words. */
  readonly text: string;
  readonly align: 'start' | 'end';
  /** How it is edited; absent where it is for reading. */
  readonly input?: ShownInput;
  readonly wide?: boolean;
  readonly help?: string;
}

export interface ShownButton {
  readonly kind: 'button';
  readonly id: Id;
  readonly name: string;
  readonly usable: boolean;
  readonly effect: ShownEffect;
}

export type ShownEffect =
  | { readonly do: 'open'; readonly address: string }
  | { readonly do: 'visit'; readonly url: string }
  | { readonly do: 'save' | 'delete' | 'sign-out' | 'set-session' }
  | { readonly do: 'action'; readonly action: Id; readonly confirm?: string }
  | { readonly do: 'export'; readonly list: Id }
  | {
      readonly do: 'bulk';
      readonly list: Id;
      readonly fields: readonly { readonly field: Id; readonly label: string; readonly input: ShownInput }[];
    };

export interface ShownList {
  readonly kind: 'list';
  readonly id: Id;
  readonly name: string;
  readonly entity: Id;
  readonly columns: readonly ShownColumn[];
}

interface ShownChart {
  readonly kind: 'chart';
  readonly id: Id;
  readonly name: string;
  readonly as: 'bars' | 'line';
  /** What it counts by, and what it shows, in words. */
  readonly by: string;
  readonly shows: string;
}

export interface ShownColumn {
  readonly id: Id;
  readonly field: Id;
  readonly label: string;
  readonly align: 'start' | 'end';
  /** What stands in the cells that this viewer may not see. */
  readonly closed?: ShownClosed;
}

/** The people whom the viewer may look after; `works`: they may change them. */
export interface ShownPeople {
  readonly kind: 'people';
  readonly id: Id;
  readonly name: string;
  readonly works: boolean;
}

interface ShownText {
  readonly kind: 'text';
  readonly id: Id;
  readonly text: string;
}

/** One record in a list. A cell that this viewer may not see on this record is not here. */
export interface ShownRow {
  readonly id: Id;
  readonly cells: Readonly<Record<Id, string>>;
  /** Where the row leads. */
  readonly address?: string;
  readonly buttons: readonly ShownButton[];
  /** Where the screen changes many at once: the fields of this record that this viewer may change. */
  readonly changes?: readonly Id[];
}

/** What stands around a screen. */
export interface ShownFrame {
  /** Of the menu. */
  readonly id: Id;
  readonly name: string;
  readonly menu: readonly ShownMenuItem[];
}

export interface ShownMenuItem {
  readonly id: Id;
  readonly name: string;
  readonly address?: string;
  /** It is closed to the viewer, and shown all the same. */
  readonly closed?: ShownClosed;
  readonly items: readonly ShownMenuItem[];
}
