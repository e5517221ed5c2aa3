import { readClock } from '../../condition/clock';
import { type Formula, withoutUnits } from '../../condition/formula';
import type { UnknownAs } from '../../condition/bind';
import type { Scope } from '../../condition/type';
import type { Closed, Definition } from '../../model/definition';
import { gives, type Gate, type Line } from '../../model/gate';
import type { Id } from '../../model/id';
import { treeOf, type AppElement, type Tree } from '../../model/tree';
import { Handles } from './handles';
import type { Grants } from './grants';
import { givenBy } from './lines';
import { Plan } from './plan';
import { dependenciesOf, type Dependencies } from './reads';
import { FORMULAS, ruleOf, type Rule } from './rule';
import { counts, isKind, subjectOf, type Circumstances, type Unlocked, type Viewer } from './viewer';

/** The lines of a gate, and for each the number of whom it speaks of. */
export interface CompiledGate {
  readonly lines: readonly Line[];
  readonly subjects: readonly number[];
}

/** How far the plan is worked through, for all who are alike in what the lines look at. Nothing else of them is in it. */
export interface PlanProgress {
  /** By a step's number: a level, or one of the two below. */
  readonly levels: Uint8Array;
  readonly rules: Map<number, Rule>;
  /** By the number of a subject, whether its lines speak of the viewer. */
  readonly spoken: Uint8Array;
}

/** What is not a level: not worked out yet, and different from record to record. */
const UNKNOWN = 255;
export const ASKS_RECORD = 254;

/** How a viewer is spoken of: surely, surely not, or in doubt or for some records only. Not asked yet is 0. */
const SURELY = 1;
const NOT = 2;
const PERHAPS = 3;

/** So many answers are kept for one definition, and so many bytes of them; then it starts anew. */
const MOST_KEPT = 4000;
const MOST_BYTES = 64e6;

/**
 * A definition made ready for deciding: the plan of how, and each gate's lines with their subjects by number,
 * so that whom lines speak of is found out once for a viewer; only lines that depend on a condition, or on the
 * record's unit, are looked at one by one. Element numbers are for memory only. Make one for each release or
 * draft revision, and keep it: viewers who are alike in all that its lines look at share a result.
 */
export class Compiled {
  readonly tree: Tree;
  readonly handles: Handles;
  readonly plan: Plan;
  /** Do conditions ask of records that another one points to? */
  readonly goesSteps: boolean;
  private readonly structure: Structure;
  private readonly reads: Dependencies;
  /** By the element's number. */
  private readonly gates: (CompiledGate | undefined)[];
  private readonly kept = new Map<string, PlanProgress>();

  constructor(readonly definition: Definition) {
    this.tree = treeOf(definition);
    this.structure = structureOf(this.tree);
    this.handles = this.structure.handles;
    this.plan = this.structure.plan;
    this.reads = dependenciesOf(definition);
    this.goesSteps = this.reads.steps;
    this.gates = new Array<undefined>(this.tree.elements.length).fill(undefined);
    for (const [id, gate] of Object.entries(definition.gates)) {
      const element = this.tree.get(id);
      if (element) this.gates[element.number] = this.structure.subjects.compiled(gate);
    }
  }

  /** The lines of the element's gate, or undefined where it follows. */
  lines(id: Id): readonly Line[] | undefined {
    return Object.hasOwn(this.definition.gates, id) ? this.definition.gates[id]?.lines : undefined;
  }

  /** What those see who do not get the element; undefined where it is left out. */
  closed(id: Id): Closed | undefined {
    return Object.hasOwn(this.definition.closed, id) ? this.definition.closed[id] : undefined;
  }

  /** What the conditions of the element's lines can ask of. */
  scope(element: AppElement): Scope {
    return { definition: this.definition, entity: this.tree.recordOf(element) };
  }

  /** What was worked out for viewers like this one, to go on with; nothing, where there was none yet. */
  workedFor(viewer: Viewer, circumstances: Circumstances, unknown: UnknownAs): PlanProgress {
    let key = this.keyOf(viewer, circumstances);
    if (unknown === 'for') key += ' for';
    let worked = this.kept.get(key);
    if (!worked) {
      const bytes = this.kept.size * this.plan.steps.length;
      if (this.kept.size >= MOST_KEPT || bytes > MOST_BYTES) this.kept.clear();
      this.kept.set(key, (worked = this.newlyWorked()));
    }
    return worked;
  }

  /** Nothing worked out yet. */
  newlyWorked(): PlanProgress {
    return {
      levels: new Uint8Array(this.plan.steps.length).fill(UNKNOWN),
      rules: new Map(),
      spoken: new Uint8Array(this.subjects.all.length),
    };
  }

  /** Do lines ask for something that is not known yet of this viewer, so that least and most may differ? */
  asksUnknown(viewer: Viewer, { whenever }: Circumstances): boolean {
    const { user, session, clock } = this.reads;
    if (whenever && session.length + clock.length > 0) return true;
    return isKind(viewer) && user.length + session.length > 0;
  }

  /** What tells viewers apart in this definition, at this moment. Who is not named in any line is nobody in particular. */
  keyOf(viewer: Viewer, circumstances: Circumstances): string {
    const { taken, whenever } = circumstances;
    let key = this.plainKeyOf(viewer, circumstances);
    if (whenever) key += ' whenever';
    if (taken && Object.keys(taken).length > 0) key += ` taken:${JSON.stringify(taken)}`;
    return key;
  }

