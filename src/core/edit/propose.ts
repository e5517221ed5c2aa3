import { compile } from '../access/compile';
import { sameAnswer, type Level } from '../access/level';
import { Held } from '../access/held';
import type { Circumstances, Viewer } from '../access/viewer';
import type { Definition } from '../model/definition';
import { gives, sameLine, type Line, type What, type Who } from '../model/gate';
import type { Id } from '../model/id';
import type { Affected } from './shifts';
import type { Edit } from './edit';
import { editLines, newLine } from './make';
import { aimAt } from './aim';

export interface Proposal<Key> {
  readonly edit: Edit;
  /** The definition with it made. */
  readonly definition: Definition;
  /** Who else would get another level on the element. */
  readonly others: readonly Key[];
}

/** By level, what gives it and what limits to it. */
const GIVES: Readonly<Record<Level, What | undefined>> = [undefined, 'see', 'edit'];
const LIMITS: Readonly<Record<Level, What | undefined>> = ['block', 'at-most-see', undefined];

/**
 * The edit of one gate that gives a viewer this level on an element: the one that changes fewest
 * others, then fewest lines. `start` are the lines that the gate would start with if it follows.
 * Undefined where no such edit reaches the level: something else limits it.
 */
export function proposeLevel<Key>(
  definition: Definition,
  element: Id,
  gate: Id,
  viewer: Affected<Key>,
  level: Level,
  everybody: readonly Affected<Key>[],
  start: readonly Line[],
  at: Circumstances,
): Proposal<Key> | undefined {
  const before = Object.hasOwn(definition.gates, gate) ? definition.gates[gate]?.lines : undefined;
  const now = compile(definition);
  const subject = now.tree.get(element);
  if (!subject) return undefined;
  let best: (Proposal<Key> & { readonly cost: number }) | undefined;
  const held = new Held(definition, viewer.viewer, at);
  const aim = aimAt(now.access(viewer.viewer, at), subject, level);
  for (const after of candidates(held, before ?? start, level)) {
    const changedTo = { ...definition, gates: { ...definition.gates, [gate]: { lines: after } } };
    const made = compile(changedTo);
    const then = made.tree.get(element) ?? subject;
    if (aim(made.access(viewer.viewer, at), then) !== level) continue;
    const others = everybody
      .filter(
        (one) =>
          one.key !== viewer.key &&
          !sameAnswer(now.access(one.viewer, at).answer(subject), made.access(one.viewer, at).answer(then)),
      )
      .map((one) => one.key);
    const cost = others.length * 1000 + changed(before ?? start, after);
    if (!best || cost < best.cost)
      best = { edit: editLines(gate, before, after), definition: changedTo, others, cost };
    // Nothing is smaller than one line taken away or changed, for nobody else.
    if (cost <= 1) break;
  }
  return best;
}

/** How many lines are added, taken away or changed; adding counts a little more. */
function changed(before: readonly Line[], after: readonly Line[]): number {
  const lost = before.filter((line) => !after.some((one) => sameLine(one, line))).length;
  const added = after.filter((line) => !before.some((one) => one.id === line.id)).length;
  return lost + added * 1.1;
}

/** Line lists that might reach the level: one line taken away, changed or added, with and without what limits. */
function* candidates(held: Held, lines: readonly Line[], level: Level): Generator<readonly Line[]> {
  const { viewer } = held;
  yield lines;
  const [give, limit] = [GIVES[level], LIMITS[level]];
  const speaks = lines.filter((line) => held.isSpokenOf(line.who)('be false') !== true);
  const free = lines.filter((line) => gives(line) || !speaks.includes(line));
  for (const base of free.length === lines.length ? [lines] : [lines, free]) {
    if (base !== lines) yield base;
    for (const line of speaks.filter((one) => base.includes(one))) {
      const without = base.filter((one) => one !== line);
      yield without;
      const others = (['see', 'edit', 'at-most-see', 'block'] as const).filter((what) => what !== line.what);
      for (const what of others) yield base.map((one) => (one === line ? { ...line, what } : one));
      for (const who of give ? namesOf(viewer) : []) yield [...without, newLine(who, give as What)];
    }
    for (const who of namesOf(viewer)) {
      if (give) yield [...base, newLine(who, give)];
      if (limit) yield [...base, newLine(exactly(who), limit)];
    }
  }
}

/** The ways in which a line can speak of the viewer, narrowest last. */
function namesOf(viewer: Viewer): Who[] {
  if (viewer.kind === 'signed-out') return [{ kind: 'signed-out' }];
  if (viewer.person !== undefined) return [{ kind: 'person', person: viewer.person }];
  if (viewer.assignments.length === 0) return [{ kind: 'signed-in' }];
  return viewer.assignments.flatMap(({ role }): Who[] => [
    { kind: 'role', role },
    { kind: 'role', role, exactly: true },
  ]);
}

const exactly = (who: Who): Who => (who.kind === 'role' ? { ...who, exactly: true } : who);
