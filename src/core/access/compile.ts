import { readClock } from '../condition/clock';
import type { Scope } from '../condition/type';
import type { Closed, Definition } from '../model/definition';
import type { Line } from '../model/gate';
import { isGone } from '../model/gone';
import type { Id } from '../model/id';
import { Tree, type Element } from '../model/tree';
import { Access, type Gates } from './access';
import { Handles } from './handles';
import { Held } from './held';
import { EDIT, NONE, SEE, type Level } from './level';
import { readsOf, type Reads } from './reads';
import { ALWAYS, answerOf, lower, type Rule } from './rule';
import { counts, subjectOf, type Circumstances, type Viewer } from './viewer';

/** For one subject: over numbered elements, what its lines without a condition give and take. A bit set each. */
interface Sets {
  readonly see: Uint32Array;
  readonly edit: Uint32Array;
  readonly cap: Uint32Array;
  readonly block: Uint32Array;
}

/** Whom some lines speak of, with those lines. */
interface Subject {
  readonly who: Line['who'];
  readonly sets: Sets;
  /** The elements that its lines are on. */
  readonly elements: number[];
}

const SET_OF: Readonly<Record<Line['what'], keyof Sets>> = {
  see: 'see',
  edit: 'edit',
  'at-most-see': 'cap',
  block: 'block',
};

/** So many answers are kept for one definition; then it starts anew. */
const MOST_KEPT = 4000;

/**
 * A definition made ready for deciding: each subject's lines as bit sets, so that a viewer is a union
 * of a few sets and one pass down the tree; only lines that depend on a condition, or on the record's
 * unit, are looked at one by one. Element numbers are for memory only. Make one for each release or draft
 * revision, and keep it: viewers who are alike in all that its lines look at share a result.
 */
export class Compiled {
  readonly tree: Tree;
  readonly handles: Handles;
  /** Do conditions ask of records that another one points to? */
  readonly goesSteps: boolean;
  private readonly reads: Reads;
  private readonly shownClosed: ReadonlyMap<Id, Closed>;
  private readonly containers: Int32Array;
  private readonly hasOwn: Uint8Array;
  private readonly subjects = new Map<string, Subject>();
  /** Elements with a line that has a condition. */
  private readonly conditional: number[] = [];
  private readonly kept = new Map<string, Access>();

  constructor(readonly definition: Definition) {
    this.tree = new Tree(definition);
    this.handles = new Handles(this.tree);
    this.reads = readsOf(definition);
    this.goesSteps = this.reads.steps;
    this.shownClosed = new Map(Object.entries(definition.closed));
    const { elements } = this.tree;
    this.containers = Int32Array.from(elements, (one) => one.container?.number ?? -1);
    this.hasOwn = Uint8Array.from(elements, (one) => (this.lines(one.id) ? 1 : 0));
    for (const { id, number } of elements) {
      const lines = this.lines(id) ?? [];
      for (const line of lines) this.addLine(number, line);
      if (lines.some((line) => line.when)) this.conditional.push(number);
    }
  }

  /** The lines of the element's gate, or undefined where it follows. */
  lines(id: Id): readonly Line[] | undefined {
    return Object.hasOwn(this.definition.gates, id) ? this.definition.gates[id]?.lines : undefined;
  }

  /** What those see who do not get the element; undefined where it is left out. */
  closed(id: Id): Closed | undefined {
    return this.shownClosed.get(id);
  }

  /** What the conditions of the element's lines can ask of. */
  scope(element: Element): Scope {
    return { definition: this.definition, entity: this.tree.recordOf(element) };
  }

  /** What this viewer gets. Viewers who are alike in all that matters share one answer. */
  access(viewer: Viewer, circumstances: Circumstances): Access {
    const key = this.keyOf(viewer, circumstances);
    let access = this.kept.get(key);
    if (!access) {
      if (this.kept.size >= MOST_KEPT) this.kept.clear();
      this.kept.set(key, (access = this.unshared(viewer, circumstances)));
    }
    return access;
  }

  /** The same, made for this viewer alone: for explaining, which also tells what does not count now. */
  unshared(viewer: Viewer, circumstances: Circumstances): Access {
    const held = new Held(this.definition, viewer, circumstances);
    return new Access(this, held, this.gates(held));
  }

  /** What tells viewers apart. Who is not named in any line is nobody in particular. */
  private keyOf(viewer: Viewer, { moment, session, unlocked }: Circumstances): string {
    const { reads } = this;
    const time = reads.clock.length === 0 ? '' : this.clockKey(readClock(moment, this.definition.timeZone));
    if (viewer.kind === 'signed-out') return `out ${time}`;
    const { assignments, person, attributes, groups } = viewer;
    const roles: string[] = [];
    for (const one of assignments)
      if (counts(one, moment)) roles.push(one.unit === undefined ? one.role : `${one.role}@${one.unit}`);
    if (roles.length > 1) roles.sort();
    let key = `in ${roles.join(' ')} ${time}`;
    if (person !== undefined && this.subjects.has(`person:${person}`)) key += ` person:${person}`;
    if (groups && groups.length > 0) key += ` groups:${JSON.stringify(groups)}`;
    if (reads.user.length > 0)
      key += attributes ? JSON.stringify(reads.user.map((id) => attributes[id] ?? null)) : '(none)';
    if (reads.session.length > 0) key += JSON.stringify(reads.session.map((id) => session?.[id] ?? null));
    return unlocked && unlocked.length > 0 ? key + JSON.stringify(unlocked) : key;
  }

