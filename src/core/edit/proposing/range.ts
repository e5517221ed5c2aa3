import { accessOf } from '../../access/deciding/access';
import { compile } from '../../access/deciding/compile';
import type { Level } from '../../access/deciding/level';
import type { Circumstances } from '../../access/deciding/viewer';
import type { Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import type { Affected } from '../comparing/access-differences';
import type { Edit } from '../edits/edit';
import { levelReaderFor } from './aim';
import { proposeLevel } from './propose';
import { startLines } from './start';

/** A range of cells of the grid, and the level that all of them are to have. */
export interface RangeWanted<Key> {
  readonly elements: readonly Id[];
  readonly viewers: readonly Affected<Key>[];
  readonly level: Level;
  /** The other columns: they change as little as can be. */
  readonly others: readonly Affected<Key>[];
  readonly at: Circumstances;
}

/** What would give a range of cells its level. */
export interface RangeProposal {
  /** The edits that it takes, one after the other. */
  readonly edits: readonly Edit[];
  /** How many cells do not get it: something around them is narrower, or gives it anyway, or another cell needs that. */
  readonly left: number;
}

/**
 * The edits that give each cell of a range the level, cell by cell, each by `proposeLevel`. Yields how many cells
 * are done, so that whoever asks can show it, let others work in between, or stop.
 *
 * @example
 * const lender = { key: 'lender', viewer: viewerOfRole('lender') };
 * const wanted = { elements: ['s_stores', 's_evenings'], viewers: [lender], level: 1, others: [], at };
 * const steps = proposeRange(LARKFIELD, wanted);
 * steps.next().value // → 0
 * steps.next().value // → 1
 * steps.next().value.left // → 0
 */
export function* proposeRange<Key>(
  definition: Definition,
  { elements, viewers, level, others, at }: RangeWanted<Key>,
): Generator<number, RangeProposal> {
  const before = compile(definition);
  const has = (one: Definition, element: Id, { viewer }: Affected<Key>): boolean => {
    const [was, is] = [accessOf(before, viewer, at), accessOf(compile(one), viewer, at)];
    return levelReaderFor(was, was.element(element), level)(is, is.element(element)) === level;
  };
  const edits: Edit[] = [];
  let now = definition;
  let done = 0;
  for (const element of elements)
    for (const viewer of viewers) {
      yield done++;
      // Who has the level already keeps it.
      const keeping = viewers.filter((one) => one !== viewer && has(now, element, one));
      const start = startLines(now, element);
      const spared = [...others, ...keeping];
      const proposal = proposeLevel(now, {
        element,
        gate: element,
        viewer,
        level,
        others: spared,
        start,
        at,
      });
      if (!proposal) continue;
      now = proposal.definition;
      if (proposal.edit.do !== 'together' || proposal.edit.edits.length > 0) edits.push(proposal.edit);
    }
  // Counted at the end: what one cell needs may have taken it from one before.
  const left = elements.flatMap((element) => viewers.filter((one) => !has(now, element, one))).length;
  return { edits, left };
}
