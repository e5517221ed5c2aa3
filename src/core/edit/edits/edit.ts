import type { Closed, Definition } from '../../model/definition';
import type { Gate, Line } from '../../model/gate';
import type { Id } from '../../model/id';
import type { ElementNode, Slot } from '../../model/slots';

/** The version of the edits' format, kept with each. */
export const EDIT_FORMAT = 3;

/** The document's lists of named things that are no elements. */
export const NAMED_LISTS = [
  'roles',
  'privileges',
  'units',
  'attributes',
  'groups',
  'conditions',
  'sessionValues',
] as const;

type ListName = (typeof NAMED_LISTS)[number];

type ItemOf<L extends ListName> = Definition[L][number];

/** Edits of one thing in one of the lists. */
type ItemEdit = {
  [L in ListName]:
    | {
        readonly do: 'addItem' | 'removeItem';
        readonly list: L;
        readonly at: number;
        readonly item: ItemOf<L>;
      }
    | { readonly do: 'changeItem'; readonly list: L; readonly from: ItemOf<L>; readonly to: ItemOf<L> };
}[ListName];

/** What is set for the whole application. */
type Settings = Partial<
  Pick<
    Definition,
    | 'name'
    | 'currency'
    | 'language'
    | 'timeZone'
    | 'newScreens'
    | 'startScreen'
    | 'signUp'
    | 'unlock'
    | 'standIn'
  >
>;

type SettingsOrNone = { readonly [K in keyof Settings]: Settings[K] | null };

/** An element with all that stands in it, and with the gates of all that. */
interface WholeElement {
  readonly into: Slot;
  readonly at: number;
  readonly node: ElementNode;
  readonly gates: Readonly<Record<Id, Gate>>;
  readonly closed: Readonly<Record<Id, Closed>>;
}

/** What an element is by itself, key by key; null where it lacks one. */
type OwnKeys = Readonly<Record<string, unknown>>;

/** Edits of the shape: of areas, screens and what stands on them, of the menu, of entities with their fields and actions. */
export type ElementEdit =
  | ({ readonly do: 'addElement' } & WholeElement)
  | ({ readonly do: 'removeElement' } & WholeElement)
  /** It takes another place, there or elsewhere. What else it is, is not looked at: who renames it meanwhile is not in the way. */
  | {
      readonly do: 'moveElement';
      readonly id: Id;
      readonly from: Slot & { readonly at: number };
      readonly to: Slot & { readonly at: number };
    }
  /** Only the keys named by both are looked at, and changed. */
  | { readonly do: 'changeElement'; readonly id: Id; readonly from: OwnKeys; readonly to: OwnKeys };

/**
 * One small change of a definition. It names what it expects to find, so that it is refused rather
 * than lose what somebody else put there meanwhile.
 */
export type Edit =
  /** A follower gets lines of its own. */
  | { readonly do: 'startLines'; readonly gate: Id; readonly lines: readonly Line[] }
  /** A gate with just these lines follows again. */
  | { readonly do: 'follow'; readonly gate: Id; readonly lines: readonly Line[] }
  | { readonly do: 'addLine'; readonly gate: Id; readonly line: Line; readonly at: number }
  | { readonly do: 'removeLine'; readonly gate: Id; readonly line: Line; readonly at: number }
  | { readonly do: 'changeLine'; readonly gate: Id; readonly from: Line; readonly to: Line }
  | ItemEdit
  /** A thing in a list takes another place in the builder's order. */
  | {
      readonly do: 'moveItem';
      readonly list: ListName;
      readonly id: Id;
      readonly from: number;
      readonly to: number;
    }
  /** What closed elements show; undefined is left out. */
  | {
      readonly do: 'changeClosed';
      readonly element: Id;
      readonly from?: Closed | undefined;
      readonly to?: Closed | undefined;
    }
  /** The settings named by both; one that is null on a side is not set there. */
  | { readonly do: 'changeSettings'; readonly from: SettingsOrNone; readonly to: SettingsOrNone }
  | ElementEdit
  /** The whole document, as from a file. */
  | { readonly do: 'replace'; readonly from: Definition; readonly to: Definition }
  /** Several that are done, undone and refused as one. */
  | { readonly do: 'together'; readonly edits: readonly Edit[] };

/**
 * The edit that takes this one back, made in the definition that it made.
 *
 * @example
 * const line = { id: 'l1', who: { kind: 'everyone' }, what: 'see' };
 * inverseOf({ do: 'addLine', gate: 's_stores', line, at: 0 }).do // → 'removeLine'
 */
export function inverseOf(edit: Edit): Edit {
  switch (edit.do) {
    case 'startLines':
      return { ...edit, do: 'follow' };
    case 'follow':
      return { ...edit, do: 'startLines' };
    case 'addLine':
      return { ...edit, do: 'removeLine' };
    case 'removeLine':
      return { ...edit, do: 'addLine' };
    case 'addItem':
      return { ...edit, do: 'removeItem' };
    case 'removeItem':
      return { ...edit, do: 'addItem' };
    case 'changeLine':
    case 'changeItem':
    case 'moveItem':
    case 'changeClosed':
    case 'changeSettings':
    case 'moveElement':
    case 'changeElement':
    case 'replace':
      return { ...edit, from: edit.to, to: edit.from } as Edit;
    case 'addElement':
      return { ...edit, do: 'removeElement' };
    case 'removeElement':
      return { ...edit, do: 'addElement' };
    case 'together':
      return { do: 'together', edits: edit.edits.map(inverseOf).reverse() };
  }
}
