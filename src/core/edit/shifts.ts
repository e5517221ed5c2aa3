import type { Access } from '../access/access';
import { compile, type Compiled } from '../access/compile';
import { sameAnswer, type Answer } from '../access/level';
import type { Circumstances, Viewer } from '../access/viewer';
import type { Definition } from '../model/definition';
import type { Id } from '../model/id';
import type { Element } from '../model/tree';
import { sameJson } from '../model/same-json';

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
      if (sameAnswer(then, next) && (!was || !is || sameRules(person.old, was, person.now, is))) continue;
      const key = `${then.least}${then.most}${next.least}${next.most}`;
      const group = groups.get(key);
      if (group) group.who.push(...person.keys);
      else groups.set(key, { before: then, after: next, who: [...person.keys] });
    }
    if (groups.size > 0) shifts.push({ element: id, groups: [...groups.values()] });
  }
  return shifts;
}

const sameRules = (old: Access, was: Element, now: Access, is: Element): boolean =>
  sameJson(old.rule(was), now.rule(is)) && sameJson(old.most.rule(was), now.most.rule(is));

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
