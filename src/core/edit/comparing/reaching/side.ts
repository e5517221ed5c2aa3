import type { AskedAt } from '../../../access/deciding/many/asked-of-many';
import { ViewerBatch, MASKS } from '../../../access/deciding/many/viewer-batch';
import { ExactRules } from '../../../access/deciding/many/exact-rules';
import type { Formulas } from '../../../access/deciding/many/formulas';
import type { Mask } from '../../../mask';
import type { AnswerSteps } from './touched';

/** One of two definitions, as many viewers have it in one circumstance, with what is not known speaking one way. */
export class Side {
  /** Who surely and who perhaps reaches which level. */
  readonly crowd: ViewerBatch;
  /** The rules of one viewer after the other. */
  readonly exactly: ExactRules;

  /** @param steps the steps of its plan that count */
  constructor(
    readonly asked: AskedAt,
    readonly steps: readonly number[],
    formulas: Formulas,
  ) {
    this.crowd = new ViewerBatch(asked, steps);
    this.exactly = new ExactRules(asked, formulas, this.crowd);
  }

  /** Puts into the n-th and the next of these masks who reaches see of what is answered so, and edit: surely, or perhaps. */
  putReaching(step: AnswerSteps, how: 'surely' | 'perhaps', into: Mask, n: number): void {
    const { rules: kept, words } = this.crowd;
    const first = how === 'surely' ? 0 : words;
    const rule = step.rule * MASKS * words + first;
    const outer = step.outer * MASKS * words + first;
    for (let w = 0; w < words; w++) {
      const [see, edit] = [w, 2 * words + w];
      into[n * words + w] = (kept[rule + see] as number) & (kept[outer + see] as number);
      into[(n + 1) * words + w] = (kept[rule + edit] as number) & (kept[outer + edit] as number);
    }
  }
}
