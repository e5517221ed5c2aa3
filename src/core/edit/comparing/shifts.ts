import { type Access, accessOf } from '../../access/deciding/access';
import { compile, type Compiled } from '../../access/deciding/compile';
import { sameAnswer, type Answer } from '../../access/deciding/level';
import type { Circumstances, Viewer } from '../../access/deciding/viewer';
import type { Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import type { AppElement } from '../../model/tree';
import { sameJson } from '../../model/same-json';
import { allSteps, type Steps } from '../../steps';
import { otherTimes } from './other-times';

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
    /** Of the same people it is the same list, wherever they are told of. */
    readonly who: readonly Key[];
    /** Not in the circumstances asked for: at another time, or with another session. */
    readonly elsewhen: boolean;
  }[];
}

/** Whom the shifts are of: who gains somewhere, who loses, and all of them. */
export function moversOf<Key>(
  shifts: readonly Shift<Key>[],
): Record<'gaining' | 'losing' | 'all', ReadonlySet<Key>> {
  const who = (moves: (was: Answer, is: Answer) => boolean): ReadonlySet<Key> => {
    const lists = new Set<readonly Key[]>();
    for (const { groups } of shifts)
      for (const one of groups) if (moves(one.before, one.after)) lists.add(one.who);
    return new Set([...lists].flat());
  };
  return {
    gaining: who((was, is) => is.most > was.most || is.least > was.least),
    losing: who((was, is) => is.most < was.most || is.least < was.least),
    all: who(() => true),
  };
}

const NOTHING: Answer = { least: 0, most: 0 };

/**
 * Whose access to which elements differs between two definitions: in these circumstances or, where nothing differs
 * in them, at another time and with another session. What is in only one of the two gives nothing in the other. A
 * group whose answers are the same gets other records than before.
 */
export const compareReach = <Key>(
  before: Definition,
  after: Definition,
  everybody: readonly Affected<Key>[],
  at: Circumstances,
): Shift<Key>[] => allSteps(reachSteps(before, after, everybody, at));

/** The same, element by element. */
export function* reachSteps<Key>(
  before: Definition,
  after: Definition,
  everybody: readonly Affected<Key>[],
  at: Circumstances,
): Steps<Shift<Key>[]> {
  const [old, now] = [compile(before), compile(after)];
  const elements = new Set([...now.tree.elements, ...old.tree.elements].map((element) => element.id));
  const people = alike(everybody, old, now, at);
  const listOf = lists(people);
  const shifts: Shift<Key>[] = [];
  let done = 0;
  for (const id of elements) {
    yield { done: done++, of: elements.size };
    const [was, is] = [old.tree.get(id), now.tree.get(id)];
    const groups = new Map<
      string,
      { before: Answer; after: Answer; some: Alike<Key>[]; elsewhen: boolean }
    >();
    for (const person of people) {
      const here = differenceOf(person.now, was, is);
      const elsewhen = !here;
      const [then, next] = here ?? differenceElsewhen(person, was, is) ?? [];
      if (!then || !next) continue;
      const key = `${then.least}${then.most}${next.least}${next.most}${elsewhen}`;
      const group = groups.get(key);
      if (group) group.some.push(person);
      else groups.set(key, { before: then, after: next, some: [person], elsewhen });
    }
    if (groups.size > 0)
      shifts.push({
        element: id,
        groups: [...groups.values()].map(({ some, ...group }) => ({ ...group, who: listOf(some) })),
      });
  }
  return shifts;
}

/** Makes one list of those of several sorts; of the same sorts always the same one, since there may be thousands of people. */
function lists<Key>(all: readonly Alike<Key>[]): (some: readonly Alike<Key>[]) => readonly Key[] {
  const numbers = new Map(all.map((one, n) => [one, n] as const));
  const made = new Map<string, readonly Key[]>();
  return (some) => {
    const which = some.map((one) => numbers.get(one)).join(' ');
    let list = made.get(which);
    if (!list) made.set(which, (list = some.flatMap(({ keys }) => keys)));
    return list;
  };
}

/**
 * The same at another time or in another session. What depends on them before and after may depend on others: such is
 * looked for time by time.
 */
function differenceElsewhen<Key>(
  { whenever, otherwise }: Alike<Key>,
  was: AppElement | undefined,
  is: AppElement | undefined,
): [Answer, Answer] | undefined {
  if (!whenever) return undefined;
  const found = differenceOf(whenever, was, is);
  const [old, now] = whenever;
  if (found || !((was && depends(old, was)) || (is && depends(now, is)))) return found;
  for (const sides of otherwise()) {
    const then = differenceOf(sides, was, is);
    if (then) return then;
  }
  return undefined;
}

const depends = (access: Access, element: AppElement): boolean =>
  !sameJson(access.rule(element), access.most.rule(element));

/** What somebody gets of an element before and after, where that is not the same. */
function differenceOf(
  [old, now]: Sides,
  was: AppElement | undefined,
  is: AppElement | undefined,
): [Answer, Answer] | undefined {
  const then = was ? old.answer(was) : NOTHING;
  const next = is ? now.answer(is) : NOTHING;
  const same = sameAnswer(then, next) && (!was || !is || sameRules(old, was, now, is));
  return same ? undefined : [then, next];
}

const sameRules = (old: Access, was: AppElement, now: Access, is: AppElement): boolean =>
  sameJson(old.rule(was), now.rule(is)) && sameJson(old.most.rule(was), now.most.rule(is));

/** Access by the older and by the newer definition. */
type Sides = readonly [Access, Access];

/** People whom nothing tells apart, before and after. */
interface Alike<Key> {
  readonly keys: Key[];
  readonly now: Sides;
  /** With all that depends on time and session left open; undefined where nothing does. */
  readonly whenever: Sides | undefined;
  /** At other times and with other sessions, one by one. */
  readonly otherwise: () => readonly Sides[];
}

/** Those who are alike before and after are decided once. */
function alike<Key>(
  everybody: readonly Affected<Key>[],
  before: Compiled,
  after: Compiled,
  at: Circumstances,
): Alike<Key>[] {
  const whenever = { moment: at.moment, whenever: true };
  const times = once(() => [...otherTimes([before.definition, after.definition], at)]);
  const found = new Map<string, Alike<Key>>();
  for (const { key, viewer } of everybody) {
    const what = JSON.stringify([before.keyOf(viewer, at), after.keyOf(viewer, at)]);
    const known = found.get(what);
    const sides = (when: Circumstances): Sides => [
      accessOf(before, viewer, when),
      accessOf(after, viewer, when),
    ];
    const varies = [before, after].some((one) => one.asksUnknown(viewer, whenever));
    if (known) known.keys.push(key);
    else
      found.set(what, {
        keys: [key],
        now: sides(at),
        whenever: varies ? sides(whenever) : undefined,
        otherwise: once(() => times().map(sides)),
      });
  }
  return [...found.values()];
}

/** Works something out when it is first asked for. */
function once<T>(make: () => T): () => T {
  let made: { readonly value: T } | undefined;
  return () => (made ??= { value: make() }).value;
}
