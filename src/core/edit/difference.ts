import type { Access } from '../access/access';
import { compile, type Compiled } from '../access/compile';
import { sameAnswer, type Answer } from '../access/level';
import type { Circumstances, Viewer } from '../access/viewer';
import type { Definition } from '../model/definition';
import { sameLines, type Line } from '../model/gate';
import type { Id } from '../model/id';
import { treeOf, type Tree, type Element } from '../model/tree';
import { sameJson } from '../model/same-json';

/** One thing that differs between two definitions. */
export type Change =
  | {
      readonly kind: 'gate';
      readonly element: Id;
      /** Undefined: it follows. */
      readonly before: readonly Line[] | undefined;
      readonly after: readonly Line[] | undefined;
    }
  | { readonly kind: 'added' | 'removed' | 'changed'; readonly element: Id; readonly name: string }
  | { readonly kind: 'role'; readonly role: Id; readonly name: string };

/** All that differs, in the order of the newer tree. */
export function difference(before: Definition, after: Definition): Change[] {
  const [old, now] = [treeOf(before), treeOf(after)];
  const changes: Change[] = [];
  const reshaped = shapeChanges(old, now);
  const gone = old === now ? [] : old.elements.filter((element) => !now.get(element.id));
  for (const { id } of [...now.elements, ...gone]) {
    const change = reshaped.get(id);
    if (change) changes.push(change);
    const [linesBefore, linesAfter] = [before.gates[id]?.lines, after.gates[id]?.lines];
    if (linesBefore === linesAfter) continue;
    if (linesBefore && linesAfter && sameLines(linesBefore, linesAfter)) continue;
    changes.push({ kind: 'gate', element: id, before: linesBefore, after: linesAfter });
  }
  if (before.roles === after.roles) return changes;
  for (const role of [...after.roles, ...before.roles.filter((one) => !now.role(one.id))])
    if (!sameJson(old.role(role.id), now.role(role.id)))
      changes.push({ kind: 'role', role: role.id, name: role.name });
  return changes;
}

const NO_CHANGES: ReadonlyMap<Id, Change> = new Map();
const compared = new WeakMap<Tree, { readonly old: Tree; readonly changes: ReadonlyMap<Id, Change> }>();

/** What differs but for gates, by element. Kept for two shapes, since drafts mostly differ in gates. */
function shapeChanges(old: Tree, now: Tree): ReadonlyMap<Id, Change> {
  if (old === now) return NO_CHANGES;
  const known = compared.get(now);
  if (known?.old === old) return known.changes;
  const changes = new Map<Id, Change>();
  for (const element of [...old.elements, ...now.elements]) {
    const { id, name } = element;
    const was = old.get(id);
    if (!was) changes.set(id, { kind: 'added', element: id, name });
    else if (!now.get(id)) changes.set(id, { kind: 'removed', element: id, name });
    else if (was.container?.id !== now.get(id)?.container?.id || !sameJson(ownPart(was), ownPart(element)))
      changes.set(id, { kind: 'changed', element: id, name });
  }
  compared.set(now, { old, changes });
  return changes;
}

const HELD = ['screens', 'faces', 'sections', 'parts', 'columns', 'buttons', 'items', 'fields', 'actions'];
const APPLICATION = [
  'name',
  'currency',
  'language',
  'timeZone',
  'newScreens',
  'startScreen',
  'signUp',
  'unlock',
  'standIn',
  'privileges',
  'units',
  'attributes',
  'groups',
  'conditions',
  'sessionValues',
];

/** The element's own part of the document: without the elements in it, and without its gate. */
function ownPart({ kind, node }: Element): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(node).filter(([key]) =>
      kind === 'application' ? APPLICATION.includes(key) : !HELD.includes(key),
    ),
  );
}

/** Somebody whose access is compared: a person with an id of theirs, or a login state. */
export interface Affected<Key> {
  readonly key: Key;
  readonly viewer: Viewer;
}

/** How access to one element changes, and for whom. */
export interface Shift<Key> {
  readonly element: Id;
  readonly groups: readonly {
    readonly before: Answer;
    readonly after: Answer;
    readonly who: readonly Key[];
  }[];
}

const NOTHING: Answer = { least: 0, most: 0 };

/**
 * Whose access to which elements differs between two definitions. What is in only one of them gives
 * nothing in the other. A group whose answers are the same gets other records than before.
 */
export function compareReach<Key>(
  before: Definition,
  after: Definition,
  everybody: readonly Affected<Key>[],
  at: Circumstances,
): Shift<Key>[] {
  const [old, now] = [compile(before), compile(after)];
  const elements = new Set([...now.tree.elements, ...old.tree.elements].map((element) => element.id));
  const people = alike(everybody, old, now, at);
  const shifts: Shift<Key>[] = [];
  for (const id of elements) {
    const [was, is] = [old.tree.get(id), now.tree.get(id)];
    const groups = new Map<string, { before: Answer; after: Answer; who: Key[] }>();
    for (const person of people) {
      const then = was ? person.old.answer(was) : NOTHING;
      const next = is ? person.now.answer(is) : NOTHING;
      if (sameAnswer(then, next) && (!was || !is || sameJson(person.old.rule(was), person.now.rule(is))))
        continue;
      const key = `${then.least}${then.most}${next.least}${next.most}`;
      const group = groups.get(key);
      if (group) group.who.push(...person.keys);
      else groups.set(key, { before: then, after: next, who: [...person.keys] });
    }
    if (groups.size > 0) shifts.push({ element: id, groups: [...groups.values()] });
  }
  return shifts;
}

/** Those who are alike before and after are decided once. */
function alike<Key>(
  everybody: readonly Affected<Key>[],
  before: Compiled,
  after: Compiled,
  at: Circumstances,
): { readonly old: Access; readonly now: Access; readonly keys: Key[] }[] {
  const found = new Map<string, { old: Access; now: Access; keys: Key[] }>();
  for (const { key, viewer } of everybody) {
    const what = JSON.stringify([before.keyOf(viewer, at), after.keyOf(viewer, at)]);
    const known = found.get(what);
    if (known) known.keys.push(key);
    else found.set(what, { old: before.access(viewer, at), now: after.access(viewer, at), keys: [key] });
  }
  return [...found.values()];
}
