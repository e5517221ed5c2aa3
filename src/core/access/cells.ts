import { isDataDoor, type Element } from '../model/tree';
import type { Access } from './access';
import type { Compiled } from './compile';
import type { Answer, Level } from './level';
import { answerOf } from './rule';
import type { Circumstances, Viewer } from './viewer';

/** One cell of the grid: what a viewer has of an element, and where that comes from. */
export interface Cell {
  readonly answer: Answer;
  /** The element has lines of its own; else it follows. */
  readonly own: boolean;
  /** Its container, or its door, leaves less than its own gate would give. */
  readonly byContainer: boolean;
  readonly byDoor: boolean;
}

/** An answer in four bits: the least, then the most. */
const packed = ({ least, most }: Answer): number => least | (most << 2);

export const unpacked = (byte: number): Answer => ({
  least: (byte & 3) as Level,
  most: ((byte >>> 2) & 3) as Level,
});

/** What the viewer has of the element, with where it comes from. */
export function cellOf(access: Access, element: Element): Cell {
  const answer = access.answer(element);
  const lines = access.compiled.lines(element.id);
  const gate = answerOf(access.gateRule(element));
  const { container } = element;
  let byContainer = false;
  if (lines && container && !isDataDoor(element)) {
    const given = answerOf(access.held.own(lines, access.compiled.scope(element)));
    byContainer = gate.most < given.most || gate.least < given.least;
  }
  const follows = isDataDoor(element) && !lines;
  const byDoor = !follows && (answer.most < gate.most || answer.least < gate.least);
  return { answer, own: lines !== undefined, byContainer, byDoor };
}

/** A viewer's answers for all elements, by their numbers: a row of the whole matrix, a byte each. */
export function answersOf(access: Access): Uint8Array {
  const row = new Uint8Array(access.compiled.tree.elements.length);
  access.eachAnswer(({ number }, answer) => {
    row[number] = packed(answer);
  });
  return row;
}

/**
 * The whole matrix: for each viewer, in order, the answers for all elements. Viewers who are alike share a row
 * while it is worked out.
 */
export function matrixOf(compiled: Compiled, viewers: readonly Viewer[], at: Circumstances): Uint8Array {
  const width = compiled.tree.elements.length;
  const matrix = new Uint8Array(viewers.length * width);
  const rows = new Map<Access, Uint8Array>();
  viewers.forEach((viewer, n) => {
    const access = compiled.access(viewer, at);
    let row = rows.get(access);
    if (!row) rows.set(access, (row = answersOf(access)));
    matrix.set(row, n * width);
  });
  return matrix;
}
