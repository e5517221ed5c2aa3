import type { Condition } from '../condition/condition';
import type { Gate } from './gate';
import type { Id } from './id';
import type { Value, ValueType } from './value-type';

/** The version of the document's format. */
export const FORMAT = 3;

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
  /** The time zone (IANA name) in which days and times of day are told. */
  readonly timeZone: string;
  readonly newScreens: NewScreens;
  /** Where a person lands whose roles name no start screen. */
  readonly startScreen?: Id;
  /** May people open an account for themselves? */
  readonly signUp: boolean;
  /** Who may open a locked element on somebody else's screen, and for how long. */
  readonly unlock?: { readonly privilege: Id; readonly minutes: number };
  /** Who may look as another person in the released application, how long at most, and whether they may change anything. */
  readonly standIn?: StandIn;
  /** In the builder's order. */
  readonly roles: readonly Role[];
  readonly privileges: readonly PrivilegeGroup[];
  readonly units: readonly Unit[];
  /** What is known of a person beside name, e-mail address and home unit. */
  readonly attributes: readonly Attribute[];
  readonly groups: readonly Group[];
  readonly conditions: readonly NamedCondition[];
  readonly sessionValues: readonly SessionValue[];
  readonly entities: readonly Entity[];
  readonly areas: readonly Area[];
  readonly menu: Menu;
  /** Gates with lines of their own, by the id of their element. An element that is not here follows. */
  readonly gates: Readonly<Record<Id, Gate>>;
  /** What those see who do not get an element, by its id. One that is not here is left out. */
  readonly closed: Readonly<Record<Id, Closed>>;
}

interface StandIn {
  readonly privilege: Id;
  readonly minutes: number;
  /** Else it is for reading only. */
  readonly changes: boolean;
}

export interface Role {
  readonly id: Id;
  readonly name: string;
  readonly description?: string;
  /** Roles whose rights this one gives as well. */
  readonly includes: readonly Id[];
  readonly privileges: readonly Id[];
  /** Every new person gets it. */
  readonly givenToNew?: boolean;
  /** People may join and leave by themselves. */
  readonly joinable?: boolean;
  readonly startScreen?: Id;
  /** Who stands in for somebody with only such roles gets what they get, rather than the lower of both. */
  readonly standInFull?: boolean;
  /**
   * May those with this role who look after people also set what conditions compare: a name, a home unit, the
   * builder's own attributes? It gives power: whoever may, makes somebody whom a condition lets in.
   */
  readonly setsCompared?: boolean;
  /** What those with this role may hand out to others inside the application. */
  readonly handsOut?: readonly HandOut[];
}

/** A role that may be handed out; `notHeld`: also by those who do not hold it themselves. */
export interface HandOut {
  readonly role: Id;
  readonly notHeld?: boolean;
}

/** A named ability that roles hold, asked for by lines and conditions. */
export interface Privilege {
  readonly id: Id;
  readonly name: string;
}

export interface PrivilegeGroup {
  readonly id: Id;
  readonly name: string;
  readonly privileges: readonly Privilege[];
}

/** A part of the organisation, with the parts below it. */
export interface Unit {
  readonly id: Id;
  readonly name: string;
  readonly units: readonly Unit[];
}

/** Something that is known of each person. */
interface Attribute {
  readonly id: Id;
  readonly name: string;
  readonly type: ValueType;
}

/** A named condition on people: who is in it is worked out, never kept. */
export interface Group {
  readonly id: Id;
  readonly name: string;
  readonly condition: Condition;
}

/** A condition to be used in others by its name. One that reads the record says of which entity. */
export interface NamedCondition {
  readonly id: Id;
  readonly name: string;
  readonly entity?: Id;
  readonly condition: Condition;
}

/** Something that a button sets for the session it is pressed in, and that ends by itself. */
interface SessionValue {
  readonly id: Id;
  readonly name: string;
  readonly type: ValueType;
  /** How long it holds, in minutes. */
  readonly minutes: number;
}

/**
 * What a closed element shows: its label and a lock, or the builder's own text when it is used. A closed
 * screen refuses with a text, sends elsewhere, or answers as an address that does not exist.
 */
export type Closed =
  | { readonly show: 'locked' }
  | { readonly show: 'explained'; readonly text: string }
  | { readonly show: 'refused'; readonly text: string }
  | { readonly show: 'sent'; readonly screen: Id }
  | { readonly show: 'secret' };

