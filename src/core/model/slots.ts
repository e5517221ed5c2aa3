import type { Definition } from './definition';
import type { Id } from './id';

/** The lists of a document whose members are elements, by what holds them. */
export const SLOTS = [
  'areas',
  'entities',
  'frame',
  'screens',
  'sections',
  'faces',
  'parts',
  'columns',
  'buttons',
  'items',
  'fields',
  'actions',
] as const;
type SlotName = (typeof SLOTS)[number];

/** One of an element's lists; `in: null` is the application's own. */
export interface Slot {
  readonly in: Id | null;
  readonly list: SlotName;
}

/** An element as it stands in the document, with all that stands in it. */
export interface ElementNode {
  readonly id: Id;
  readonly [key: string]: unknown;
}

/** Where an element stands. */
export interface Placed {
  readonly node: ElementNode;
  readonly slot: Slot;
  readonly at: number;
  /** How many stand in that list. */
  readonly of: number;
}

type Holder = Readonly<Record<string, unknown>>;

/**
 * What stands in one of its lists; undefined where it has no such list. A screen without faces has room for some, and
 * an area for one frame.
 */
export function heldIn(holder: Holder, list: SlotName): readonly ElementNode[] | undefined {
  if (list === 'frame') {
    const frame = holder['frame'] as ElementNode | undefined;
    return frame ? [frame] : 'screens' in holder ? [] : undefined;
  }
  const held = holder[list] as readonly ElementNode[] | undefined;
  return held ?? (list === 'faces' && 'sections' in holder && 'address' in holder ? [] : undefined);
}

/** The elements directly in this one, each with its place. */
function* childrenOf(holder: Holder, id: Id | null): Generator<Placed> {
  for (const list of SLOTS) {
    const held = heldIn(holder, list) ?? [];
    for (const [at, node] of held.entries()) yield { node, slot: { in: id, list }, at, of: held.length };
  }
}

/** The elements of a document that stand in nothing else, and its menu's items. */
function* rootsOf(definition: Definition): Generator<Placed> {
  yield* childrenOf(definition as unknown as Holder, null);
  yield* childrenOf(definition.menu as unknown as Holder, definition.menu.id);
}

/** Every element that stands in a list, containers before their contents. */
export function* placedIn(definition: Definition): Generator<Placed> {
  const within = function* (all: Iterable<Placed>): Generator<Placed> {
    for (const one of all) {
      yield one;
      yield* within(childrenOf(one.node, one.node.id));
    }
  };
  yield* within(rootsOf(definition));
}

/** Where an element stands; undefined where there is none with that id. */
export const placeOf = (definition: Definition, id: Id): Placed | undefined =>
  placeIn(definition as unknown as Holder, null, id) ??
  placeIn(definition.menu as unknown as Holder, definition.menu.id, id);

/** As `placeOf`, within a holder. By plain loops: every edit of a large document asks it several times. */
function placeIn(holder: Holder, holderId: Id | null, id: Id): Placed | undefined {
  for (const list of SLOTS) {
    const there = holder[list];
    if (there === undefined) continue;
    const held = (list === 'frame' ? [there] : there) as readonly ElementNode[];
    for (let at = 0; at < held.length; at++) {
      const node = held[at] as ElementNode;
      if (node.id === id) return { node, slot: { in: holderId, list }, at, of: held.length };
      const found = holdsOthers(node) ? placeIn(node, node.id, id) : undefined;
      if (found) return found;
    }
  }
  return undefined;
}

/** The ids of an element and of all that stands in it. */
export function* idsIn(node: ElementNode): Generator<Id> {
  yield node.id;
  for (const one of childrenOf(node, node.id)) yield* idsIn(one.node);
}

/** The element without what stands in it. */
export const ownOf = (node: Holder): Holder =>
  Object.fromEntries(Object.entries(node).filter(([key]) => !(SLOTS as readonly string[]).includes(key)));

/**
 * The document with another list of elements in a slot; undefined where there is no such slot, or no room for as many.
 * What is on the way to it is made anew, all else is shared.
 */
export function withSlot(
  definition: Definition,
  { in: holder, list }: Slot,
  change: (held: readonly ElementNode[]) => readonly ElementNode[],
): Definition | undefined {
  const changed = (one: Holder): Holder | undefined => {
    const held = heldIn(one, list);
    if (!held) return undefined;
    const made = change(held);
    if (list === 'frame' && made.length > 1) return undefined;
    if (list !== 'frame' && list !== 'faces') return { ...one, [list]: made };
    const { [list]: _, ...rest } = one;
    return made.length > 0 ? { ...rest, [list]: list === 'frame' ? made[0] : made } : rest;
  };
  if (holder === null) return changed(definition as unknown as Holder) as unknown as Definition | undefined;
  if (holder === definition.menu.id) {
    const menu = changed(definition.menu as unknown as Holder);
    return menu && { ...definition, menu: menu as unknown as Definition['menu'] };
  }
  return withNode(definition, holder, changed);
}

/** The document with another node in the place of one; undefined where there is none, or none to put there. */
export function withNode(
  definition: Definition,
  id: Id,
  change: (node: ElementNode) => Holder | undefined,
): Definition | undefined {
  const made = withinHolder(definition as unknown as Holder, id, change);
  if (made) return made as unknown as Definition;
  const menu = withinHolder(definition.menu as unknown as Holder, id, change);
  return menu && { ...definition, menu: menu as unknown as Definition['menu'] };
}

/** The holder with another node somewhere in it: what is on the way to it is made anew. As `placeIn`, by plain loops. */
function withinHolder(
  holder: Holder,
  id: Id,
  change: (node: ElementNode) => Holder | undefined,
): Holder | undefined {
  for (const list of SLOTS) {
    const there = holder[list];
    if (there === undefined) continue;
    const held = (list === 'frame' ? [there] : there) as readonly ElementNode[];
    for (let at = 0; at < held.length; at++) {
      const node = held[at] as ElementNode;
      const made =
        node.id === id ? change(node) : holdsOthers(node) ? withinHolder(node, id, change) : undefined;
      if (made) return { ...holder, [list]: list === 'frame' ? made : held.with(at, made as ElementNode) };
    }
  }
  return undefined;
}

/** Of parts and actions, which say what they are, only lists hold others. */
const holdsOthers = (node: ElementNode): boolean => node['kind'] === undefined || node['kind'] === 'list';