  private plainKeyOf(viewer: Viewer, { moment, session, unlocked }: Circumstances): string {
    const { reads } = this;
    const time = reads.clock.length === 0 ? '' : this.clockKey(readClock(moment, this.definition.timeZone));
    if (viewer.kind === 'signed-out') return `out ${time}`;
    const { assignments, person, attributes, groups } = viewer;
    const roles: string[] = [];
    for (const one of assignments)
      if (counts(one, moment)) roles.push(one.unit === undefined ? one.role : `${one.role}@${one.unit}`);
    if (roles.length > 1) roles.sort();
    let key = `in ${roles.join(' ')} ${time}`;
    if (person !== undefined && this.subjects.has({ kind: 'person', person })) key += ` person:${person}`;
    if (groups && groups.length > 0) key += ` groups:${JSON.stringify(groups)}`;
    if (reads.user.length > 0)
      key += attributes ? JSON.stringify(reads.user.map((id) => attributes[id] ?? null)) : '(none)';
    if (reads.session.length > 0)
      // Of a kind of viewer, a value that is said to be empty is another thing than one that is not known yet.
      key += JSON.stringify(
        reads.session.map((id) =>
          session && Object.hasOwn(session, id) ? (session[id] ?? null) : attributes ? null : [],
        ),
      );
    return unlocked && unlocked.length > 0 ? key + JSON.stringify(unlocked) : key;
  }

  private clockKey(clock: ReturnType<typeof readClock>): string {
    return this.reads.clock.map((reading) => clock[reading]).join(' ');
  }

  /** The lines of the element with this number, where it has any of its own. */
  gateAt(n: number): CompiledGate | undefined {
    return this.gates[n];
  }

  hasLines(n: number): boolean {
    return this.gates[n] !== undefined;
  }

  /** What the lines of the element with this number give one viewer, with what they have unlocked there. */
  given(held: Grants, spoken: Uint8Array, n: number, inNoUnit = false): Rule {
    const { lines, subjects } = this.gates[n] as CompiledGate;
    const element = this.tree.elements[n] as AppElement;
    const scope = this.scope(element);
    const matches = (line: Line, m: number): Formula => {
      const subject = subjects[m] as number;
      const is = spoken[subject] || this.ask(held, spoken, subject);
      if (is === NOT) return !gives(line);
      return is === SURELY && !line.when ? gives(line) : held.matches(line, scope);
    };
    const unlocked = held.circumstances.unlocked?.filter((one) => one.element === element.id);
    const { see, edit } = givenBy(FORMULAS, lines, matches, unlocked?.map(ruleOfUnlocked));
    return inNoUnit ? ruleOf(withoutUnits(see), withoutUnits(edit)) : ruleOf(see, edit);
  }

  private ask(held: Grants, spoken: Uint8Array, subject: number): number {
    const is = held.isSpokenOf(this.subjects.all[subject] as Line['who']);
    const [yes, no] = [is('be true') === true, is('be false') === true];
    // Of a kind of viewer both may be: what is not known yet speaks for it either way.
    const found = yes === no ? PERHAPS : yes ? SURELY : NOT;
    return (spoken[subject] = found);
  }

  /** Whom lines speak of. */
  get subjects(): Subjects {
    return this.structure.subjects;
  }
}

/** Whom the lines of an application's gates speak of, each with a number. Those of earlier drafts keep theirs. */
class Subjects {
  readonly all: Line['who'][] = [];
  private readonly numbers = new Map<string, number>();
  private readonly known = new WeakMap<Gate, CompiledGate>();

  has(who: Line['who']): boolean {
    return this.numbers.has(subjectOf(who));
  }

  compiled(gate: Gate): CompiledGate {
    let found = this.known.get(gate);
    if (!found) {
      found = { lines: gate.lines, subjects: gate.lines.map(({ who }) => this.number(who)) };
      this.known.set(gate, found);
    }
    return found;
  }

  private number(who: Line['who']): number {
    const key = subjectOf(who);
    let number = this.numbers.get(key);
    if (number === undefined) this.numbers.set(key, (number = this.all.push(who) - 1));
    return number;
  }
}

/** What a session has unlocked, as a rule: for that record alone. */
export function ruleOfUnlocked({ record, what }: Unlocked): Rule {
  const where: Formula = { atom: { is: 'record', id: record }, must: 'be true' };
  return ruleOf(where, what === 'edit' ? where : false);
}

interface Structure {
  readonly subjects: Subjects;
  readonly handles: Handles;
  readonly plan: Plan;
}

const structures = new WeakMap<Tree, Structure>();

/** What does not change with the gates' lines. */
function structureOf(tree: Tree): Structure {
  let found = structures.get(tree);
  if (!found) {
    const handles = new Handles(tree);
    found = { subjects: new Subjects(), handles, plan: new Plan(tree, handles) };
    structures.set(tree, found);
  }
  return found;
}

const compiled = new WeakMap<Definition, Compiled>();

/**
 * The compiled form of a definition, made once for each: what all deciding starts from. The definition has to be sound
 * (`readDefinition`, `unsound`); of one that is not, it may throw.
 *
 * @example
 * const { tree } = compile(LARKFIELD);
 * tree.get('s_items')?.kind // → 'screen'
 * compile(LARKFIELD) === compile(LARKFIELD) // → true
 */
export function compile(definition: Definition): Compiled {
  let found = compiled.get(definition);
  if (!found) compiled.set(definition, (found = new Compiled(definition)));
  return found;
}
