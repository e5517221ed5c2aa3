import { AskedOfMany } from '../../../access/deciding/many/asked-of-many';
import { Formulas } from '../../../access/deciding/many/formulas';
import type { PlanStep } from '../../../access/deciding/plan';
import type { Circumstances, Viewer } from '../../../access/deciding/viewer';
import type { UnknownAs } from '../../../condition/bind';
import { and, maskOf, membersOf, or, put, without, type Mask } from '../../../mask';
import { Reached } from './reached';
import { Side } from './side';
import type { AnswerSteps, AffectedPlans, TouchedElements } from './touched';
import { asking, linesDiffer, Unlike } from './unlike';

/** Viewers who are compared by two definitions, in one circumstance after the other. */
export class Compared {
  private readonly formulas = new Formulas();
  private readonly old: AskedOfMany;
  private readonly now: AskedOfMany;

  constructor(
    private readonly touched: AffectedPlans,
    private readonly viewers: readonly Viewer[],
  ) {
    this.old = new AskedOfMany(touched.before, touched.plans.old, viewers, this.formulas);
    this.now = new AskedOfMany(touched.after, touched.plans.now, viewers, this.formulas, this.old);
  }

  /** In one circumstance; `touched` may be narrower. */
  at(when: Circumstances, touched = this.touched): SideBySide {
    const [against, speakingFor] = this.ways(when, touched);
    return new SideBySide(touched, maskOf(this.viewers.length), against, speakingFor);
  }

  /** For whom something that was changed gives something else than before, whatever becomes of that. */
  changedFor(when: Circumstances): Mask {
    const ways = this.ways(when, { ...this.touched, old: [], now: [] });
    let found = maskOf(this.viewers.length);
    for (const [step, how] of this.touched.changed) {
      if (how === 'whole') return maskOf(this.viewers.length, true);
      // A door of data that follows is not decided by its own gate at all.
      for (const { old, now } of ways) found = or(found, linesDiffer(old, now, step));
    }
    return found;
  }

  /** With what is not known speaking against the viewers and, where that may matter, for them. */
  private ways(when: Circumstances, touched: AffectedPlans): readonly [Sides, ...Sides[]] {
    const { before, after } = touched;
    const sides = (unknown: UnknownAs): Sides => ({
      old: new Side(this.old.at(when, unknown), touched.old, this.formulas),
      now: new Side(this.now.at(when, unknown), touched.now, this.formulas),
    });
    const open = this.viewers.some((one) => [before, after].some((side) => side.asksUnknown(one, when)));
    return open ? [sides('against'), sides('for')] : [sides('against')];
  }
}

/** Both definitions, as many viewers have them in one circumstance, with what is not known speaking one way. */
interface Sides {
  readonly old: Side;
  readonly now: Side;
}

/** Both sides, and for whom the newer one may give something else. */
interface UnlikeSides extends Sides {
  readonly unlike: Unlike;
}

/** An element, with those of whom it is asked. */
export interface Left {
  readonly element: TouchedElements;
  readonly n: number;
  readonly whom: Mask;
}

/** What many viewers get of the touched elements by both definitions, in one circumstance. */
export class SideBySide {
  private readonly ways: readonly UnlikeSides[];
  /** By definition: of whom a rule may depend on what is not known. */
  private readonly open: Readonly<Record<keyof Sides, Unlike>> | undefined;

  constructor(
    private readonly touched: AffectedPlans,
    private readonly nobody: Mask,
    private readonly against: Sides,
    private readonly speakingFor: Sides = against,
  ) {
    const { same, changed } = touched;
    if (speakingFor !== against) {
      const openOf = (side: keyof Sides): Unlike => {
        const [one, other] = [against[side], speakingFor[side]];
        return new Unlike(
          one,
          other,
          (step) => step,
          (step) => asksUnknown(one, other, step),
        );
      };
      this.open = { old: openOf('old'), now: openOf('now') };
      speakingFor.old.exactly.isLike(this.open.old);
    }
    this.ways = [...new Set([against, speakingFor])].map(({ old, now }) => {
      const unlike = new Unlike(
        old,
        now,
        (step) => same[step] as number,
        (step) => changed.has(step),
      );
      now.exactly.isLike(unlike);
      return { old, now, unlike };
    });
  }

