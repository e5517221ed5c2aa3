import { accessOf } from '../../access/deciding/access';
import { compile } from '../../access/deciding/compile';
import { sameAnswer, type Level } from '../../access/deciding/level';
import { Grants } from '../../access/deciding/grants';
import type { Circumstances, Viewer } from '../../access/deciding/viewer';
import type { Definition } from '../../model/definition';
import type { Line, Who } from '../../model/gate';
import type { Id } from '../../model/id';
import type { Affected } from '../comparing/access-differences';
import type { Edit } from '../edits/edit';
import { editLines } from '../edits/make';
import { levelReaderFor } from './aim';
import { candidates, linesApart, newBlocks } from './candidates';
import { cheapest } from './search';

/** The level that somebody is to get on an element, by the lines of one gate. */
export interface LevelWanted<Key> {
  readonly element: Id;
  readonly gate: Id;
  readonly viewer: Affected<Key>;
  readonly level: Level;
  /** Who should change as little as can be. */
  readonly others: readonly Affected<Key>[];
  /** The lines that the gate would start with, if it follows. */
  readonly start: readonly Line[];
  readonly at: Circumstances;
}

export interface Proposal<Key> {
  readonly edit: Edit;
  /** The definition with it made. */
  readonly definition: Definition;
  /** Who else would get another level on the element. */
  readonly others: readonly Key[];
  /** Lines that take something away and were not there: whoever they speak of has no more than that, whatever else gives. */
  readonly blocks: readonly Line[];
}

/** One other person weighs as much as so many lines; a block is the last resort among those that move as many others. */
const ONE_PERSON = 1000;
const ONE_BLOCK = 100;

/**
 * The edit of one gate that gives a viewer this level on an element: the one that changes fewest others, then one that
 * blocks nobody (it takes a line away, narrows or adds one), then fewest lines. Undefined where no such edit reaches the level: something else limits it.
 *
 * @example
 * const lender = { key: 'lender', viewer: viewerOfRole('lender') };
 * const wanted = { element: 's_stores', gate: 's_stores', viewer: lender, level: 1, others: [], start: [], at };
 * proposeLevel(LARKFIELD, wanted)?.edit.do // → 'addLine'
 */
export function proposeLevel<Key>(
  definition: Definition,
  { element, gate, viewer, level, others, start, at }: LevelWanted<Key>,
): Proposal<Key> | undefined {
  const own = Object.hasOwn(definition.gates, gate) ? definition.gates[gate]?.lines : undefined;
  const lines = own ?? start;
  const now = compile(definition);
  const subject = now.tree.get(element);
  if (!subject) return undefined;
  const aim = levelReaderFor(accessOf(now, viewer.viewer, at), subject, level);
  const around = { held: new Grants(definition, viewer.viewer, at), lines, names: namesOf(viewer.viewer) };
  return cheapest(candidates(around, level), (after) => {
    const changedTo = { ...definition, gates: { ...definition.gates, [gate]: { lines: after } } };
    const made = compile(changedTo);
    const then = made.tree.get(element) ?? subject;
    if (aim(accessOf(made, viewer.viewer, at), then) !== level) return undefined;
    const moves = ({ key, viewer: one }: Affected<Key>): boolean =>
      key !== viewer.key &&
      !sameAnswer(accessOf(now, one, at).answer(subject), accessOf(made, one, at).answer(then));
    const moved = others.filter(moves).map(({ key }) => key);
    const blocks = newBlocks(lines, after);
    const cost = moved.length * ONE_PERSON + blocks.length * ONE_BLOCK + linesApart(lines, after);
    return { edit: editLines(gate, own, after), definition: changedTo, others: moved, blocks, cost };
  });
}

/** The ways in which a line can speak of the viewer, widest first. */
function namesOf(viewer: Viewer): Who[] {
  if (viewer.kind === 'signed-out') return [{ kind: 'signed-out' }];
  if (viewer.person !== undefined) return [{ kind: 'person', person: viewer.person }];
  if (viewer.assignments.length === 0) return [{ kind: 'signed-in' }];
  return viewer.assignments.flatMap(({ role }): Who[] => [
    { kind: 'role', role },
    { kind: 'role', role, exactly: true },
  ]);
}
