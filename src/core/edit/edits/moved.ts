import type { Id } from '../../model/id';

/** Of those that are on both sides, the fewest that would have to be moved for the one order to become the other. */
export function movedAmong(
  before: readonly { readonly id: Id }[],
  after: readonly { readonly id: Id }[],
): Set<Id> {
  const placeBefore = new Map(before.map(({ id }, n) => [id, n]));
  const common = after.flatMap(({ id }) => {
    const place = placeBefore.get(id);
    return place === undefined ? [] : [{ id, place }];
  });
  // Mostly nothing has moved.
  if (common.every(({ place }, n) => n === 0 || (common[n - 1]?.place ?? 0) < place)) return new Set();
  // The longest run that keeps its order stays: by its end, the place of the one before it.
  const best: { length: number; from: number }[] = [];
  common.forEach(({ place }, n) => {
    let found = { length: 1, from: -1 };
    for (let m = 0; m < n; m++) {
      const { length } = best[m] as { length: number };
      if ((common[m]?.place ?? 0) < place && length >= found.length) found = { length: length + 1, from: m };
    }
    best.push(found);
  });
  const moved = new Set(common.map(({ id }) => id));
  let at = best.reduce((end, one, n) => (end < 0 || one.length > (best[end]?.length ?? 0) ? n : end), -1);
  for (; at >= 0; at = best[at]?.from ?? -1) moved.delete(common[at]?.id ?? '');
  return moved;
}
