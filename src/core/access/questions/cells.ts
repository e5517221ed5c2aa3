import type { Unknown } from '../../condition/bind';
import { isDataDoor, type AppElement } from '../../model/tree';
import type { Access } from '../deciding/access';
import type { Compiled } from '../deciding/compile';
import { AT_ONCE, Crowd } from '../deciding/crowd';
import { Held } from '../deciding/held';
import type { Answer, Level } from '../deciding/level';
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
  let waiting: { row: number; held: Held; what: 'both' | 'most' }[] = [];
  const decide = (): void => {
    const crowd = new Crowd(
      compiled,
      waiting.map(({ held }) => held),
      at,
    );
    waiting.forEach(({ row, what }, n) => crowd.writeAnswers(n, matrix, row * width, what));
    waiting = [];
  };
  const add = (row: number, viewer: Viewer, unknown: Unknown): void => {
    const what = unknown === 'for' ? 'most' : 'both';
    const held = new Held(compiled.definition, viewer, at, unknown);
    if (waiting.push({ row, held, what }) === AT_ONCE) decide();
  };
  viewers.forEach((viewer, n) => {
    const key = compiled.keyOf(viewer, at);
    const as = rows.get(key);
    if (as !== undefined) return void same.push([n, as]);
    rows.set(key, n);
    add(n, viewer, 'against');
    if (compiled.asksUnknown(viewer, at)) add(n, viewer, 'for');
  });
  decide();
  for (const [row, as] of same) matrix.copyWithin(row * width, as * width, (as + 1) * width);
  return matrix;
}
