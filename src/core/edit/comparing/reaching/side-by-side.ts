import { unsharedAccessOf, type Access } from '../../../access/deciding/access';
import type { Compiled } from '../../../access/deciding/compile';
import { Crowd, type Bits } from '../../../access/deciding/crowd';
import { Held } from '../../../access/deciding/held';
import type { Answer, Level } from '../../../access/deciding/level';
import type { Given } from '../../../access/deciding/lines';
import type { PlanStep } from '../../../access/deciding/plan';
import { ALWAYS, type Rule } from '../../../access/deciding/rule';
import type { Circumstances, Viewer } from '../../../access/deciding/viewer';
import type { Unknown } from '../../../condition/bind';
import { sameJson } from '../../../model/same-json';
import type { AppElement } from '../../../model/tree';
import type { Touched, TouchedElement } from './touched';

const ALL = -1;
const FULL: Bits = { surely: ALL, perhaps: ALL };

/** Of up to 32 viewers, by a bit each: who surely and who perhaps reaches see, and edit. */
interface Words {
  readonly see: number;
  readonly maySee: number;
  readonly edit: number;
  readonly mayEdit: number;
}

const NOTHING: Words = { see: 0, maySee: 0, edit: 0, mayEdit: 0 };

/** One of the two definitions, as a crowd of viewers has it. */
class Side {
  readonly crowd: Crowd;
  private readonly held: readonly Held[];
  private readonly spoken: Uint8Array[];

  constructor(
    private readonly compiled: Compiled,
    viewers: readonly Viewer[],
    at: Circumstances,
    unknown: Unknown,
    steps: readonly number[],
  ) {
    this.held = viewers.map((viewer) => new Held(compiled.definition, viewer, at, unknown));
    this.crowd = new Crowd(compiled, this.held, at, steps);
    this.spoken = viewers.map(() => new Uint8Array(compiled.subjects.all.length));
  }

  /** What the lines of an element's own gate give, without its containers. */
  given({ number }: AppElement): Given<Bits> {
    return this.compiled.hasLines(number) ? this.crowd.given(number) : { see: FULL, edit: FULL };
  }

  givenTo(n: number, { number }: AppElement): Rule {
    if (!this.compiled.hasLines(number)) return ALWAYS[2];
    return this.compiled.given(this.held[n] as Held, this.spoken[n] as Uint8Array, number);
  }

  /** The answers for an element. */
  words({ number }: AppElement): Words {
    const { rules, outers } = this.compiled.plan;
    const { see, maySee, edit, mayEdit } = this.crowd;
    const [rule, outer] = [rules[number] as number, outers[number] as number];
    return {
      see: (see[rule] as number) & (see[outer] as number),
      maySee: (maySee[rule] as number) & (maySee[outer] as number),
      edit: (edit[rule] as number) & (edit[outer] as number),
      mayEdit: (mayEdit[rule] as number) & (mayEdit[outer] as number),
    };
  }

  /** For whom a step gives the same whatever the record is. */
  decided(step: number): number {
    const { see, maySee, edit, mayEdit } = this.crowd;
    return ~(
      ((see[step] as number) ^ (maySee[step] as number)) |
      ((edit[step] as number) ^ (mayEdit[step] as number))
    );
  }
}

/** What up to 32 viewers get by both definitions, with what is not known of them speaking one way. */
class OneWay {
  readonly old: Side;
  readonly now: Side;
  /** By a step of the newer plan: for whom its rule may be another one than before. */
  private readonly may: Int32Array;
  private readonly viewers: number;

  constructor(
    private readonly touched: Touched,
    viewers: readonly Viewer[],
    at: Circumstances,
    unknown: Unknown,
  ) {
    this.old = new Side(touched.before, viewers, at, unknown, touched.old);
    this.now = new Side(touched.after, viewers, at, unknown, touched.now);
    this.may = new Int32Array(touched.after.plan.steps.length);
    this.viewers = viewers.length;
    this.work();
  }

  /** For whom the rule of an element that both have may be another one than before. */
  mayDiffer(was: AppElement, is: AppElement): number {
    const [old, now] = [this.touched.before.plan.rules, this.touched.after.plan.rules];
    const [one, other] = [old[was.number] as number, now[is.number] as number];
    if (this.touched.same[other] === one) return this.may[other] as number;
    return ~(this.old.decided(one) & this.now.decided(other));
  }

