import type { PerLevel } from '../../../access/deciding/lines';
import type { AskedGate } from '../../../access/deciding/many/asked-of-many';
import type { Bits } from '../../../access/deciding/many/bits';
import { ALL, MASKS } from '../../../access/deciding/many/viewer-batch';
import type { PlanStep } from '../../../access/deciding/plan';
import { membersOf, or, put, without, xor, type Mask } from '../../../mask';
import type { AppElement } from '../../../model/tree';
import type { Side } from './side';

/**
 * For whom each step of a plan may give another rule than the same step of another one: where its answer is another one;
 * or, where it asks for the record, where what it is made of may be another one.
 */
export class Unlike {
  private readonly words: number;
  /** A mask for each step. */
  private readonly may: Mask;

  /**
   * @param same by a step of `now`, the same one of `old`; -1 where there is none
   * @param isChanged may the lines of the step's own gate, or its filter, give something else?
   */
  constructor(
    readonly old: Side,
    private readonly now: Side,
    private readonly same: (step: number) => number,
    private readonly isChanged: (step: number) => boolean,
  ) {
    this.words = now.crowd.words;
    this.may = new Uint32Array(now.asked.plan.steps.length * this.words);
    // Each is made of earlier ones.
    for (const step of now.steps) this.work(step, same(step));
  }

  /** For whom a step may give another rule. */
  at(step: number): Mask {
    return this.may.subarray(step * this.words, (step + 1) * this.words);
  }

  /** The same step of the other plan, where this one gives a viewer the same rule; else undefined. */
  likeFor(viewer: number, step: number): number | undefined {
    const word = this.may[step * this.words + (viewer >>> 5)] as number;
    return (word & (1 << (viewer & 31))) === 0 ? this.same(step) : undefined;
  }

  private work(step: number, partner: number): void {
    const { may, words } = this;
    const [old, now] = [this.old.crowd.rules, this.now.crowd.rules];
    if (partner < 0) return this.addAll(step);
    this.inherit(step, partner);
    for (let w = 0; w < words; w++) {
      const [was, is] = [partner * MASKS * words + w, step * MASKS * words + w];
      const asks =
        ((old[was] as number) ^ (old[was + words] as number)) |
        ((old[was + 2 * words] as number) ^ (old[was + 3 * words] as number)) |
        ((now[is] as number) ^ (now[is + words] as number)) |
        ((now[is + 2 * words] as number) ^ (now[is + 3 * words] as number));
      let found = (may[step * words + w] as number) & asks;
      for (let mask = 0; mask < MASKS * words; mask += words)
        found |= (old[was + mask] as number) ^ (now[is + mask] as number);
      may[step * words + w] = found;
    }
  }

  /** For whom the step may differ by its own lines, or by the steps that it is made of. */
  private inherit(step: number, partner: number): void {
    const [before, after] = [this.old.asked.compiled, this.now.asked.compiled];
    const { steps, many } = this.now.asked.plan;
    const { op, a, b } = steps[step] as PlanStep;
    switch (op) {
      case 'always':
      // These are made of what the other step surely or perhaps gives, and of nothing else of it.
      case 'least':
      case 'most':
      case 'without-record':
        return;
      case 'carried':
        return this.isChanged(step) ? this.addAll(step) : undefined;
      case 'gate':
        this.add(step, this.may, a);
        return this.isChanged(step) ? this.add(step, linesDiffer(this.old, this.now, step), 0) : undefined;
      case 'lower':
      case 'edit-if':
        this.add(step, this.may, a);
        return this.add(step, this.may, b);
      case 'higher':
        for (let n = a; n < b; n++) this.add(step, this.may, many[n] as number);
        return;
      case 'if-own':
      case 'unless-followed': {
        const owns = after.hasLines(steps[a]?.b ?? -1);
        const gate = this.old.asked.plan.steps[this.old.asked.plan.steps[partner]?.a ?? -1];
        if (owns !== before.hasLines(gate?.b ?? -1)) return this.addAll(step);
        if (op === 'if-own' && !owns) return;
        return this.add(step, this.may, op === 'if-own' || !owns ? b : a);
      }
      case 'asking':
      case 'constant':
      case 'see-as-edit':
        return this.add(step, this.may, a);
    }
  }

  /** Those in the n-th of these masks. */
  private add(step: number, masks: Mask, n: number): void {
    const { may, words } = this;
    const [to, from] = [step * words, n * words];
    for (let w = 0; w < words; w++) may[to + w] = (may[to + w] as number) | (masks[from + w] as number);
  }

  private addAll(step: number): void {
    this.may.fill(ALL, step * this.words, (step + 1) * this.words);
  }
}

/** By an older gate and a newer one. */
const known = new WeakMap<AskedGate, WeakMap<AskedGate, Mask>>();

/** To whom the lines of a gate that both have give something else than before; `step` is that of the newer plan. */
export function linesDiffer(old: Side, now: Side, step: number): Mask {
  const [before, after] = [old.asked.compiled, now.asked.compiled];
  const { b: is, inNoUnit } = now.asked.plan.steps[step] as PlanStep;
  const was = (before.tree.get(after.tree.elements[is]?.id ?? '') as AppElement).number;
  const [one, other] = [old.asked.gateAt(was, inNoUnit), now.asked.gateAt(is, inNoUnit)];
  if (!one || !other) return givenDiffers(old, now, one, other);
  let found = known.get(one)?.get(other);
  if (!found) {
    found = givenDiffers(old, now, one, other);
    known.set(one, (known.get(one) ?? new WeakMap<AskedGate, Mask>()).set(other, found));
  }
  return found;
}

function givenDiffers(old: Side, now: Side, was: AskedGate | undefined, is: AskedGate | undefined): Mask {
  const full = { see: old.asked.algebra.always, edit: old.asked.algebra.always };
  const [one, other] = [was?.bits ?? full, is?.bits ?? full];
  const found = differing(one, other);
  for (const v of membersOf(without(or(asking(one), asking(other)), found))) {
    const [then, next] = [old.exactly.of(v).given(was), now.exactly.of(v).given(is)];
    if (then.see !== next.see || then.edit !== next.edit) put(found, v);
  }
  return found;
}

/** Who surely or perhaps reaches another level by the one than by the other. */
const differing = (a: PerLevel<Bits>, b: PerLevel<Bits>): Mask =>
  [
    xor(a.see.surely, b.see.surely),
    xor(a.see.perhaps, b.see.perhaps),
    xor(a.edit.surely, b.edit.surely),
  ].reduce(or, xor(a.edit.perhaps, b.edit.perhaps));

/** Whose rule asks for the record. */
export const asking = ({ see, edit }: PerLevel<Bits>): Mask =>
  or(xor(see.surely, see.perhaps), xor(edit.surely, edit.perhaps));
