import type { Id } from '../../model/id';

/** Of those that are on both sides, the fewest that would have to be moved for the one order to become the other. */
export function movedAmong(
  before: readonly { readonly id: Id }[],
  after: readonly { readonly id: Id }[],
): Set<Id> {
  const places = new Map(before.map(({ id }, n) => [id, n]));
  const common = after.filter(({ id }) => places.has(id));
  // The longest run that keeps its order stays: by its end, the place of the one before it.
  const best: { length: number; from: number }[] = [];
  common.forEach(({ id }, n) => {
    const place = places.get(id) as number;
    let found = { length: 1, from: -1 };
    for (let m = 0; m < n; m++) {
      const { length } = best[m] as { length: number };
      if ((places.get((common[m] as { id: Id }).id) as number) < place && length >= found.length)
        found = { length: length + 1, from: m };
    }
    best.push(found);
  });
  const moved = new Set(common.map(({ id }) => id));
  let at = best.reduce((end, one, n) => (end < 0 || one.length > (best[end]?.length ?? 0) ? n : end), -1);
  for (; at >= 0; at = best[at]?.from ?? -1) moved.delete((common[at] as { id: Id }).id);
  return moved;
}
