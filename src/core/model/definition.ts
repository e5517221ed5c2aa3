import type { Condition } from '../condition/condition';
import type { Gate } from './gate';
import type { Id } from './id';
import type { Value, ValueType } from './value';

/** The version of the document's format. */
export const FORMAT = 1;

/** What a new screen's gate starts with. */
export type NewScreens = 'nobody' | 'signed-in' | 'everyone';

/** The whole application as one document. It never changes: an edit makes another one. */
export interface Definition {
  readonly format: typeof FORMAT;
  readonly id: Id;
  readonly name: string;
  /** Currency (ISO 4217) and language (BCP 47) in which values are shown. */
  readonly currency: string;
  readonly language: string;
  readonly newScreens: NewScreens;
  /** Where a person lands whose roles name no start screen. */
  readonly startScreen?: Id;
  /** In the builder's order. */
  readonly roles: readonly Role[];
  readonly entities: readonly Entity[];
  readonly areas: readonly Area[];
  readonly menu: Menu;
  /** Gates with lines of their own, by the id of their element. An element that is not here follows. */
  readonly gates: Readonly<Record<Id, Gate>>;
}

export interface Role {
  readonly id: Id;
  readonly name: string;
  /** Roles whose rights this one gives as well. */
  readonly includes: readonly Id[];
  readonly startScreen?: Id;
}

/** A kind of data. Its own id is the id of its rows door. */
export interface Entity {
  readonly id: Id;
  /** One of them: "Item". */
  readonly name: string;
  /** Many of them: "Items". */
  readonly plural: string;
  /** The text field that names a record to people. */
  readonly labelField: Id;
  readonly fields: readonly EntityField[];
  readonly actions: readonly Action[];
}

/** A field of the data. Its id is the id of its door. */
export interface EntityField {
  readonly id: Id;
  readonly name: string;
  readonly type: ValueType;
  readonly required?: boolean;
  /** What a new record has where its maker wrote nothing. */
  readonly initial?: Value;
  /** For sensitive fields: without lines of its own the door is open to nobody. */
  readonly neverFollows?: boolean;
}

/** Something done to a record. Its id is the id of its door. An entity has each of the first three once. */
export type Action =
  { readonly kind: 'create' | 'update' | 'delete'; readonly id: Id; readonly name: string } | NamedAction;

/** An action of the builder's own: it sets fields to fixed values (null empties). */
export interface NamedAction {
  readonly kind: 'named';
  readonly id: Id;
  readonly name: string;
  readonly sets: Readonly<Record<Id, Value | null>>;
}

export interface Area {
  readonly id: Id;
  readonly name: string;
  readonly screens: readonly Screen[];
}

/**
 * A page with an address of its own. A screen that shows a record has the address
 * `<address>/<record id>`; one that makes a new record, or that has none, just its address.
 */
export interface Screen {
  readonly id: Id;
  readonly name: string;
  readonly address: string;
  readonly binds?: { readonly entity: Id; readonly record: 'existing' | 'new' };
  readonly sections: readonly Section[];
}

export interface Section {
  readonly id: Id;
  readonly name: string;
  readonly parts: readonly Part[];
}

export type Part = FieldPart | Button | List | Text;

/** A field of the screen's record. */
export interface FieldPart {
  readonly kind: 'field';
  readonly id: Id;
  readonly field: Id;
}

export interface Button {
  readonly kind: 'button';
  readonly id: Id;
  readonly name: string;
  readonly effect: Effect;
}

/** What a button does. */
export type Effect =
  | { readonly do: 'open'; readonly screen: Id }
  | { readonly do: 'save' }
  | { readonly do: 'delete' }
  | { readonly do: 'action'; readonly action: Id }
  | { readonly do: 'sign-out' };

/** Records of one entity; only those that pass the filter, where there is one. */
export interface List {
  readonly kind: 'list';
  readonly id: Id;
  readonly name: string;
  readonly entity: Id;
  readonly filter?: Condition;
  readonly columns: readonly Column[];
  /** The record screen that a row leads to. */
  readonly opens?: Id;
  readonly buttons: readonly Button[];
}

export interface Column {
  readonly id: Id;
  readonly field: Id;
}

export interface Text {
  readonly kind: 'text';
  readonly id: Id;
  readonly text: string;
}

export interface Menu {
  readonly id: Id;
  readonly items: readonly MenuItem[];
}

/** Leads to a screen, or holds other items, or both. */
export interface MenuItem {
  readonly id: Id;
  readonly name: string;
  readonly screen?: Id;
  readonly items: readonly MenuItem[];
}
