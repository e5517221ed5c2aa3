const NUMBER = new Intl.NumberFormat('en-GB');
const RULES = new Intl.PluralRules('en-GB');

/** One of the two forms: for one of something, or for any other number of it (CLDR's plural rules of English). */
export const plural = (n: number, one: string, other = `${one}s`): string =>
  RULES.select(n) === 'one' ? one : other;

/** So many of something: "1 finding", "1,200 findings"; what follows may go along: "2 screens open". */
export const counted = (n: number, one: string, other?: string): string =>
  `${NUMBER.format(n)} ${plural(n, one, other)}`;

/** The same with a word for none: "nobody", "1 person", "2 people". */
export const countedOr = (none: string, n: number, one: string, other?: string): string =>
  n === 0 ? none : counted(n, one, other);
