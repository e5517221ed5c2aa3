/** `bin/test --checks` and CI try everything as often as it says; elsewhere a fifth is enough, and quicker. */
const ALL = process.env['ALL_RUNS'] === 'yes';
const SHARE = 5;

/** How often a property is tried with random examples. */
export const runs = (n: number): number => (ALL ? n : Math.ceil(n / SHARE));

/** What is expected to be found in `n` random examples, with room for chance where fewer are tried. */
export const found = (n: number): number => (ALL ? n : Math.floor(n / SHARE / 2));
