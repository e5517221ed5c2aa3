/** A name no longer than this is shown as it is. */
const FITS = 20;
/** So much is left of a beginning that several names share: as little as still tells them apart. */
const LEFT = [10, 14, 18];
/** So much of the end stays with what tells a name apart: a line of its own in the rail. */
const END = 13;

/**
 * Names as they are shown where there is little room: what several long ones begin with alike is cut in the middle,
 * so that what tells them apart stays to be read. The whole name is told on hover. Each stays different from all others.
 */
export function shortNames(names: readonly string[]): ReadonlyMap<string, string> {
  const all = [...new Set(names)];
  const short = new Map(all.map((name) => [name, name]));
  let long = all.filter((name) => name.length > FITS);
  const shared = new Map(
    long.map((name) => [
      name,
      Math.max(0, ...long.filter((one) => one !== name).map((one) => wordsShared(name, one))),
    ]),
  );
  const taken = new Set(all.filter((name) => !long.includes(name)));
  for (const left of LEFT) {
    const made = long.map((name) => [name, shortened(name, shared.get(name) ?? 0, left)] as const);
    for (const [name, one] of made) {
      const like =
        made.filter(([, other]) => other === one).length > 1 || taken.has(one) || all.includes(one);
      if (!like) short.set(name, one);
    }
    for (const one of short.values()) taken.add(one);
    // What would look like another one is tried with more left of it; in the end it is told whole.
    long = long.filter((name) => short.get(name) === name);
  }
  return short;
}

function shortened(name: string, shared: number, left: number): string {
  const from = withWordsBefore(name, shared);
  const beginning = from > left + 4 ? `${cutAt(name, left)}… ` : '';
  const rest = beginning ? name.slice(from) : name;
  if (beginning.length + rest.length <= FITS + 6) return beginning + rest;
  const half = Math.max(4, Math.floor((FITS - beginning.length) / 2));
  return `${beginning}${rest.slice(0, half).trimEnd()}…${rest.slice(-half).trimStart()}`;
}

/** Where the end begins that stays: at `at`, or as many words earlier as there is room for. */
function withWordsBefore(name: string, at: number): number {
  for (;;) {
    const before = name.lastIndexOf(' ', at - 2) + 1;
    if (at < 2 || before === 0 || name.length - before > END) return at;
    at = before;
  }
}

/** The beginning of a name, of whole words where the first of them fits. */
function cutAt(name: string, left: number): string {
  const end = name.lastIndexOf(' ', left);
  return name.slice(0, end > 3 ? end : left).trimEnd();
}

/** How far two names are alike from their beginning, in whole words; the last word of each stays. */
function wordsShared(a: string, b: string): number {
  let at = 0;
  while (at < a.length && at < b.length && a[at] === b[at]) at++;
  const end = a.lastIndexOf(' ', Math.max(0, at - 1)) + 1;
  return Math.min(end, a.lastIndexOf(' ') + 1, b.lastIndexOf(' ') + 1);
}
