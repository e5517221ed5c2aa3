import { bind } from '../../condition/bind';
import type { Formula, Must } from '../../condition/formula';
import type { Scope } from '../../condition/type';
import { gives, type Line } from '../../model/gate';
import type { AppElement } from '../../model/tree';
import { ruleOfUnlocked, type Compiled, type CompiledGate } from './compile';
import type { Held } from './held';
import { EDIT } from './level';
import { givenBy, type Algebra, type Given } from './lines';
import type { Circumstances } from './viewer';

/** So many viewers are decided at once: one in each bit of a word. */
export const AT_ONCE = 32;

const ALL = -1;

/** For each of the viewers a bit: is it so for every record (`surely`), and for some record (`perhaps`)? */
export interface Bits {
  readonly surely: number;
  readonly perhaps: number;
}

const NEVER: Bits = { surely: 0, perhaps: 0 };
const ALWAYS: Bits = { surely: ALL, perhaps: ALL };

/**
 * The answers of up to 32 viewers for all elements, decided at once. It works through the same plan as
 * `ViewerAccess`, but keeps for each step four words with a bit for each viewer, where that keeps a rule: see and
 * edit, each surely and perhaps. That is enough: a formula is made of *all* and *any* only, and of the parts of such
 * a formula one need only know whether each holds for every record, and for some. A test holds that each answer is
 * the one that the viewer's own access gives.
 */
export class Crowd {
  /** By a step's number: who surely reaches see, who may, and the same for edit. */
  readonly see: Int32Array;
  readonly maySee: Int32Array;
  readonly edit: Int32Array;
  readonly mayEdit: Int32Array;
  /** By the number of a subject: whose lines surely speak of them, and whose surely do not. */
  private readonly spoken: Bits[] = [];
  private readonly notSpoken: Bits[] = [];
  /** By the condition, its entity and how it must be: for whom it is, as far as it was asked. */
  private readonly whens = new Map<string, { known: number; surely: number; perhaps: number }>();

  constructor(
    private readonly compiled: Compiled,
    private readonly held: readonly Held[],
    private readonly at: Circumstances,
    /** The steps to work through, in order, with all that they are made of; without it all. */
    only?: readonly number[],
  ) {
    if (held.length > AT_ONCE) throw new Error(`${held.length} viewers are more than ${AT_ONCE}`);
    const { length } = compiled.plan.steps;
    this.see = new Int32Array(length);
    this.maySee = new Int32Array(length);
    this.edit = new Int32Array(length);
    this.mayEdit = new Int32Array(length);
    this.work(only);
  }

  /**
   * Writes the answers of the n-th viewer, a byte for each element: the least, then the most in the next two bits.
   * `most`: the most only, over what is there.
   */
  writeAnswers(n: number, into: Uint8Array, from: number, what: 'both' | 'most' = 'both'): void {
    const { see, maySee, edit, mayEdit } = this;
    const { rules, outers } = this.compiled.plan;
    for (let e = 0; e < rules.length; e++) {
      const [rule, outer] = [rules[e] as number, outers[e] as number];
      const least =
        ((((see[rule] as number) & (see[outer] as number)) >>> n) & 1) +
        ((((edit[rule] as number) & (edit[outer] as number)) >>> n) & 1);
      const most =
        ((((maySee[rule] as number) & (maySee[outer] as number)) >>> n) & 1) +
        ((((mayEdit[rule] as number) & (mayEdit[outer] as number)) >>> n) & 1);
      into[from + e] = (what === 'both' ? least : (into[from + e] as number) & 3) | (most << 2);
    }
  }

  private work(only?: readonly number[]): void {
    const { see, maySee, edit, mayEdit, compiled } = this;
    const { steps, many } = compiled.plan;
    const put = (n: number, s: number, ms: number, e: number, me: number): void => {
      see[n] = s;
      maySee[n] = ms;
      edit[n] = e;
      mayEdit[n] = me;
    };
    for (let m = 0; m < (only ?? steps).length; m++) {
      const n = only ? (only[m] as number) : m;
      const { op, a, b } = steps[n] as (typeof steps)[number];
      // Where `a` and `b` are no steps, these are not used.
      const [s, ms] = [see[a] as number, maySee[a] as number];
      const [e, me] = [edit[a] as number, mayEdit[a] as number];
      switch (op) {
        case 'always':
          put(n, a > 0 ? ALL : 0, a > 0 ? ALL : 0, a > 1 ? ALL : 0, a > 1 ? ALL : 0);
          break;
        case 'gate':
          put(n, s, ms, e, me);
          if (ms !== 0 && compiled.hasLines(b)) this.within(n, b);
          break;
        case 'carried': {
          const { surely, perhaps } = this.passing(a);
          put(n, surely, perhaps, surely, perhaps);
          break;
        }
        case 'lower':
          put(
            n,
            s & (see[b] as number),
            ms & (maySee[b] as number),
            e & (edit[b] as number),
            me & (mayEdit[b] as number),
          );
          break;
        case 'higher':
          for (let k = a; k < b; k++) {
            const one = many[k] as number;
            put(
              n,
              (see[n] as number) | (see[one] as number),
              (maySee[n] as number) | (maySee[one] as number),
              (edit[n] as number) | (edit[one] as number),
              (mayEdit[n] as number) | (mayEdit[one] as number),
            );
          }
          break;
        case 'edit-if':
          put(n, s, ms, e & (edit[b] as number), me & (mayEdit[b] as number));
          break;
        case 'see-as-edit':
          put(n, s, ms, s, ms);
          break;
        case 'least':
          put(n, s, s, e, e);
          break;
        case 'most':
          put(n, ms, ms, me, me);
          break;
        case 'without-record':
          put(n, s, ms, e, me);
          break;
        case 'constant': {
          const asks = (s ^ ms) | (e ^ me);
          put(n, s | asks, ms | asks, e | asks, me | asks);
          break;
        }
        case 'asking': {
          const asksNot = ~((s ^ ms) | (e ^ me));
          put(n, s | asksNot, ms | asksNot, e | asksNot, me | asksNot);
          break;
        }
        case 'if-own':
        case 'unless-followed': {
          const own = compiled.hasLines(steps[a]?.b ?? -1);
          const from = op === 'if-own' ? (own ? b : EDIT) : own ? a : b;
          put(n, see[from] as number, maySee[from] as number, edit[from] as number, mayEdit[from] as number);
        }
      }
    }
  }

