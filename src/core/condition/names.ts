import type { Id } from '../model/id';

interface Named {
  readonly id: Id;
  readonly name: string;
}

/** A name as a word of the text form: "Due back" is `due_back`. Empty where nothing is left of it. */
function wordOf(name: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/\p{Mark}/gu, '')
    .toLowerCase();
  const word = plain.replace(/[^a-z0-9]+/g, '_').replace(/^_+|_+$/g, '');
  return /^[a-z]/.test(word) ? word : '';
}

/** How one of several is called in a path: by its word, or by `#id` where that would not be told apart. */
export function pathWord(among: readonly Named[], id: Id): string {
  const one = among.find((other) => other.id === id);
  const word = one ? wordOf(one.name) : '';
  return word !== '' && findByWord(among, word)?.id === id ? word : `#${id}`;
}

/** The one that a path's word means: by its name, where just one has that name, else by its id. */
export function findByWord<T extends Named>(among: readonly T[], word: string): T | undefined {
  if (word.startsWith('#')) return among.find((one) => one.id === word.slice(1));
  const named = among.filter((one) => wordOf(one.name) === word.toLowerCase());
  if (named.length === 1) return named[0];
  return named.length > 1 ? undefined : among.find((one) => one.id === word);
}

/** How one of several is called where its name stands in quotes: `"Registrar"`, else `#id`. */
export function quotedName(among: readonly Named[], id: Id): string {
  const one = among.find((other) => other.id === id);
  return one && findByName(among, one.name)?.id === id ? quoted(one.name) : `#${id}`;
}

/** The one with this name, where just one has it, else with this id; capitals do not count. */
export function findByName<T extends Named>(among: readonly T[], name: string): T | undefined {
  const same = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();
  const exact = among.filter((one) => one.name === name);
  if (exact.length === 1) return exact[0];
  const named = among.filter((one) => same(one.name, name));
  if (named.length === 1) return named[0];
  return named.length > 1 ? undefined : among.find((one) => one.id === name);
}

/** A text in quotes, as in JSON (RFC 8259, section 7). */
export const quoted = (text: string): string => JSON.stringify(text);

/** The name that is most like what was written, if one is at all: for "did you mean". */
export function nearest(among: readonly string[], written: string): string | undefined {
  const plain = (name: string): string => name.toLowerCase().replaceAll('"', '');
  const wanted = plain(written);
  const scored = among.map((name) => ({ name, distance: distance(wanted, plain(name)) }));
  const best = scored.sort((a, b) => a.distance - b.distance)[0];
  return best && best.distance <= Math.max(2, wanted.length / 2) ? best.name : undefined;
}

/** Levenshtein's distance: how many letters to add, drop or change. A name that holds the other is near. */
function distance(a: string, b: string): number {
  if (a.length > 2 && b.includes(a)) return 1;
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      const change = (row[j - 1] as number) + (a[i - 1] === b[j - 1] ? 0 : 1);
      next.push(Math.min(change, (row[j] as number) + 1, (next[j - 1] as number) + 1));
    }
    row = next;
  }
  return row[b.length] as number;
}
