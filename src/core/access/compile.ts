import type { Definition } from '../model/definition';
import { gives, type Line } from '../model/gate';
import type { Id } from '../model/id';
import { Tree } from '../model/tree';
import { Access } from './access';
import { Handles } from './handles';
import { EDIT, NONE, SEE, type Level } from './level';
import { subjectOf, subjectsOf, type Viewer } from './viewer';

/** For one subject: over numbered elements, what its lines give and take. A bit set each. */
interface Sets {
  readonly see: Uint32Array;
  readonly edit: Uint32Array;
  readonly cap: Uint32Array;
  readonly block: Uint32Array;
}

const SET_OF: Readonly<Record<Line['what'], keyof Sets>> = {
  see: 'see',
  edit: 'edit',
  'at-most-see': 'cap',
  block: 'block',
};

/**
 * A definition made ready for deciding: each subject's lines as bit sets, so that a viewer is a union
 * of a few sets and one pass down the tree. Element numbers are for memory only. Make one for each
 * release or draft revision, and keep it: viewers of the same subjects share a result.
 */
export class Compiled {
  readonly tree: Tree;
  readonly handles: Handles;
  private readonly containers: Int32Array;
  private readonly hasOwn: Uint8Array;
  private readonly subjects = new Map<string, Sets>();
  private readonly shared = new Map<string, Access>();
  private readonly byAssigned = new Map<string, Access>();

  constructor(readonly definition: Definition) {
    this.tree = new Tree(definition);
    this.handles = new Handles(this.tree);
    const { elements } = this.tree;
    this.containers = Int32Array.from(elements, (one) => one.container?.number ?? -1);
    this.hasOwn = Uint8Array.from(elements, (one) => (this.lines(one.id) ? 1 : 0));
    for (const { id, number } of elements)
      for (const line of this.lines(id) ?? []) this.addLine(number, line);
  }

  /** The lines of the element's gate, or undefined where it follows. */
  lines(id: Id): readonly Line[] | undefined {
    return Object.hasOwn(this.definition.gates, id) ? this.definition.gates[id]?.lines : undefined;
  }

  /** What this viewer gets. Viewers who are the same subjects share one answer. */
  access(viewer: Viewer): Access {
    const assigned = this.assignedKey(viewer);
    let access = this.byAssigned.get(assigned);
    if (!access) this.byAssigned.set(assigned, (access = this.accessOfSubjects(viewer)));
    return access;
  }

  /** What tells viewers apart before their roles are unfolded. Who is not named in any line is nobody in particular. */
  private assignedKey(viewer: Viewer): string {
    if (viewer.kind === 'signed-out') return '';
    const { roles, person } = viewer;
    const named = person !== undefined && this.subjects.has(`person:${person}`);
    return `${roles.length > 1 ? [...roles].sort().join(' ') : (roles[0] ?? '(none)')}${named ? ` person:${person}` : ''}`;
  }

  private accessOfSubjects(viewer: Viewer): Access {
    const subjects = subjectsOf(this.definition, viewer).filter((subject) => this.subjects.has(subject));
    const key = `${viewer.kind} ${subjects.join(' ')}`;
    let access = this.shared.get(key);
    if (!access) this.shared.set(key, (access = new Access(this, this.gateResults(subjects))));
    return access;
  }

  /** DESIGN 3.2 for every element at once: min(own, container), top down. */
  private gateResults(subjects: readonly string[]): Uint8Array {
    const held = subjects.map((subject) => this.subjects.get(subject) as Sets);
    const has = (set: keyof Sets, word: number, bit: number): boolean =>
      held.some((sets) => ((sets[set][word] as number) & bit) !== 0);
    const results = new Uint8Array(this.containers.length);
    for (let n = 0; n < results.length; n++) {
      const container = this.containers[n] as number;
      let result = container < 0 ? EDIT : (results[container] as Level);
      if (this.hasOwn[n] && result > NONE) {
        const word = n >>> 5;
        const bit = 1 << (n & 31);
        const given = has('edit', word, bit) ? EDIT : has('see', word, bit) ? SEE : NONE;
        const limit = has('block', word, bit) ? NONE : has('cap', word, bit) ? SEE : EDIT;
        result = Math.min(result, given, limit) as Level;
      }
      results[n] = result;
    }
    return results;
  }

  /** A line on a role that is gone is in doubt: it gives nothing, and takes from everyone. */
  private addLine(n: number, line: Line): void {
    const gone = line.who.kind === 'role' && !this.tree.role(line.who.role);
    if (gone && gives(line)) return;
    const sets = this.setsOf(gone ? 'everyone' : subjectOf(line.who));
    const set = sets[SET_OF[line.what]];
    set[n >>> 5] = (set[n >>> 5] as number) | (1 << (n & 31));
  }

  private setsOf(subject: string): Sets {
    const words = (this.containers.length + 31) >>> 5;
    const empty = (): Uint32Array => new Uint32Array(words);
    let sets = this.subjects.get(subject);
    if (!sets)
      this.subjects.set(subject, (sets = { see: empty(), edit: empty(), cap: empty(), block: empty() }));
    return sets;
  }
}

const compiled = new WeakMap<Definition, Compiled>();

/** The compiled form of a definition, made once for each. */
export function compile(definition: Definition): Compiled {
  let found = compiled.get(definition);
  if (!found) compiled.set(definition, (found = new Compiled(definition)));
  return found;
}
