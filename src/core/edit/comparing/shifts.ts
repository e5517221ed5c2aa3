import { compile } from '../../access/deciding/compile';
import { AT_ONCE } from '../../access/deciding/crowd';
import type { Answer } from '../../access/deciding/level';
import type { Circumstances, Viewer } from '../../access/deciding/viewer';
import type { Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import { allSteps, type Steps } from '../../steps';
import { otherTimes } from './other-times';
import { AskedOfViewers } from './reaching/asked';
import { changedFor, SideBySide } from './reaching/side-by-side';
import { narrowed, touchedBetween, type Touched, type TouchedElement } from './reaching/touched';
import { Shifting } from './reaching/shifting';

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

/**
 * The same, step by step. Only the elements are asked that the changes can reach, of the viewers for whom what was
 * changed makes a difference; those whom nothing of it tells apart are asked once, 32 at a time. Nothing is kept of
 * them but for whom which element differs.
 */
export function* reachSteps<Key>(
  before: Definition,
  after: Definition,
  everybody: readonly Affected<Key>[],
  at: Circumstances,
): Steps<Shift<Key>[]> {
  const touched = touchedBetween(compile(before), compile(after));
  if (touched.elements.length === 0) return [];
  const asked = new AskedOfViewers(touched);
  const isTimed = asked.timed.includes(true);
  const times = isTimed ? [...otherTimes(touched, asked.conditions, at, everybody)] : [];
  const moved = yield* movedBy(touched, everybody, [at, ...times]);
  const sorts = sortsOf(moved, (viewer) => asked.keyOf(viewer));
  const found = new Shifting(touched.elements, sorts.length);
  for (let from = 0; from < sorts.length; from += AT_ONCE) {
    yield { done: from, of: sorts.length };
    const viewers = sorts.slice(from, from + AT_ONCE).map(({ viewer }) => viewer);
    const everyone = viewers.length === AT_ONCE ? -1 : (1 << viewers.length) - 1;
    const now = new SideBySide(touched, viewers, at);
    const same = touched.elements.map((element, n): Left => {
      const differing = now.differing(element, everyone);
      found.add(n, from, differing, now, false);
      return { element, n, whom: everyone & ~differing };
    });
    if (isTimed)
      yield* elsewhen({
        touched,
        viewers,
        from,
        left: same.filter(({ n, whom }) => asked.timed[n] && whom !== 0),
        times,
        at,
        found,
        step: { done: from, of: sorts.length },
      });
  }
  const keysOf = found.lists((which) => which.flatMap((n) => sorts[n]?.keys ?? []));
  return touched.elements.flatMap(({ id }, n): Shift<Key>[] => {
    const groups = keysOf(n);
    return groups.length > 0 ? [{ element: id, groups }] : [];
  });
}

/** Viewers whom nothing tells apart in what is asked of them. */
interface Sort<Key> {
  readonly keys: Key[];
  readonly viewer: Viewer;
  readonly all: Affected<Key>[];
}

function sortsOf<Key>(everybody: readonly Affected<Key>[], keyOf: (viewer: Viewer) => string): Sort<Key>[] {
  const found = new Map<string, Sort<Key>>();
  for (const one of everybody) {
    const what = keyOf(one.viewer);
    let sort = found.get(what);
    if (!sort) found.set(what, (sort = { keys: [], viewer: one.viewer, all: [] }));
    sort.keys.push(one.key);
    sort.all.push(one);
  }
  return [...found.values()];
}

/** Those for whom what was changed gives something else than before, in some of these circumstances. */
function* movedBy<Key>(
  touched: Touched,
  everybody: readonly Affected<Key>[],
  circumstances: readonly Circumstances[],
): Generator<{ done: number; of: number }, readonly Affected<Key>[]> {
  if (touched.reshaped) return everybody;
  const [{ moment } = { moment: 0 }] = circumstances;
  const asked = AskedOfViewers.ofChanges(touched);
  const whens = asked.asksWhen ? [...circumstances, { moment, whenever: true }] : circumstances.slice(0, 1);
  const sorts = sortsOf(everybody, (viewer) => asked.keyOf(viewer));
  const moved = new Set<Affected<Key>>();
  for (let from = 0; from < sorts.length; from += AT_ONCE) {
    const some = sorts.slice(from, from + AT_ONCE);
    const viewers = some.map(({ viewer }) => viewer);
    let differing = 0;
    for (const when of whens) {
      yield { done: 0, of: sorts.length };
      differing |= changedFor(touched, viewers, when);
    }
    some.forEach(({ all }, v) => {
      if ((differing & (1 << v)) !== 0) for (const one of all) moved.add(one);
    });
  }
  return everybody.filter((one) => moved.has(one));
}

/** An element with those for whom no difference was found yet: a bit each. */
interface Left {
  readonly element: TouchedElement;
  readonly n: number;
  readonly whom: number;
}

/** Viewers whose access is compared at other times, where it is the same now. */
interface Elsewhen {
  readonly touched: Touched;
  readonly viewers: readonly Viewer[];
  /** The number of the first of them. */
  readonly from: number;
  readonly left: readonly Left[];
  readonly times: readonly Circumstances[];
  readonly at: Circumstances;
  readonly found: Shifting;
  readonly step: { readonly done: number; readonly of: number };
}

/**
 * The same at another time or in another session: with all of that left open first, then, for what depends on it before
 * and after, time by time.
 */
function* elsewhen({
  touched,
  viewers,
  from,
  left: same,
  times,
  at,
  found,
  step,
}: Elsewhen): Generator<{ done: number; of: number }, void> {
  const among = (some: readonly Left[]): Touched =>
    narrowed(
      touched,
      some.map(({ element }) => element),
    );
  if (same.length === 0) return;
  const whenever = new SideBySide(among(same), viewers, { moment: at.moment, whenever: true });
  let left = same.flatMap(({ element, n, whom }): Left[] => {
    const differing = whenever.differing(element, whom);
    found.add(n, from, differing, whenever, true);
    const open = whenever.depending(element, whom & ~differing);
    return open === 0 ? [] : [{ element, n, whom: open }];
  });
  const some = among(left);
  for (const time of times) {
    if (left.length === 0) return;
    yield step;
    const then = new SideBySide(some, viewers, time);
    left = left.flatMap(({ element, n, whom }) => {
      const differing = then.differing(element, whom);
      found.add(n, from, differing, then, true);
      const still = whom & ~differing;
      return still === 0 ? [] : [{ element, n, whom: still }];
    });
  }
}
