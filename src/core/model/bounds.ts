import { isStorable } from './values/text';
import { type Problem } from './problem';

/** How deep objects and lists may stand in each other. */
const MOST_DEEP = 100;

/** How large a value may be before anything else is looked at. */
export interface Bounds {
  /** How many values it may hold in all, those within each other counted one by one. */
  readonly values: number;
  readonly depth?: number;
}

/** The outer parts of values that were within bounds. Documents share most of them with the one before. */
const within = new WeakSet<object>();

const REMEMBERED = 4;

/**
 * The first thing that makes a value too large to look at, or that no store can keep: the null character, half of
 * a surrogate pair, or a key that every object has. Undefined where there is none. Never deep on the stack.
 */
export function outOfBounds(value: unknown, { values, depth = MOST_DEEP }: Bounds): Problem | undefined {
  const fault = (message: string, mend: string): Problem => ({
    code: 'shape',
    place: 'the document',
    message,
    mend,
  });
  const waiting: { readonly one: unknown; readonly deep: number }[] = [{ one: value, deep: 0 }];
  const walked: object[] = [];
  let count = 0;
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { one, deep } = next;
    if (++count > values)
      return fault(`It contains more than ${values} values.`, 'Send fewer values at a time.');
    if (typeof one === 'string' && !isStorable(one)) return oddText(one);
    if (typeof one !== 'object' || one === null || within.has(one)) continue;
    if (deep > 0 && deep <= REMEMBERED) walked.push(one);
    if (deep >= depth) return fault(`It is nested more than ${depth} levels deep.`, 'Reduce the nesting.');
    for (const [key, inner] of Object.entries(one)) {
      if (!isStorable(key)) return oddText(key);
      if (key in Object.prototype)
        return fault(`It has a key ${key}, which every object has.`, 'Remove or rename it.');
      waiting.push({ one: inner, deep: deep + 1 });
    }
  }
  for (const one of walked) within.add(one);
  return undefined;
}

const oddText = (text: string): Problem => ({
  code: 'characters',
  place: JSON.stringify(text.slice(0, 40).toWellFormed()),
  message: 'The text contains a null character or an incomplete surrogate pair, which cannot be stored.',
  mend: 'Remove these characters.',
});