  /** For whom each of the elements is not the same: its answer, or the records for which it is given. */
  differing(asked: readonly Left[]): Mask[] {
    const found = asked.map(({ element, whom }) => and(whom, this.reached(element).differing()));
    const left = asked.map(({ element, whom }, n) =>
      without(and(whom, this.mayDiffer(element)), found[n] as Mask),
    );
    byViewer(left, (n, v) => {
      if (!this.sameRules((asked[n] as Left).element, v)) put(found[n] as Mask, v);
    });
    return found;
  }

  /** Of whom the rule of an element may depend on what is not known. */
  mayDepend({ was, is }: TouchedElements): Mask {
    if (!this.open) return this.nobody;
    return or(was ? this.open.old.at(was.rule) : this.nobody, is ? this.open.now.at(is.rule) : this.nobody);
  }

  /** Of whom of those who may the rule of each element does. */
  depending(asked: readonly Left[]): Mask[] {
    const found = asked.map(() => this.nobody.slice());
    byViewer(
      asked.map(({ whom }) => whom),
      (n, v) => {
        const { was, is } = (asked[n] as Left).element;
        if ((was && !this.sameWhenever('old', was, v)) || (is && !this.sameWhenever('now', is, v)))
          put(found[n] as Mask, v);
      },
    );
    return found;
  }

  /** Who reaches what of an element, before and after. */
  reached({ was, is }: TouchedElements): Reached {
    const reached = new Reached(this.nobody.length);
    const { against, speakingFor } = this;
    if (was) {
      against.old.putReaching(was, 'surely', reached.masks, 0);
      speakingFor.old.putReaching(was, 'perhaps', reached.masks, 2);
    }
    if (is) {
      against.now.putReaching(is, 'surely', reached.masks, 4);
      speakingFor.now.putReaching(is, 'perhaps', reached.masks, 6);
    }
    return reached;
  }

  /** For whom the rule of an element that both have may be another one than before. */
  private mayDiffer({ was, is }: TouchedElements): Mask {
    if (!was || !is) return this.nobody;
    const { same } = this.touched;
    return this.ways
      .map(({ old, now, unlike }) =>
        same[is.rule] === was.rule
          ? unlike.at(is.rule)
          : or(asking(old.crowd.at(was.rule)), asking(now.crowd.at(is.rule))),
      )
      .reduce(or);
  }

  /** Does a viewer get the same however what is not known speaks? */
  private sameWhenever(side: keyof Sides, { rule }: AnswerSteps, viewer: number): boolean {
    const [one, other] = [this.against[side].exactly, this.speakingFor[side].exactly];
    return other.of(viewer).isSame(rule, one, rule);
  }

  private sameRules({ was, is }: TouchedElements, viewer: number): boolean {
    if (!was || !is) return false;
    return this.ways.every(({ old, now }) => now.exactly.of(viewer).isSame(is.rule, old.exactly, was.rule));
  }
}

/** One viewer after the other: what was worked out of one serves all that is asked of them. */
function byViewer(asked: readonly Mask[], ask: (n: number, viewer: number) => void): void {
  const of: number[][] = [];
  asked.forEach((whom, n) => {
    for (const v of membersOf(whom)) (of[v] ??= []).push(n);
  });
  of.forEach((some, v) => {
    for (const n of some) ask(n, v);
  });
}

/** Does what is not known matter to the lines of a step's own gate, or to its filter? */
function asksUnknown({ asked: one }: Side, { asked: other }: Side, step: number): boolean {
  const { op, a, b, inNoUnit } = one.plan.steps[step] as PlanStep;
  if (op === 'carried') return one.passing(a, inNoUnit) !== other.passing(a, inNoUnit);
  return one.gateAt(b, inNoUnit) !== other.gateAt(b, inNoUnit);
}
