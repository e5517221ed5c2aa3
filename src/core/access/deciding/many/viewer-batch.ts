import { maskOf, type Mask } from '../../../mask';
import { EDIT, NONE, SEE, type Level } from '../level';
import type { PerLevel } from '../lines';
import type { PlanStep } from '../plan';
import type { AskedAt } from './asked-of-many';
import type { Bits } from './bits';

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
export class ViewerBatch {
  /** So many words hold a bit for each viewer. */
  readonly words: number;
  /** By step four masks: who surely reaches see, who perhaps, and the same for edit. */
  readonly rules: Mask;

  /** @param only the steps to work through, in order, with all that they are made of; without it all */
  constructor(
    private readonly asked: AskedAt,
    only?: readonly number[],
  ) {
    const { steps } = asked.plan;
    this.words = maskOf(asked.viewers.length).length;
    this.rules = new Uint32Array(steps.length * this.words * MASKS);
    if (only) for (const n of only) this.work(n, steps[n] as PlanStep);
    else steps.forEach((step, n) => this.work(n, step));
  }

  /** What a step gives: views of what is kept, not to be written to. */
  at(step: number): PerLevel<Bits> {
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

  /**
   * Writes the answers of each viewer, from their place in `from` on, a byte for each element: the least, then the most
   * in the next two bits. `most`: the most only, over what is there.
   */
  writeAnswers(into: Uint8Array, from: readonly number[], what: 'both' | 'most' = 'both'): void {
    const { rules: kept, words } = this;
    const { rules, outers } = this.asked.plan;
    // A word of viewers after the other: each word that is read tells of 32 of them.
    for (let w = 0; w < words; w++)
      for (let e = 0; e < rules.length; e++) {
        const rule = (rules[e] as number) * words * MASKS + w;
        const outer = (outers[e] as number) * words * MASKS + w;
        const see = (kept[rule] as number) & (kept[outer] as number);
        const maySee = (kept[rule + words] as number) & (kept[outer + words] as number);
        const edit = (kept[rule + 2 * words] as number) & (kept[outer + 2 * words] as number);
        const mayEdit = (kept[rule + 3 * words] as number) & (kept[outer + 3 * words] as number);
        for (let v = w * 32, bit = 0; bit < 32 && v < from.length; v++, bit++) {
          const at = (from[v] as number) + e;
          const least = ((see >>> bit) & 1) + ((edit >>> bit) & 1);
          const most = ((maySee >>> bit) & 1) + ((mayEdit >>> bit) & 1);
          into[at] = (what === 'both' ? least : (into[at] as number) & 3) | (most << 2);
        }
      }
  }

  private work(n: number, { op, a, b, inNoUnit }: PlanStep): void {
    const { rules, words } = this;
    const { compiled, plan } = this.asked;
    const size = words * MASKS;
    const [to, from, other] = [n * size, a * size, b * size];
    const copy = (step: number): unknown => rules.copyWithin(to, step * size, (step + 1) * size);
    switch (op) {
      case 'always':
        if (a > NONE) rules.fill(ALL, to, to + (a === EDIT ? size : 2 * words));
        return;
      case 'gate': {
        copy(a);
        const gate = this.asked.gateAt(b, inNoUnit);
        if (gate) this.narrow(to, gate.bits);
        return;
      }
      case 'carried': {
        const { bits } = this.asked.passing(a, inNoUnit);
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
  private narrow(to: number, { see, edit }: PerLevel<Bits>): void {
    const { rules, words } = this;
    [see.surely, see.perhaps, edit.surely, edit.perhaps].forEach((mask, n) => {
      const at = to + n * words;
      for (let w = 0; w < words; w++) rules[at + w] = (rules[at + w] as number) & (mask[w] as number);
    });
  }
}
