import { compile } from '../access/deciding/compile';
import type { Answer } from '../access/deciding/level';
import type { Person } from '../access/deciding/viewer';
import { keyedPerson, kindsOf, type KeyedViewer } from '../access/deciding/viewer-key';
import { matrixOf, unpacked } from '../access/questions/cells';
import type { Definition } from '../model/definition';
import type { Id } from '../model/id';
import type { Steps } from '../steps';

/** Who gets what at one time: a definition, and the people with their roles. */
export interface AccessSnapshot {
  readonly definition: Definition;
  readonly people: readonly Person[];
  /** When that is: what periods are counted at. */
  readonly moment: number;
}

/** A cell that is another: what one viewer gets of one element. */
export interface ChangedCell {
  /** The viewer's key. */
  readonly viewer: string;
  readonly viewerName: string;
  readonly element: Id;
  readonly before: Answer;
  readonly after: Answer;
}

/** What differs between two times. */
export interface Differences {
  /** The first of them. */
  readonly cells: readonly ChangedCell[];
  /** Of all, also those that are not among `cells`. */
  readonly gained: number;
  readonly lost: number;
  /** Is it another level that this viewer has of this element? Told of all, too. */
  readonly isChanged: (viewer: string, element: Id) => boolean;
}

/** What is not there gives nothing. */
export const NOTHING: Answer = { least: 0, most: 0 };

const NOTHING_AT_ALL = new Uint8Array();

/** So many viewers are decided in one step. */
const AT_A_TIME = 200;

/**
 * Which levels differ between two times, whatever has changed: gates, roles, people, periods that are over, elements that
 * came or went. `most` are the cells that are told one by one.
 */
export function* changedCells(
  before: AccessSnapshot,
  after: AccessSnapshot,
  most: number,
): Steps<Differences> {
  const [was, is] = [new Side(before), new Side(after)];
  const elements = [...new Set([...is.numbers.keys(), ...was.numbers.keys()])];
  const places = elements.map((id) => [was.numbers.get(id), is.numbers.get(id)] as const);
  const keys = [...new Set([...is.viewers.keys(), ...was.viewers.keys()])];
  const cells: ChangedCell[] = [];
  const count = { gained: 0, lost: 0 };
  /** By viewer, a byte for each element. */
  const changed = new Map<string, Uint8Array>();
  const placeOf = new Map(elements.map((id, at) => [id, at]));
  for (let n = 0; n < keys.length; n += AT_A_TIME) {
    const some = keys.slice(n, n + AT_A_TIME);
    const [then, now] = [was.rowsOf(some), is.rowsOf(some)];
    for (const viewer of some) {
      const [old, fresh] = [then(viewer), now(viewer)];
      let bytes: Uint8Array | undefined;
      for (const [at, [oldPlace, freshPlace]] of places.entries()) {
        const one = oldPlace === undefined ? 0 : (old[oldPlace] ?? 0);
        const other = freshPlace === undefined ? 0 : (fresh[freshPlace] ?? 0);
        if (one === other) continue;
        if (!bytes) changed.set(viewer, (bytes = new Uint8Array(elements.length)));
        bytes[at] = 1;
        const [before, after] = [unpacked(one), unpacked(other)];
        count[gains({ before, after }) ? 'gained' : 'lost']++;
        if (cells.length === most) continue;
        const viewerName = (is.viewers.get(viewer) ?? was.viewers.get(viewer))?.name ?? viewer;
        cells.push({ viewer, viewerName, element: elements[at] ?? '', before, after });
      }
    }
    yield { done: Math.min(n + AT_A_TIME, keys.length), of: keys.length };
  }
  const isChanged = (viewer: string, element: Id): boolean =>
    changed.get(viewer)?.[placeOf.get(element) ?? -1] === 1;
  return { cells, ...count, isChanged };
}

/** Does it give more than before, of some records or of all? */
export const gains = ({ before, after }: Pick<ChangedCell, 'before' | 'after'>): boolean =>
  after.most > before.most || after.least > before.least;

/** Who gets what at one of the two times. Who is switched off gets what is open to everybody; that is told as theirs. */
class Side {
  readonly viewers: ReadonlyMap<string, KeyedViewer>;
  readonly numbers: ReadonlyMap<Id, number>;
  private readonly compiled;
  private readonly moment: number;

  constructor({ definition, people, moment }: AccessSnapshot) {
    this.moment = moment;
    this.compiled = compile(definition);
    this.numbers = new Map(this.compiled.tree.elements.map(({ id, number }) => [id, number]));
    this.viewers = new Map([...kindsOf(definition), ...people.map(keyedPerson)].map((one) => [one.key, one]));
  }

  /** What some of the viewers get: of each a row of the matrix; of who is not there, an empty one. */
  rowsOf(keys: readonly string[]): (viewer: string) => Uint8Array {
    const asked = keys.flatMap((key) => this.viewers.get(key) ?? []);
    const matrix = matrixOf(
      this.compiled,
      asked.map(({ viewer }) => viewer),
      { moment: this.moment, whenever: true },
    );
    const width = this.numbers.size;
    const rows = new Map(
      asked.map(({ key }, row) => [key, matrix.subarray(row * width, (row + 1) * width)] as const),
    );
    return (viewer) => rows.get(viewer) ?? NOTHING_AT_ALL;
  }
}
