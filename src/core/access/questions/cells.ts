import type { UnknownAs } from '../../condition/bind';
import { isDataDoor, type AppElement } from '../../model/tree';
import type { Access } from '../deciding/access';
import type { Compiled } from '../deciding/compile';
import type { Answer, Level } from '../deciding/level';
import { AskedOfMany } from '../deciding/many/asked-of-many';
import { ViewerBatch } from '../deciding/many/viewer-batch';
import { shortPlanOf } from '../deciding/many/short-plan';
import { answerOf } from '../deciding/rule';
import type { Circumstances, Viewer } from '../deciding/viewer';

/** One cell of the grid: what a viewer has of an element, and where that comes from. */
export interface Cell {
  readonly answer: Answer;
  /** The element has lines of its own; else it follows. */
  readonly own: boolean;
  /** Its container, or its door, leaves less than its own gate would give. */
  readonly byContainer: boolean;
  readonly byDoor: boolean;
}

/** So many viewers are decided at once. */
const AT_ONCE = 1024;

/** An answer of the matrix: the least in two bits, then the most. */
export const unpacked = (byte: number): Answer => ({ least: (byte & 3) as Level, most: unpackedMost(byte) });

/** The most of an answer of the matrix. */
export const unpackedMost = (byte: number): Level => ((byte >>> 2) & 3) as Level;

/** What the viewer has of the element, with where it comes from. `answer` may be known already, from the matrix. */
export function cellOf(access: Access, element: AppElement, answer = access.answer(element)): Cell {
  const lines = access.compiled.lines(element.id);
  const gate = access.withMost((one) => answerOf(one.gateRule(element)));
  const { container } = element;
  let byContainer = false;
  if (lines && container && !isDataDoor(element)) {
    const given = access.withMost((one) => answerOf(one.held.given(lines, one.compiled.scope(element))));
    byContainer = gate.most < given.most || gate.least < given.least;
  }
  const follows = isDataDoor(element) && !lines;
  const byDoor = !follows && (answer.most < gate.most || answer.least < gate.least);
  return { answer, own: lines !== undefined, byContainer, byDoor };
}

/**
 * The whole matrix: for each viewer, in order, the answers for all elements by their numbers, a byte each.
 * Viewers who are alike are decided once.
 *
 * @example
 * const compiled = compile(LARKFIELD);
 * const matrix = matrixOf(compiled, [viewerOfRole('curator'), viewerOfRole('lender')], at);
 * matrix.length === 2 * compiled.tree.elements.length // → true
 */
export function matrixOf(compiled: Compiled, viewers: readonly Viewer[], at: Circumstances): Uint8Array {
  const width = compiled.tree.elements.length;
  const matrix = new Uint8Array(viewers.length * width);
  /** The place in the matrix where the row of those who are alike stands. */
  const rows = new Map<string, number>();
  const same: [row: number, as: number][] = [];
  viewers.forEach((viewer, n) => {
    const key = compiled.keyOf(viewer, at);
    const as = rows.get(key);
    if (as === undefined) rows.set(key, n);
    else same.push([n, as]);
  });
  const plan = shortPlanOf(compiled, (number) => compiled.hasLines(number));
  const decide = (some: readonly number[], unknown: UnknownAs): void => {
    for (let from = 0; from < some.length; from += AT_ONCE) {
      const which = some.slice(from, from + AT_ONCE);
      const asked = new AskedOfMany(
        compiled,
        plan,
        which.map((row) => viewers[row] as Viewer),
        undefined,
      );
      const crowd = new ViewerBatch(asked.at(at, unknown));
      const rowsFrom = which.map((row) => row * width);
      crowd.writeAnswers(matrix, rowsFrom, unknown === 'for' ? 'most' : 'both');
    }
  };
  const distinct = [...rows.values()];
  decide(distinct, 'against');
  decide(
    distinct.filter((row) => compiled.asksUnknown(viewers[row] as Viewer, at)),
    'for',
  );
  for (const [row, as] of same) matrix.copyWithin(row * width, as * width, (as + 1) * width);
  return matrix;
}
