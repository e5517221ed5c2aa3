import { and, maskOf, or, type Mask } from '../../../mask';
import type { Algebra } from '../lines';

/** For whom of many viewers something is so for every record, and for some. */
export interface Bits {
  readonly surely: Mask;
  readonly perhaps: Mask;
}

/** Bits of so many viewers, joined. */
export function bitsAlgebra(viewers: number): Algebra<Bits> {
  const [none, all] = [maskOf(viewers), maskOf(viewers, true)];
  const [never, always] = [
    { surely: none, perhaps: none },
    { surely: all, perhaps: all },
  ];
  return {
    never,
    always,
    both: (a, b) => {
      if (a === never || b === always) return a;
      if (a === always || b === never) return b;
      return { surely: and(a.surely, b.surely), perhaps: and(a.perhaps, b.perhaps) };
    },
    either: (a, b) => {
      if (a === always || b === never) return a;
      if (a === never || b === always) return b;
      return { surely: or(a.surely, b.surely), perhaps: or(a.perhaps, b.perhaps) };
    },
  };
}
