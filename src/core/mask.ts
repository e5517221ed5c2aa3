/** A set of small whole numbers: a bit for each, 32 to a word. Masks that are joined have the same length. */
export type Mask = Uint32Array;

/** Room for the numbers from 0 to below `length`; with `full`, all of them are in it. */
export function maskOf(length: number, full = false): Mask {
  const mask = new Uint32Array(Math.ceil(length / 32));
  if (full) for (let n = 0; n < length; n++) put(mask, n);
  return mask;
}

export function put(mask: Mask, n: number): void {
  mask[n >>> 5] = (mask[n >>> 5] as number) | (1 << (n & 31));
}

export function isEmpty(mask: Mask): boolean {
  for (let w = 0; w < mask.length; w++) if (mask[w] !== 0) return false;
  return true;
}

// Each its own loop rather than one with a function: these are most of the work where masks are compared.

export const isSame = (a: Mask, b: Mask): boolean => a.every((word, w) => word === b[w]);

/** The same number for masks that are the same, and seldom for others. */
export const hashOf = (mask: Mask): number =>
  mask.reduce((hash, word) => Math.imul(hash ^ word, 16777619), 0);

/** What is in both. */
export function and(a: Mask, b: Mask): Mask {
  const found = new Uint32Array(a.length);
  for (let w = 0; w < found.length; w++) found[w] = (a[w] as number) & (b[w] as number);
  return found;
}

/** What is in either. */
export function or(a: Mask, b: Mask): Mask {
  const found = new Uint32Array(a.length);
  for (let w = 0; w < found.length; w++) found[w] = (a[w] as number) | (b[w] as number);
  return found;
}

/** What is in one of them only. */
export function xor(a: Mask, b: Mask): Mask {
  const found = new Uint32Array(a.length);
  for (let w = 0; w < found.length; w++) found[w] = (a[w] as number) ^ (b[w] as number);
  return found;
}

/** What is in the first and not in the second. */
export function without(a: Mask, b: Mask): Mask {
  const found = new Uint32Array(a.length);
  for (let w = 0; w < found.length; w++) found[w] = (a[w] as number) & ~(b[w] as number);
  return found;
}

/** What is in it, in order. */
export function membersOf(mask: Mask): number[] {
  const found: number[] = [];
  mask.forEach((word, w) => {
    for (let left = word; left !== 0; left &= left - 1) found.push(w * 32 + 31 - Math.clz32(left & -left));
  });
  return found;
}
