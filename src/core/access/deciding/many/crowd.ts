import type { Mask } from '../../../mask';
import { EDIT, NONE, SEE, type Level } from '../level';
import { givenBy, type Algebra, type Given } from '../lines';
import type { PlanStep } from '../plan';
import { matches, type AskedAt } from './asked-of-many';
import { bitsAlgebra, type Bits } from './bits';

/** So many masks are kept of a step. */
export const MASKS = 4;
/** A word with all bits. */
export const ALL = 0xffffffff;

/**
 * The answers of many viewers for all elements, decided at once. It works through the same plan as `ViewerAccess`, but
 * keeps for each step four bits for each viewer, where that keeps a rule: see and edit, each surely and perhaps. That is
 * enough: a formula is made of *all* and *any* only, and of the parts of such a formula one need only know whether each
 * holds for every record, and for some. A test holds that each answer is the one that the viewer's own access gives.
 */
export class Crowd {
  /** So many words hold a bit for each viewer. */
  readonly words: number;
  /** By step four masks: who surely reaches see, who perhaps, and the same for edit. */
  readonly rules: Mask;
  private readonly algebra: Algebra<Bits>;

  /** @param only the steps to work through, in order, with all that they are made of; without it all */
  constructor(
    private readonly asked: AskedAt,
    only?: readonly number[],
  ) {
    const { steps } = asked.plan;
    this.algebra = bitsAlgebra(asked.viewers.length);
    this.words = this.algebra.never.surely.length;
    this.rules = new Uint32Array(steps.length * this.words * MASKS);
    if (only) for (const n of only) this.work(n, steps[n] as PlanStep);
    else steps.forEach((step, n) => this.work(n, step));
  }

  /** What a step gives: views of what is kept, not to be written to. */
  at(step: number): Given<Bits> {
    const mask = (n: number): Mask =>
      this.rules.subarray((step * MASKS + n) * this.words, (step * MASKS + n + 1) * this.words);
    return { see: { surely: mask(0), perhaps: mask(1) }, edit: { surely: mask(2), perhaps: mask(3) } };
  }

  /** The level that a step gives a viewer on each record; undefined where it asks for the record. */
  levelAt(step: number, viewer: number): Level | undefined {
    const { rules, words } = this;
    const at = step * MASKS * words + (viewer >>> 5);
    const bit = 1 << (viewer & 31);
    const see = (rules[at] as number) & bit;
    const edit = (rules[at + 2 * words] as number) & bit;
    if (see !== ((rules[at + words] as number) & bit) || edit !== ((rules[at + 3 * words] as number) & bit))
      return undefined;
    return edit !== 0 ? EDIT : see !== 0 ? SEE : NONE;
  }

  /** What the lines of the element with this number give, without its containers. */
  given(number: number): Given<Bits> {
    const { asked, algebra } = this;
    const lines = asked.linesAt(number);
    if (!lines) return { see: algebra.always, edit: algebra.always };
    const unlocked = asked.unlockedAt(number).map(({ see, edit }) => ({ see: see.bits, edit: edit.bits }));
    return givenBy(algebra, lines, (line) => matches(algebra, line, ({ bits }) => bits), unlocked);
  }

  /**
   * Writes the answers of the n-th viewer, a byte for each element: the least, then the most in the next two bits.
   * `most`: the most only, over what is there.
   */
  writeAnswers(n: number, into: Uint8Array, at: number, what: 'both' | 'most' = 'both'): void {
    const { rules: kept, words } = this;
    const { rules, outers } = this.asked.plan;
    const [word, bit] = [n >>> 5, n & 31];
    for (let e = 0; e < rules.length; e++) {
      const rule = (rules[e] as number) * words * MASKS + word;
      const outer = (outers[e] as number) * words * MASKS + word;
      const both = (mask: number): number =>
        (((kept[rule + mask * words] as number) & (kept[outer + mask * words] as number)) >>> bit) & 1;
      const least = both(0) + both(2);
      const most = both(1) + both(3);
      into[at + e] = (what === 'both' ? least : (into[at + e] as number) & 3) | (most << 2);
    }
  }

  private work(n: number, { op, a, b }: PlanStep): void {
    const { rules, words } = this;
    const { compiled, plan } = this.asked;
    const size = words * MASKS;
    const [to, from, other] = [n * size, a * size, b * size];
    const copy = (step: number): unknown => rules.copyWithin(to, step * size, (step + 1) * size);
    switch (op) {
      case 'always':
        if (a > NONE) rules.fill(ALL, to, to + (a === EDIT ? size : 2 * words));
        return;
      case 'gate':
        copy(a);
        if (compiled.hasLines(b)) this.narrow(to, this.given(b));
        return;
      case 'carried': {
        const { bits } = this.asked.passing(a);
        rules.fill(ALL, to, to + size);
        return this.narrow(to, { see: bits, edit: bits });
      }
      case 'lower':
        for (let w = 0; w < size; w++)
          rules[to + w] = (rules[from + w] as number) & (rules[other + w] as number);
        return;
      case 'higher':
        for (let m = a; m < b; m++) {
          const one = (plan.many[m] as number) * size;
          for (let w = 0; w < size; w++)
            rules[to + w] = (rules[to + w] as number) | (rules[one + w] as number);
        }
        return;
      case 'edit-if':
        copy(a);
        for (let w = 2 * words; w < size; w++)
          rules[to + w] = (rules[from + w] as number) & (rules[other + w] as number);
        return;
      case 'see-as-edit':
        rules.copyWithin(to, from, from + 2 * words);
        rules.copyWithin(to + 2 * words, from, from + 2 * words);
        return;
      case 'least':
      case 'most':
        for (let mask = 0; mask < MASKS; mask++) {
          const one = from + ((mask & 2) + (op === 'least' ? 0 : 1)) * words;
          rules.copyWithin(to + mask * words, one, one + words);
        }
        return;
      case 'without-record':
        return void copy(a);
      case 'constant':
      case 'asking':
        for (let w = 0; w < words; w++) {
          const of = (mask: number): number => rules[from + mask * words + w] as number;
          const asks = (of(0) ^ of(1)) | (of(2) ^ of(3));
          for (let mask = 0; mask < MASKS; mask++)
            rules[to + mask * words + w] = of(mask) | (op === 'constant' ? asks : ~asks);
        }
        return;
      case 'if-own':
      case 'unless-followed': {
        const own = compiled.hasLines(plan.steps[a]?.b ?? -1);
        return void copy(op === 'if-own' ? (own ? b : EDIT) : own ? a : b);
      }
    }
  }

  /** Leaves of what begins there what these give. */
  private narrow(to: number, { see, edit }: Given<Bits>): void {
    const { rules, words } = this;
    [see.surely, see.perhaps, edit.surely, edit.perhaps].forEach((mask, n) => {
      const at = to + n * words;
      for (let w = 0; w < words; w++) rules[at + w] = (rules[at + w] as number) & (mask[w] as number);
    });
  }
}