/** A kind of data. Its own id is the id of its rows door. */
export interface Entity {
  readonly id: Id;
  /** One of them: "Item". */
  readonly name: string;
  /** Many of them: "Items". */
  readonly plural: string;
  /** The text field that names a record to people. */
  readonly labelField: Id;
  /** The field that says to which unit a record belongs. */
  readonly unitField?: Id;
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
  /** What a text that is written must be like. What was stored before stays as it is until it is written again. */
  readonly check?: TextCheck;
}

/** How long a text may be, and what form it must have. */
export interface TextCheck {
  readonly most?: number;
  readonly form?: TextForm;
}

export type TextForm = 'email' | 'web' | 'telephone' | 'digits';

/**
 * Something done to records. Its id is the id of its door. An entity has each of the first three once, and
 * export (as a file) and bulk change (of many at once) at most once.
 */
export type Action = { readonly kind: BuiltIn; readonly id: Id; readonly name: string } | NamedAction;

export type BuiltIn = 'create' | 'update' | 'delete' | 'export' | 'bulk';

/** An action of the builder's own: it sets fields to fixed values (null empties), perhaps after a question. */
interface NamedAction {
  readonly kind: 'named';
  readonly id: Id;
  readonly name: string;
  readonly sets: Readonly<Record<Id, Value | null>>;
  /** What is asked before it is done. */
  readonly confirm?: string;
}

/** Does the action change data? */
export const changesData = (action: Action): boolean =>
  action.kind === 'named' ? Object.keys(action.sets).length > 0 : action.kind !== 'export';

export interface Area {
  readonly id: Id;
  readonly name: string;
  /** What stands around its screens, in place of the application's name and menu. */
  readonly frame?: Frame;
  readonly screens: readonly Screen[];
}

/** A menu of an area's own, under a name of its own. */
export interface Frame extends Menu {
  readonly name: string;
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
  /** What opening it sets for the session. */
  readonly sets?: readonly SessionSetting[];
  /** What every face shows. */
  readonly sections: readonly Section[];
  /** Layouts for different viewers: the first that is open to one is shown, under the sections. */
  readonly faces?: readonly Face[];
}

/** A session value and what it is set to; null takes it away. */
export interface SessionSetting {
  readonly value: Id;
  readonly to: Value | null;
}

export interface Face {
  readonly id: Id;
  readonly name: string;
  readonly sections: readonly Section[];
}

export interface Section {
  readonly id: Id;
  readonly name: string;
  readonly parts: readonly Part[];
}

export type Part = FieldPart | Button | List | Chart | Text | PeoplePart;

/** A field of the screen's record. */
export interface FieldPart {
  readonly kind: 'field';
  readonly id: Id;
  readonly field: Id;
  /** The whole line; else half of it, where its type does not need more. */
  readonly wide?: boolean;
  /** What stands under it, to help those who fill it in. */
  readonly help?: string;
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
  /** Reads or changes the records of a list on the same screen. */
  | { readonly do: 'export' | 'bulk'; readonly list: Id }
  | { readonly do: 'set-session'; readonly value: Id; readonly to: Value | null }
  /** Leads out of the application, to an https address. */
  | { readonly do: 'visit'; readonly url: string }
  | { readonly do: 'sign-out' };

/** Records of one entity; only those that pass the filter, where there is one. */
export interface List {
  readonly kind: 'list';
  readonly id: Id;
  readonly name: string;
  readonly entity: Id;
  readonly filter?: Condition;
  /** The field of its records that points to the screen's record: it shows only those that do. */
  readonly of?: Id;
  readonly columns: readonly Column[];
  /** The record screen that a row leads to. */
  readonly opens?: Id;
  readonly buttons: readonly Button[];
}

/**
 * The records of a list on the same screen, as they are found there, counted by a field: how many they are, or the sum or
 * the average of another field.
 */
export interface Chart {
  readonly kind: 'chart';
  readonly id: Id;
  readonly name: string;
  readonly list: Id;
  /** A choice, a unit, a yes or no; or a day, by its months. */
  readonly by: Id;
  readonly shows: ChartShows;
  /** The number or money of which it shows the sum or the average. */
  readonly of?: Id;
  readonly as: 'bars' | 'line';
}

export type ChartShows = 'count' | 'sum' | 'average';

export interface Column {
  readonly id: Id;
  readonly field: Id;
}

export interface Text {
  readonly kind: 'text';
  readonly id: Id;
  readonly text: string;
}

/** The people whom the viewer may look after, with the roles that they may hand out. */
export interface PeoplePart {
  readonly kind: 'people';
  readonly id: Id;
  readonly name: string;
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
