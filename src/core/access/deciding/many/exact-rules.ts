import { EDIT, NONE } from '../level';
import type { PerLevel } from '../lines';
import type { PlanStep } from '../plan';
import { SOME_RECORD } from '../rule';
import { givenTo, type AskedAt, type AskedGate } from './asked-of-many';
import type { ViewerBatch } from './viewer-batch';
import { ALWAYS, NEVER, type Formulas } from './formulas';

/** Of which records see is given, and edit: formulas by number. */
type Numbers = PerLevel<number>;

/** Where a viewer has the same rule as by other rules. */
interface Likeness {
  readonly old: { readonly exactly: ExactRules };
  /** The step of those that gives this viewer the same as this one; undefined where it may give something else. */
  likeFor(viewer: number, step: number): number | undefined;
}

/**
 * The rules of one viewer after the other, as formulas by number: two rules of a viewer are the same where their numbers
 * are. It works through the same plan as `ViewerAccess`, each step when it is first asked for.
 */
export class ExactRules {
  /** By step, of which records it gives see and edit, where it was worked out in this turn. */
  private readonly see: Int32Array;
  private readonly edit: Int32Array;
  private readonly workedIn: Int32Array;
  private turn = 1;
  private viewer = 0;
  private like: Likeness | undefined;
  private readonly some: number;

  constructor(
    private readonly asked: AskedAt,
    private readonly formulas: Formulas,
    /** The same viewers: what is the same for all records is known from there. */
    private readonly crowd: ViewerBatch,
  ) {
    const { length } = asked.plan.steps;
    this.see = new Int32Array(length);
    this.edit = new Int32Array(length);
    this.workedIn = new Int32Array(length);
    this.some = formulas.numberOf(SOME_RECORD, 0);
  }

  /** The rules are those of others, but for whom and where they may be unlike. */
  isLike(unlike: Likeness): void {
    this.like = unlike;
  }

  /** Turns to another viewer: from now on all is asked of this one. */
  of(viewer: number): this {
    if (viewer !== this.viewer) {
      this.turn++;
      this.viewer = viewer;
    }
    return this;
  }

  /** What a gate gives, without its containers. */
  given(gate: AskedGate | undefined): Numbers {
    return gate ? givenTo(this.formulas, gate, ({ numbers }) => numbers[this.viewer] as number) : FULL;
  }

  /** Does a step give the viewer the same as a step of other rules does? */
  isSame(step: number, other: ExactRules, otherStep: number): boolean {
    this.need(step);
    other.of(this.viewer).need(otherStep);
    return this.see[step] === other.see[otherStep] && this.edit[step] === other.edit[otherStep];
  }

  private need(step: number): void {
    if (this.workedIn[step] === this.turn) return;
    this.workedIn[step] = this.turn;
    // Where it is the same for all records, or the same as elsewhere, it need not be worked out.
    const level = this.crowd.levelAt(step, this.viewer);
    if (level !== undefined)
      return this.put(step, level > NONE ? ALWAYS : NEVER, level === EDIT ? ALWAYS : NEVER);
    const same = this.like?.likeFor(this.viewer, step);
    if (same === undefined || !this.like) return this.work(step, this.asked.plan.steps[step] as PlanStep);
    const other = this.like.old.exactly.of(this.viewer);
    other.need(same);
    this.put(step, other.see[same] as number, other.edit[same] as number);
  }

  private put(step: number, see: number, edit: number): void {
    this.see[step] = see;
    this.edit[step] = edit;
  }

  private work(step: number, { op, a, b, inNoUnit }: PlanStep): void {
    const { both, either } = this.formulas;
    const { compiled, plan } = this.asked;
    switch (op) {
      case 'always':
        // A level asks for no record: it is known from the crowd.
        return;
      case 'gate': {
        this.copy(a, step);
        if (!compiled.hasLines(b)) return;
        const { see, edit } = this.given(this.asked.gateAt(b, inNoUnit));
        return this.put(step, both(this.see[step] as number, see), both(this.edit[step] as number, edit));
      }
      case 'carried': {
        const passes = this.asked.passing(a, inNoUnit).numbers[this.viewer] as number;
        return this.put(step, passes, passes);
      }
      case 'lower':
        this.need(a);
        this.need(b);
        return this.put(
          step,
          both(this.see[a] as number, this.see[b] as number),
          both(this.edit[a] as number, this.edit[b] as number),
        );
      case 'higher': {
        let [see, edit]: [number, number] = [NEVER, NEVER];
        for (let n = a; n < b; n++) {
          const one = plan.many[n] as number;
          this.need(one);
          see = either(see, this.see[one] as number);
          edit = either(edit, this.edit[one] as number);
        }
        return this.put(step, see, edit);
      }
      case 'edit-if':
        this.need(a);
        this.need(b);
        return this.put(step, this.see[a] as number, both(this.edit[a] as number, this.edit[b] as number));
      case 'see-as-edit':
        this.need(a);
        return this.put(step, this.see[a] as number, this.see[a] as number);
      case 'least':
        return this.turned(step, a, (number) => (number === ALWAYS ? ALWAYS : NEVER));
      case 'most':
        return this.turned(step, a, (number) => (number === NEVER ? NEVER : ALWAYS));
      case 'without-record':
        return this.turned(step, a, (number) => (number > ALWAYS ? this.some : number));
      case 'constant':
        this.copy(a, step);
        return this.asksRecord(a) ? this.put(step, ALWAYS, ALWAYS) : undefined;
      case 'asking':
        this.copy(a, step);
        return this.asksRecord(a) ? undefined : this.put(step, ALWAYS, ALWAYS);
      case 'if-own':
        return this.isOwn(a) ? this.copy(b, step) : this.put(step, ALWAYS, ALWAYS);
      case 'unless-followed':
        return this.copy(this.isOwn(a) ? a : b, step);
    }
  }

  private copy(from: number, to: number): void {
    this.need(from);
    this.put(to, this.see[from] as number, this.edit[from] as number);
  }

  private turned(step: number, a: number, turn: (number: number) => number): void {
    this.need(a);
    this.put(step, turn(this.see[a] as number), turn(this.edit[a] as number));
  }

  private asksRecord(step: number): boolean {
    return (this.see[step] as number) > ALWAYS || (this.edit[step] as number) > ALWAYS;
  }

  /** Has the gate of this step lines of its own? */
  private isOwn(step: number): boolean {
    return this.asked.compiled.hasLines(this.asked.plan.steps[step]?.b ?? -1);
  }
}

const FULL: Numbers = { see: ALWAYS, edit: ALWAYS };
