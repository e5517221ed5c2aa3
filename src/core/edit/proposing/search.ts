/** Nothing is smaller than one line taken away or changed, for nobody else. */
const NOTHING_SMALLER = 1;

/**
 * The cheapest of what is tried: `tried` says what comes of a candidate, with its cost, or that it does not do. Of
 * several at the same cost it is the first; undefined where none does.
 */
export function cheapest<Candidate, Found extends { readonly cost: number }>(
  candidates: Iterable<Candidate>,
  tried: (candidate: Candidate) => Found | undefined,
): Found | undefined {
  let best: Found | undefined;
  for (const candidate of candidates) {
    const found = tried(candidate);
    if (!found || (best && found.cost >= best.cost)) continue;
    best = found;
    if (found.cost <= NOTHING_SMALLER) break;
  }
  return best;
}
