import type { Level } from '../level';
import { givenBy, type Given } from '../lines';
import type { PlanStep } from '../plan';
import { SOME_RECORD } from '../rule';
import { matches, type AskedAt } from './asked-of-many';
import type { Crowd } from './crowd';
import { ALWAYS, NEVER, type Formulas } from './formulas';

/** Of which records see is given, and edit: formulas by number. */
type Numbers = Given<number>;

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
  private readonly rules: (Numbers | undefined)[] = [];
  private readonly worked: number[] = [];
  private viewer = 0;
  private like: Likeness | undefined;
  private readonly some: number;

  constructor(
    private readonly asked: AskedAt,
    private readonly formulas: Formulas,
    /** The same viewers: what is the same for all records is known from there. */
    private readonly crowd: Crowd,
  ) {
    this.some = formulas.numberOf(SOME_RECORD, 0);
  }

  /** The rules are those of others, but for whom and where they may be unlike. */
  isLike(unlike: Likeness): void {
    this.like = unlike;
  }

  /** Turns to another viewer: from now on all is asked of this one. */
  of(viewer: number): this {
    if (viewer !== this.viewer) {
      for (const step of this.worked) this.rules[step] = undefined;
      this.worked.length = 0;
      this.viewer = viewer;
    }
    return this;
  }

  /** What the lines of the element with this number give, without its containers. */
  given(number: number): Numbers {
    const { asked, formulas, viewer } = this;
    const lines = asked.linesAt(number);
    if (!lines) return FULL;
    const unlocked = asked
      .unlockedAt(number)
      .map(({ see, edit }) => ({ see: see.numbers[viewer] as number, edit: edit.numbers[viewer] as number }));
    return givenBy(
      formulas,
      lines,
      (line) => matches(formulas, line, ({ numbers }) => numbers[viewer] as number),
      unlocked,
    );
  }

  /** What a step of the plan gives. */
  at(step: number): Numbers {
    let rule = this.rules[step];
    if (!rule) {
      rule = this.known(step) ?? this.work(this.asked.plan.steps[step] as PlanStep);
      this.rules[step] = rule;
      this.worked.push(step);
    }
    return rule;
  }

  /** Where it is the same for all records, or the same as elsewhere, it need not be worked out. */
  private known(step: number): Numbers | undefined {
    const level = this.crowd.levelAt(step, this.viewer);
    if (level !== undefined) return BY_LEVEL[level];
    const same = this.like?.likeFor(this.viewer, step);
    return same === undefined ? undefined : this.like?.old.exactly.of(this.viewer).at(same);
  }

  private work({ op, a, b }: PlanStep): Numbers {
    const { both, either } = this.formulas;
    const { compiled, plan } = this.asked;
    switch (op) {
      case 'always':
        return BY_LEVEL[a as Level];
      case 'gate':
        return compiled.hasLines(b) ? this.lower(this.at(a), this.given(b)) : this.at(a);
      case 'carried': {
        const passes = this.asked.passing(a).numbers[this.viewer] as number;
        return { see: passes, edit: passes };
      }
      case 'lower':
        return this.lower(this.at(a), this.at(b));
      case 'higher':
        return plan.many
          .slice(a, b)
          .map((step) => this.at(step))
          .reduce((one, other) => ({ see: either(one.see, other.see), edit: either(one.edit, other.edit) }));
      case 'edit-if': {
        const { see, edit } = this.at(a);
        return { see, edit: both(edit, this.at(b).edit) };
      }
      case 'see-as-edit': {
        const { see } = this.at(a);
        return { see, edit: see };
      }
      case 'least':
        return each(this.at(a), (number) => (number === ALWAYS ? ALWAYS : NEVER));
      case 'most':
        return each(this.at(a), (number) => (number === NEVER ? NEVER : ALWAYS));
      case 'without-record':
        return each(this.at(a), (number) => (number > ALWAYS ? this.some : number));
      case 'constant':
        return asksRecord(this.at(a)) ? FULL : this.at(a);
      case 'asking':
        return asksRecord(this.at(a)) ? this.at(a) : FULL;
      case 'if-own':
        return compiled.hasLines(plan.steps[a]?.b ?? -1) ? this.at(b) : FULL;
      case 'unless-followed':
        return this.at(compiled.hasLines(plan.steps[a]?.b ?? -1) ? a : b);
    }
  }

  private lower(one: Numbers, other: Numbers): Numbers {
    const { both } = this.formulas;
    return { see: both(one.see, other.see), edit: both(one.edit, other.edit) };
  }
}

const FULL: Numbers = { see: ALWAYS, edit: ALWAYS };

const BY_LEVEL: Readonly<Record<Level, Numbers>> = [
  { see: NEVER, edit: NEVER },
  { see: ALWAYS, edit: NEVER },
  FULL,
];

const each = ({ see, edit }: Numbers, turn: (number: number) => number): Numbers => ({
  see: turn(see),
  edit: turn(edit),
});

const asksRecord = ({ see, edit }: Numbers): boolean => see > ALWAYS || edit > ALWAYS;