  /** Leaves of step `n` what the lines of the element give. */
  private within(n: number, number: number): void {
    const { see, edit } = this.given(number);
    this.see[n] = (this.see[n] as number) & see.surely;
    this.maySee[n] = (this.maySee[n] as number) & see.perhaps;
    this.edit[n] = (this.edit[n] as number) & edit.surely;
    this.mayEdit[n] = (this.mayEdit[n] as number) & edit.perhaps;
  }

  /** For whom some of these lines of the element do anything: give something, or take something away. */
  doing(number: number, which: ReadonlySet<Line>): number {
    const element = this.compiled.tree.elements[number] as AppElement;
    const { lines, subjects } = this.compiled.gateAt(number) as CompiledGate;
    let found = 0;
    lines.forEach((line, m) => {
      if (!which.has(line)) return;
      const { surely, perhaps } = this.matches(line, subjects[m] as number, element);
      // Of a line that takes away, it is asked for whom it does not.
      found |= gives(line) ? perhaps : ~surely;
    });
    return found;
  }

  /** What the lines of the element with this number give, without its containers. */
  given(number: number): Given<Bits> {
    const element = this.compiled.tree.elements[number] as AppElement;
    const { lines, subjects } = this.compiled.gateAt(number) as CompiledGate;
    const unlocked = this.at.unlocked?.filter((one) => one.element === element.id).map(ruleOfUnlocked);
    return givenBy(
      BITS,
      lines,
      (line, m) => this.matches(line, subjects[m] as number, element),
      unlocked?.map((rule) => ({ see: this.forAll(rule.see), edit: this.forAll(rule.edit) })),
    );
  }

  /** As `Held.matches`, with what is known of whom lines speak of. */
  private matches(line: Line, subject: number, element: AppElement): Bits {
    const giving = gives(line);
    const who = this.spokenOf(subject, giving);
    if (!line.when) return who;
    const scope = this.compiled.scope(element);
    const decided = giving ? who.perhaps === 0 : who.surely === ALL;
    if (decided) return who;
    const when = this.when(line, scope, giving ? 'be true' : 'be false', giving ? who.perhaps : ~who.surely);
    return giving ? both(who, when) : either(who, when);
  }

  /** For whom the condition of a line must be so; known for those `among` them at least. Many lines share one. */
  private when(line: Line, scope: Scope, must: Must, among: number): Bits {
    const key = `${conditionKey(line)} ${scope.entity?.id} ${must}${this.at.taken?.[line.id] ?? ''}`;
    let found = this.whens.get(key);
    if (!found) this.whens.set(key, (found = { known: 0, surely: 0, perhaps: 0 }));
    const missing = among & ~found.known;
    this.held.forEach((held, n) => {
      if ((missing & (1 << n)) === 0) return;
      const formula = held.isWhen(line, scope)(must);
      if (formula === true) found.surely |= 1 << n;
      if (formula !== false) found.perhaps |= 1 << n;
    });
    found.known |= missing;
    return found;
  }

  /** Of whom a subject's lines surely speak or, where not `giving`, of whom they surely do not. */
  private spokenOf(subject: number, giving: boolean): Bits {
    const known = giving ? this.spoken : this.notSpoken;
    let found = known[subject];
    if (!found) {
      const who = this.compiled.subjects.all[subject] as Line['who'];
      found = bitsOf(this.held, (held) => held.isSpokenOf(who)(giving ? 'be true' : 'be false'));
      known[subject] = found;
    }
    return found;
  }

  private forAll(formula: Formula): Bits {
    return bitsOf(this.held, () => formula);
  }

  /** Which viewers' records pass the fixed filter of a list. */
  private passing(n: number): Bits {
    const { plan, definition, tree } = this.compiled;
    const list = plan.lists[n];
    const filter = list?.filter;
    if (!list || !filter) return ALWAYS;
    const scope = { definition, entity: tree.entityOf(list.entity) };
    return bitsOf(this.held, ({ facts }) => bind(facts, scope, filter, 'be true'));
  }
}

const keys = new WeakMap<Line, string>();

/** The same for lines whose conditions are the same. */
function conditionKey(line: Line): string {
  let key = keys.get(line);
  if (key === undefined) keys.set(line, (key = JSON.stringify(line.when)));
  return key;
}

const both = (a: Bits, b: Bits): Bits => ({
  surely: a.surely & b.surely,
  perhaps: a.perhaps & b.perhaps,
});

const either = (a: Bits, b: Bits): Bits => ({
  surely: a.surely | b.surely,
  perhaps: a.perhaps | b.perhaps,
});

const BITS: Algebra<Bits> = { never: NEVER, always: ALWAYS, both, either };

/** A bit for each, by the formula that is asked of it. */
function bitsOf<T>(each: readonly T[], ask: (one: T) => Formula): Bits {
  let [surely, perhaps] = [0, 0];
  each.forEach((one, n) => {
    const formula = ask(one);
    if (formula === true) surely |= 1 << n;
    if (formula !== false) perhaps |= 1 << n;
  });
  return { surely, perhaps };
}