  /** For whom something that was changed gives something else than before, whatever becomes of that. */
  changedFor(): number {
    const { changed } = this.touched;
    let found = 0;
    // A door of data that follows is not decided by its own gate at all.
    for (const [n, { whole }] of changed) found |= whole ? ALL : this.linesDiffer(n);
    return found;
  }

  /** Of whom the rule of an element may be another one than that of the other way. */
  mayDepend(side: 'old' | 'now', element: AppElement, other: OneWay): number {
    const { rules } = (side === 'old' ? this.touched.before : this.touched.after).plan;
    const step = rules[element.number] as number;
    return other[side].crowd === this[side].crowd
      ? 0
      : ~(this[side].decided(step) & other[side].decided(step)) | differ(this[side], step, other[side], step);
  }

  private work(): void {
    const { after, same, now } = this.touched;
    for (const n of now) {
      const step = after.plan.steps[n] as PlanStep;
      const partner = same[n] as number;
      if (partner < 0) {
        this.may[n] = ALL;
        continue;
      }
      const decided = this.old.decided(partner) & this.now.decided(n);
      this.may[n] = differ(this.old, partner, this.now, n) | (~decided & this.inherited(step, n, partner));
    }
  }

  /** For whom the step may differ by its own lines, or by the steps that it is made of. */
  private inherited({ op, a, b }: PlanStep, n: number, partner: number): number {
    const { may } = this;
    const { before, after, changed } = this.touched;
    switch (op) {
      case 'always':
      // These are made of what the other step surely or perhaps gives, and of nothing else of it.
      case 'least':
      case 'most':
      case 'without-record':
        return 0;
      case 'carried':
        return changed.has(n) ? ALL : 0;
      case 'gate':
        return (may[a] as number) | (changed.has(n) ? this.linesDiffer(n) : 0);
      case 'lower':
      case 'edit-if':
        return (may[a] as number) | (may[b] as number);
      case 'higher': {
        let found = 0;
        for (let k = a; k < b; k++) found |= may[after.plan.many[k] as number] as number;
        return found;
      }
      case 'if-own':
      case 'unless-followed': {
        const owns = after.hasLines(after.plan.steps[a]?.b ?? -1);
        const gate = before.plan.steps[before.plan.steps[partner]?.a ?? -1];
        if (owns !== before.hasLines(gate?.b ?? -1)) return ALL;
        if (op === 'if-own') return owns ? (may[b] as number) : 0;
        return may[owns ? a : b] as number;
      }
      default:
        return may[a] as number;
    }
  }

  /** To whom the lines of a gate give something else than before. */
  private linesDiffer(n: number): number {
    const { before, after } = this.touched;
    const is = after.tree.elements[after.plan.steps[n]?.b ?? -1] as AppElement;
    const was = before.tree.get(is.id) as AppElement;
    const lines = this.touched.changed.get(n);
    // Lines that both have do the same; where the others do nothing for somebody, nothing differs.
    const among =
      !lines || lines.whole
        ? ALL
        : this.old.crowd.doing(was.number, lines.old) | this.now.crowd.doing(is.number, lines.now);
    if (among === 0) return 0;
    const [old, now] = [this.old.given(was), this.now.given(is)];
    let differ = 0;
    let open = 0;
    for (const key of ['see', 'edit'] as const) {
      differ |= (old[key].surely ^ now[key].surely) | (old[key].perhaps ^ now[key].perhaps);
      open |= (old[key].surely ^ old[key].perhaps) | (now[key].surely ^ now[key].perhaps);
    }
    for (let v = 0; v < this.viewers; v++) {
      const bit = 1 << v;
      if ((differ & bit) !== 0 || (open & among & bit) === 0) continue;
      if (!sameJson(this.old.givenTo(v, was), this.now.givenTo(v, is))) differ |= bit;
    }
    return differ;
  }
}

/** For whom two steps give other answers. */
function differ({ crowd: a }: Side, n: number, { crowd: b }: Side, m: number): number {
  return (
    ((a.see[n] as number) ^ (b.see[m] as number)) |
    ((a.maySee[n] as number) ^ (b.maySee[m] as number)) |
    ((a.edit[n] as number) ^ (b.edit[m] as number)) |
    ((a.mayEdit[n] as number) ^ (b.mayEdit[m] as number))
  );
}

