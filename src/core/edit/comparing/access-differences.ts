import { compile } from '../../access/deciding/compile';
import type { Answer } from '../../access/deciding/level';
import type { Circumstances, Viewer } from '../../access/deciding/viewer';
import { and, isEmpty, maskOf, membersOf, without, type Mask } from '../../mask';
import type { Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import { allSteps, type Steps } from '../../steps';
import { otherTimes } from './other-times';
import { AskedOfViewers } from './reaching/asked';
import { Compared, type Left, type SideBySide } from './reaching/side-by-side';
import { narrowed, touchedBetween, type AffectedPlans } from './reaching/touched';
import { Shifting } from './reaching/shifting';

/** Somebody whose access is compared: a person with an id of theirs, or a login state. */
export interface Affected<Key> {
  readonly key: Key;
  readonly viewer: Viewer;
}

/** How access to one element changes, and for whom. */
export interface AccessDifference<Key> {
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
export function viewersAffected<Key>(
  shifts: readonly AccessDifference<Key>[],
): Record<'gaining' | 'losing' | 'all', ReadonlySet<Key>> {
  const who = (moves: (was: Answer, is: Answer) => boolean): ReadonlySet<Key> => {
    const lists = new Set<readonly Key[]>();
    for (const { groups } of shifts)
      for (const one of groups) if (moves(one.before, one.after)) lists.add(one.who);
    const found = new Set<Key>();
    for (const list of lists) for (const key of list) found.add(key);
    return found;
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
): AccessDifference<Key>[] => allSteps(reachSteps(before, after, everybody, at));

/**
 * The same, step by step. Only the elements are asked that the changes can reach, of the viewers for whom what was
 * changed makes a difference; those whom nothing of it tells apart are asked once, and many at a time. Nothing is kept
 * of them but for whom which element differs.
 */
export function* reachSteps<Key>(
  before: Definition,
  after: Definition,
  everybody: readonly Affected<Key>[],
  at: Circumstances,
): Steps<AccessDifference<Key>[]> {
  const touched = touchedBetween(compile(before), compile(after));
  if (touched.elements.length === 0) return [];
  const asked = new AskedOfViewers(touched);
  const isTimed = asked.timed.includes(true);
  const times = isTimed ? [...otherTimes(touched, asked.conditions, at, everybody)] : [];
  const moved = yield* movedBy(touched, everybody, [at, ...times]);
  const sorts = sortsOf(moved, asked);
  const found = new Shifting(touched.sorts, sorts.length);
  for (const some of partsOf(sorts))
    yield* compareSome(touched, asked, some, isTimed ? [at, whenever(at), ...times] : [at], found);
  const keysOf = found.lists((which) => which.flatMap((n) => sorts[n]?.keys ?? []));
  const groupsOf = new Map(touched.sorts.map((one, n) => [one, keysOf(n)]));
  return touched.elements.flatMap(({ id, of }): AccessDifference<Key>[] => {
    const groups = groupsOf.get(of) ?? [];
    return groups.length > 0 ? [{ element: id, groups }] : [];
  });
}

/** So many viewers are compared at once. */
const AT_ONCE = 1024;

/** With all open that depends on the time or on a session. */
const whenever = ({ moment }: Circumstances): Circumstances => ({ moment, whenever: true });

/** Viewers whom nothing tells apart in what is asked of them. */
interface Sort<Key> {
  readonly keys: Key[];
  readonly viewer: Viewer;
  readonly all: Affected<Key>[];
}

function sortsOf<Key>(everybody: readonly Affected<Key>[], asked: AskedOfViewers): Sort<Key>[] {
  const found = new Map<string, Sort<Key>>();
  for (const one of everybody) {
    const viewer = asked.asAsked(one.viewer);
    const what = asked.keyOf(viewer);
    let sort = found.get(what);
    if (!sort) found.set(what, (sort = { keys: [], viewer, all: [] }));
    sort.keys.push(one.key);
    sort.all.push(one);
  }
  return [...found.values()];
}

/** Some of the sorts, of which the first is the `from`-th of so many. */
interface Some<Key> {
  readonly sorts: readonly Sort<Key>[];
  readonly viewers: readonly Viewer[];
  readonly from: number;
  readonly of: number;
}

function* partsOf<Key>(sorts: readonly Sort<Key>[]): Generator<Some<Key>, void> {
  for (let from = 0; from < sorts.length; from += AT_ONCE) {
    const some = sorts.slice(from, from + AT_ONCE);
    yield { sorts: some, viewers: some.map(({ viewer }) => viewer), from, of: sorts.length };
  }
}

/** Those for whom what was changed gives something else than before, in some of these circumstances. */
function* movedBy<Key>(
  touched: AffectedPlans,
  everybody: readonly Affected<Key>[],
  [at, ...times]: readonly [Circumstances, ...Circumstances[]],
): Generator<{ done: number; of: number }, readonly Affected<Key>[]> {
  if (touched.reshaped) return everybody;
  const asked = AskedOfViewers.ofChanges(touched);
  const whens = asked.asksWhen ? [at, whenever(at), ...times] : [at];
  const moved = new Set<Affected<Key>>();
  for (const { sorts, viewers, of } of partsOf(sortsOf(everybody, asked))) {
    const compared = new Compared(touched, viewers);
    const changed = new Set<number>();
    for (const when of whens) {
      if (changed.size === viewers.length) break;
      yield { done: 0, of };
      for (const v of membersOf(compared.changedFor(when))) changed.add(v);
    }
    for (const v of changed) for (const one of sorts[v]?.all ?? []) moved.add(one);
  }
  return everybody.filter((one) => moved.has(one));
}

/**
 * Notes for whom of some viewers which element differs: now; with all left open that depends on the time or on a
 * session; and then, for what depends on it before or after, time by time.
 */
function* compareSome<Key>(
  touched: AffectedPlans,
  asked: AskedOfViewers,
  { viewers, from, of }: Some<Key>,
  whens: readonly Circumstances[],
  found: Shifting,
): Generator<{ done: number; of: number }, void> {
  const compared = new Compared(touched, viewers);
  const everyone = maskOf(viewers.length, true);
  let left = touched.sorts.map((element, n): Left => ({ element, n, whom: everyone }));
  let open: SideBySide | undefined;
  for (const [round, when] of whens.entries()) {
    if (left.length === 0) return;
    yield { done: from + (viewers.length * round) / whens.length, of };
    const elements = left.map(({ element }) => element);
    const side = compared.at(when, round === 0 ? touched : narrowed(touched, elements));
    const differing = side.differing(left);
    // At one time only those can differ for whom the time makes a difference at all.
    const told = open
      ? open.depending(left.map((one, m) => ({ ...one, whom: differing[m] as Mask })))
      : differing;
    left.forEach(({ n }, m) => found.add(n, from, told[m] as Mask, side, round > 0));
    if (when.whenever) open = side;
    left = left
      .map(({ element, n, whom }, m): Left => {
        const same = without(whom, differing[m] as Mask);
        return { element, n, whom: when.whenever ? and(same, side.mayDepend(element)) : same };
      })
      .filter(({ n, whom }) => asked.timed[n] && !isEmpty(whom));
  }
}