  private clockKey(clock: ReturnType<typeof readClock>): string {
    return this.reads.clock.map((reading) => clock[reading]).join(' ');
  }

  /** DESIGN 3.2 for every element at once: min(own, container), top down. */
  private gates(held: Held): Gates {
    const { elements } = this.tree;
    const sets: Sets[] = [];
    const slow = new Set(this.conditional);
    for (const { who, sets: its, elements: on } of this.subjects.values()) {
      const spoken = held.isSpokenOf(who);
      const [surely, perhaps] = [spoken('be true'), spoken('not be false')];
      if (surely === true) sets.push(its);
      // In doubt for a line that gives is no; for one that takes away, or by the record's unit, look closer.
      else if (perhaps !== false) for (const n of on) slow.add(n);
    }
    const unlocked = this.unlockedLines(held, slow);
    const levels = new Uint8Array(elements.length);
    const rules = new Map<number, Rule>();
    const outer = new Map<number, Rule>();
    const limitOf = (n: number, container: number): Rule => {
      const above = outer.get(container);
      if (above) outer.set(n, above);
      const limit = rules.get(container) ?? ALWAYS[levels[container] as Level];
      if (!rules.has(container) || !this.changesRecord(elements[n] as Element)) return limit;
      // A list's rows are other records than its screen's: what depends on that one is kept apart.
      outer.set(n, limit);
      return ALWAYS[EDIT];
    };
    if (slow.size === 0) {
      // Nothing asks for a record: levels are enough.
      for (let n = 0; n < levels.length; n++) {
        const container = this.containers[n] as number;
        const limit = container < 0 ? EDIT : (levels[container] as Level);
        levels[n] = this.hasOwn[n] && limit !== NONE ? Math.min(limit, ownLevel(sets, n)) : limit;
      }
      return { levels, rules, outer };
    }
    for (let n = 0; n < levels.length; n++) {
      const container = this.containers[n] as number;
      const limit = container < 0 ? ALWAYS[EDIT] : limitOf(n, container);
      let rule = limit;
      if (this.hasOwn[n] && limit.see !== false) {
        const element = elements[n] as Element;
        const own = slow.has(n)
          ? held.own(this.lines(element.id) ?? [], this.scope(element), unlocked.get(n))
          : ALWAYS[ownLevel(sets, n)];
        rule = lower(limit, own);
      }
      const { least, most } = answerOf(rule);
      levels[n] = most;
      if (least !== most) rules.set(n, rule);
    }
    return { levels, rules, outer };
  }

  /** Is this a list on a screen that shows a record? What is in it is about its rows. */
  private changesRecord(element: Element): boolean {
    return element.kind === 'list' && element.screen?.binds !== undefined;
  }

  /** What this session has unlocked, as rules by element's number; those elements are looked at closely. */
  private unlockedLines(held: Held, slow: Set<number>): Map<number, Rule[]> {
    const rules = new Map<number, Rule[]>();
    for (const { element: id, record, what } of held.circumstances.unlocked ?? []) {
      const element = this.tree.get(id);
      if (!element) continue;
      const where =
        record === undefined ? true : ({ atom: { is: 'record', id: record }, must: 'be true' } as const);
      slow.add(element.number);
      const rule: Rule = { see: where, edit: what === 'edit' ? where : false };
      rules.set(element.number, [...(rules.get(element.number) ?? []), rule]);
    }
    return rules;
  }

  private addLine(n: number, line: Line): void {
    const subject = this.subject(line.who);
    subject.elements.push(n);
    if (line.when || isGone(this.definition, line.who)) return;
    const set = subject.sets[SET_OF[line.what]];
    set[n >>> 5] = (set[n >>> 5] as number) | (1 << (n & 31));
  }

  private subject(who: Line['who']): Subject {
    const key = subjectOf(who);
    const words = (this.containers.length + 31) >>> 5;
    const empty = (): Uint32Array => new Uint32Array(words);
    let subject = this.subjects.get(key);
    if (!subject) {
      const sets = { see: empty(), edit: empty(), cap: empty(), block: empty() };
      this.subjects.set(key, (subject = { who, sets, elements: [] }));
    }
    return subject;
  }
}

/** What the lines without a condition give of one element. */
function ownLevel(held: readonly Sets[], n: number): Level {
  const word = n >>> 5;
  const bit = 1 << (n & 31);
  const has = (set: keyof Sets): boolean => {
    for (const sets of held) if (((sets[set][word] as number) & bit) !== 0) return true;
    return false;
  };
  const given = has('edit') ? EDIT : has('see') ? SEE : NONE;
  if (given === NONE || has('block')) return NONE;
  return has('cap') ? SEE : given;
}

const compiled = new WeakMap<Definition, Compiled>();

/** The compiled form of a definition, made once for each. */
export function compile(definition: Definition): Compiled {
  let found = compiled.get(definition);
  if (!found) compiled.set(definition, (found = new Compiled(definition)));
  return found;
}
