import type { Closed, Definition } from '../../model/definition';
import type { Line } from '../../model/gate';
import type { Id } from '../../model/id';
import { sameJson } from '../../model/same-json';
import { SLOTS } from '../../model/slots';
import { treeOf, type AppElement, type Tree } from '../../model/tree';
import { NAMED_LISTS } from '../edits/edit';
import { movedAmong } from '../edits/moved';

export type NamedList = (typeof NAMED_LISTS)[number];

/** One key that has another value: undefined where it is not there. */
export interface KeyChange {
  readonly key: string;
  readonly before: unknown;
  readonly after: unknown;
}

/** One thing that differs between two definitions. */
export type Change =
  | {
      readonly kind: 'gate';
      readonly element: Id;
      /** Undefined: it follows. */
      readonly before: readonly Line[] | undefined;
      readonly after: readonly Line[] | undefined;
    }
  /** What it shows to those who do not get it; undefined is left out. */
  | {
      readonly kind: 'closed';
      readonly element: Id;
      readonly before: Closed | undefined;
      readonly after: Closed | undefined;
    }
  | { readonly kind: 'added' | 'removed'; readonly element: Id; readonly name: string }
  | {
      readonly kind: 'changed';
      readonly element: Id;
      readonly name: string;
      readonly keys: readonly KeyChange[];
    }
  /** It stands in another place: among others in what holds it, or in something else. */
  | { readonly kind: 'moved'; readonly element: Id; readonly name: string }
  /** A role, a group, a unit and so on; undefined on the side where it is not there. */
  | {
      readonly kind: 'named';
      readonly list: NamedList;
      readonly id: Id;
      readonly name: string;
      readonly before: Definition[NamedList][number] | undefined;
      readonly after: Definition[NamedList][number] | undefined;
    }
  /** The builder's order of such things. */
  | { readonly kind: 'order'; readonly list: NamedList }
  /** Something that is set for the whole application. */
  | ({ readonly kind: 'setting' } & KeyChange);

/**
 * All that differs: empty only if the two documents are the same, whatever the order of their keys. Elements come in
 * the order of the newer tree.
 *
 * @example
 * difference(LARKFIELD, LARKFIELD) // → []
 * difference(LARKFIELD, { ...LARKFIELD, name: 'Loans' }).map(({ kind }) => kind) // → ['setting']
 */
export function difference(before: Definition, after: Definition): Change[] {
  if (before === after) return [];
  const [old, now] = [treeOf(before), treeOf(after)];
  const changes: Change[] = [];
  const reshaped = shapeChanges(old, now);
  for (const id of idsThatDiffer(before, after, reshaped)) {
    changes.push(...(reshaped.get(id) ?? []));
    const [gateBefore, gateAfter] = [before.gates[id], after.gates[id]];
    if (!sameJson(gateBefore, gateAfter))
      changes.push({ kind: 'gate', element: id, before: gateBefore?.lines, after: gateAfter?.lines });
    const [closedBefore, closedAfter] = [before.closed[id], after.closed[id]];
    if (!sameJson(closedBefore, closedAfter))
      changes.push({ kind: 'closed', element: id, before: closedBefore, after: closedAfter });
  }
  for (const list of NAMED_LISTS) changes.push(...listChanges(list, before[list], after[list]));
  const settings = keyChanges(before, after, (key) => !NO_SETTINGS.has(key));
  return [...changes, ...settings.map((one): Change => ({ kind: 'setting', ...one }))];
}

/** What may have changed, in the order of the newer tree; then what is gone, in that of the older one. */
function idsThatDiffer(before: Definition, after: Definition, reshaped: ReadonlyMap<Id, unknown>): Id[] {
  const ids = new Set(reshaped.keys());
  for (const [was, is] of [
    [before.gates, after.gates],
    [before.closed, after.closed],
  ] as const)
    for (const id of [...Object.keys(was), ...Object.keys(is)]) if (was[id] !== is[id]) ids.add(id);
  const [old, now] = [treeOf(before), treeOf(after)];
  const place = (id: Id): number =>
    now.get(id)?.number ?? now.elements.length + (old.get(id)?.number ?? old.elements.length);
  return [...ids].sort((one, other) => place(one) - place(other));
}

function listChanges(
  list: NamedList,
  before: readonly Definition[NamedList][number][],
  after: readonly Definition[NamedList][number][],
): Change[] {
  if (before === after) return [];
  const changes: Change[] = [];
  const [old, now] = [before, after].map((items) => new Map(items.map((one) => [one.id, one] as const)));
  for (const id of new Set([...after, ...before].map((one) => one.id))) {
    const [was, is] = [old?.get(id), now?.get(id)];
    if (!sameJson(was, is))
      changes.push({ kind: 'named', list, id, name: is?.name ?? was?.name ?? id, before: was, after: is });
  }
  if (movedAmong(before, after).size > 0) changes.push({ kind: 'order', list });
  return changes;
}

function keyChanges(before: object, after: object, counts: (key: string) => boolean): KeyChange[] {
  const [was, is] = [before, after] as [Record<string, unknown>, Record<string, unknown>];
  return [...new Set([...Object.keys(was), ...Object.keys(is)])]
    .filter((key) => counts(key) && !sameJson(was[key], is[key]))
    .map((key) => ({ key, before: was[key], after: is[key] }));
}

const NO_CHANGES: ReadonlyMap<Id, readonly Change[]> = new Map();
const compared = new WeakMap<
  Tree,
  { readonly old: Tree; readonly changes: ReadonlyMap<Id, readonly Change[]> }
>();

/** What differs in the elements themselves, by element. Kept for two shapes, since drafts mostly differ in gates. */
function shapeChanges(old: Tree, now: Tree): ReadonlyMap<Id, readonly Change[]> {
  if (old === now) return NO_CHANGES;
  const known = compared.get(now);
  if (known?.old === old) return known.changes;
  const changes = new Map<Id, Change[]>();
  const put = (change: Change & { readonly element: Id }): void => {
    const found = changes.get(change.element);
    if (found) found.push(change);
    else changes.set(change.element, [change]);
  };
  for (const { id, name } of old.elements) if (!now.get(id)) put({ kind: 'removed', element: id, name });
  for (const element of now.elements) {
    const { id, name } = element;
    const was = old.get(id);
    if (!was) {
      put({ kind: 'added', element: id, name });
      continue;
    }
    if (was.node === element.node && was.container?.id === element.container?.id) continue;
    const keys =
      was.kind === element.kind && element.kind !== 'application'
        ? keyChanges(was.node, element.node, (key) => !HELD.has(key))
        : was.kind === element.kind
          ? []
          : [{ key: 'kind', before: was.kind, after: element.kind }];
    if (keys.length > 0) put({ kind: 'changed', element: id, name, keys });
    if (was.container?.id !== element.container?.id) put({ kind: 'moved', element: id, name });
    else
      for (const held of HELD)
        for (const child of movedAmong(heldBy(was, held), heldBy(element, held)))
          put({ kind: 'moved', element: child, name: now.get(child)?.name ?? child });
  }
  compared.set(now, { old, changes });
  return changes;
}

/** The keys of an element under which its contents stand: these are elements of their own. */
const HELD = new Set<string>(SLOTS);

/** The keys of the document that are compared part by part. */
const NO_SETTINGS = new Set<string>([...NAMED_LISTS, 'areas', 'entities', 'menu', 'gates', 'closed']);

function heldBy({ node }: AppElement, key: string): readonly { readonly id: Id }[] {
  const held = (node as unknown as Record<string, unknown>)[key];
  return Array.isArray(held) ? (held as { id: Id }[]) : [];
}
