import { type Access, accessOf } from '../access/deciding/access';
import { compile, type Compiled } from '../access/deciding/compile';
import { NONE, type Level } from '../access/deciding/level';
import { answerOf } from '../access/deciding/rule';
import type { Circumstances } from '../access/deciding/viewer';
import { kindsOf, type KeyedViewer } from '../access/deciding/viewer-key';
import { matrixOf, unpacked } from '../access/questions/cells';
import type { Definition } from '../model/definition';
import type { Line } from '../model/gate';
import { newId, type Id } from '../model/id';
import type { AppElement, Tree } from '../model/tree';

const MOST_NAMED = 3;

/**
 * What checks ask of a definition: what everybody gets at most, at any time and whatever their session holds. Made once
 * for a definition; all answers come from one matrix.
 */
export class Context {
  readonly compiled: Compiled;
  readonly tree: Tree;
  /** Login states, roles and groups, then the people. */
  readonly viewers: readonly KeyedViewer[];
  private readonly at: Circumstances;
  private readonly matrix: Uint8Array;
  private readonly rows: ReadonlyMap<KeyedViewer, number>;

  constructor(
    readonly definition: Definition,
    people: readonly KeyedViewer[],
    moment: number,
  ) {
    this.compiled = compile(definition);
    this.tree = this.compiled.tree;
    this.at = { moment, whenever: true };
    this.viewers = [...kindsOf(definition), ...people];
    this.rows = new Map(this.viewers.map((one, n) => [one, n]));
    const asked = this.viewers.map(({ viewer }) => viewer);
    this.matrix = matrixOf(this.compiled, asked, this.at);
  }

  /** The most that a viewer gets of an element, on any record. */
  most(viewer: KeyedViewer, element: AppElement): Level {
    const row = this.rows.get(viewer) ?? 0;
    return unpacked(this.matrix[row * this.tree.elements.length + element.number] ?? 0).most;
  }

  /** Who gets something of an element, or what is asked of it. */
  whoGets(element: AppElement, from: Level = 1): KeyedViewer[] {
    return this.viewers.filter((viewer) => this.most(viewer, element) >= from);
  }

  /** The most that the element's own gate and its containers give, whatever its door leaves of it. */
  mostByGate(viewer: KeyedViewer, element: AppElement): Level {
    return this.accessOf(viewer).withMost((access) => answerOf(access.gateRule(element))).most;
  }

  /** Does its own gate, rather than what it stands in, hide it from the viewer? */
  isHiddenByOwnLines(viewer: KeyedViewer, element: AppElement): boolean {
    const { container } = element;
    return (
      this.compiled.lines(element.id) !== undefined &&
      this.mostByGate(viewer, element) === NONE &&
      (container === undefined || this.mostByGate(viewer, container) > NONE)
    );
  }

  accessOf({ viewer }: KeyedViewer): Access {
    return accessOf(this.compiled, viewer, this.at);
  }

  element(id: Id): AppElement | undefined {
    return this.tree.get(id);
  }

  /** "Registrar, Curator and 4 more". */
  names(viewers: readonly KeyedViewer[]): string {
    const named = viewers.slice(0, MOST_NAMED).map(({ name }) => name);
    const more = viewers.length - named.length;
    if (more > 0) return `${named.join(', ')} and ${more} more`;
    return named.length < 2 ? named.join('') : `${named.slice(0, -1).join(', ')} and ${named.at(-1)}`;
  }
}

export const keysOf = (viewers: readonly KeyedViewer[]): readonly string[] => viewers.map(({ key }) => key);

/** The same lines as lines of another gate. */
export const copied = (lines: readonly Line[]): readonly Line[] =>
  lines.map((line) => ({ ...line, id: newId() }));
