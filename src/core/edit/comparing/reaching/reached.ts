import { EDIT, NONE, SEE, type Answer, type Level } from '../../../access/deciding/level';
import type { Mask } from '../../../mask';

const MASKS = 8;

/**
 * Who reaches what of one element. Eight masks: who surely reaches see and edit before, who perhaps does, and the same
 * after.
 */
export class Reached {
  readonly masks: Mask;

  constructor(private readonly words: number) {
    this.masks = new Uint32Array(MASKS * words);
  }

  /** Whose answer is not the same after as before. */
  differing(): Mask {
    const { masks, words } = this;
    const found = new Uint32Array(words);
    for (let mask = 0; mask < MASKS / 2; mask++)
      for (let w = 0; w < words; w++) {
        const [was, is] = [masks[mask * words + w], masks[(mask + MASKS / 2) * words + w]] as [
          number,
          number,
        ];
        found[w] = (found[w] as number) | (was ^ is);
      }
    return found;
  }

  /** What a viewer reaches, a bit for each mask: the same for all who get the same before, and after. */
  codeOf(viewer: number): number {
    const { masks, words } = this;
    let code = 0;
    for (let at = viewer >>> 5; at < masks.length; at += words)
      code = (code << 1) | (((masks[at] as number) >>> (viewer & 31)) & 1);
    return code;
  }
}

/** What those get who have this code, before and after. */
export function answersOf(code: number): { readonly before: Answer; readonly after: Answer } {
  const level = (mask: number): Level => {
    const [see, edit] = [mask, mask + 1].map((one) => (code >>> (MASKS - 1 - one)) & 1);
    return edit ? EDIT : see ? SEE : NONE;
  };
  return {
    before: { least: level(0), most: level(2) },
    after: { least: level(4), most: level(6) },
  };
}