/** For whom of up to 32 viewers what was changed gives something else than before, in one circumstance. */
export function changedFor(touched: Touched, viewers: readonly Viewer[], at: Circumstances): number {
  const none = { ...touched, old: [], now: [] };
  return (['against', 'for'] as const).reduce(
    (found, unknown) => found | new OneWay(none, viewers, at, unknown).changedFor(),
    0,
  );
}

/** What somebody gets of an element before and after. */
export type Shifted = readonly [Answer, Answer];

/**
 * What up to 32 viewers get of the touched elements by both definitions, in one circumstance. It works through both
 * plans for all of them at once, and asks one by one only where the answers are the same and the rules may not be.
 */
export class SideBySide {
  private readonly against: OneWay;
  private readonly speakingFor: OneWay;
  /** By viewer, made when first asked for: access by both definitions, with what is not known speaking either way. */
  private readonly accesses: (readonly Access[] | undefined)[] = [];

  constructor(
    private readonly touched: Touched,
    private readonly viewers: readonly Viewer[],
    private readonly at: Circumstances,
  ) {
    const open = viewers.some((one) =>
      [touched.before, touched.after].some((side) => side.asksUnknown(one, at)),
    );
    this.against = new OneWay(touched, viewers, at, 'against');
    this.speakingFor = open ? new OneWay(touched, viewers, at, 'for') : this.against;
  }

  /** For whom of these an element is not the same. */
  differing({ was, is }: TouchedElement, among: number): number {
    const [then, next] = [this.words('old', was), this.words('now', is)];
    const answers =
      (then.see ^ next.see) |
      (then.maySee ^ next.maySee) |
      (then.edit ^ next.edit) |
      (then.mayEdit ^ next.mayEdit);
    let found = answers & among;
    if (!was || !is) return found;
    const may = (this.against.mayDiffer(was, is) | this.speakingFor.mayDiffer(was, is)) & among & ~answers;
    for (let v = 0; v < this.viewers.length && may !== 0; v++)
      if ((may & (1 << v)) !== 0 && !this.sameRules(v, was, is)) found |= 1 << v;
    return found;
  }

  /** Of whom an element's rule may depend on what is not known. */
  depending({ was, is }: TouchedElement, among: number): number {
    const may =
      (was ? this.against.mayDepend('old', was, this.speakingFor) : 0) |
      (is ? this.against.mayDepend('now', is, this.speakingFor) : 0);
    return may & among;
  }

  /** What the n-th viewer gets of an element before and after. */
  shiftOf(n: number, { was, is }: TouchedElement): Shifted {
    return [answerOf(this.words('old', was), n), answerOf(this.words('now', is), n)];
  }

  private words(side: 'old' | 'now', element: AppElement | undefined): Words {
    if (!element) return NOTHING;
    const least = this.against[side].words(element);
    if (this.speakingFor === this.against) return least;
    const { maySee, mayEdit } = this.speakingFor[side].words(element);
    return { ...least, maySee, mayEdit };
  }

  private sameRules(n: number, was: AppElement, is: AppElement): boolean {
    const [old, now, oldMost, nowMost] = this.accessesOf(n) as [Access, Access, Access, Access];
    return sameJson(old.rule(was), now.rule(is)) && sameJson(oldMost.rule(was), nowMost.rule(is));
  }

  private accessesOf(n: number): readonly Access[] {
    const { before, after } = this.touched;
    const sides = (unknown: Unknown): Access[] =>
      [before, after].map((side) => unsharedAccessOf(side, this.viewers[n] as Viewer, this.at, unknown));
    let found = this.accesses[n];
    if (!found) {
      const own = sides('against');
      found = [...own, ...(this.speakingFor === this.against ? own : sides('for'))];
      this.accesses[n] = found;
    }
    return found;
  }
}

const answerOf = ({ see, maySee, edit, mayEdit }: Words, n: number): Answer => {
  const bit = (word: number): number => (word >>> n) & 1;
  return {
    least: (bit(see) + bit(edit)) as Level,
    most: (bit(maySee) + bit(mayEdit)) as Level,
  };
};
