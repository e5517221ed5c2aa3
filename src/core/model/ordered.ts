/** The keys that come first in an object of a document, in this order; the others follow by name. */
const FIRST = ['format', 'id', 'kind', 'do', 'name', 'plural', 'description', 'type', 'address', 'binds'];

/**
 * The document with the keys of its objects in a steady order, so that differences between two files are
 * differences in what they say. The order of lists is part of what is said, and stays.
 */
export function ordered(json: unknown): unknown {
  if (Array.isArray(json)) return json.map(ordered);
  if (typeof json !== 'object' || json === null) return json;
  const rank = (key: string): number => (FIRST.includes(key) ? FIRST.indexOf(key) : FIRST.length);
  return Object.fromEntries(
    Object.entries(json)
      .filter(([, value]) => value !== undefined)
      .sort(([a], [b]) => rank(a) - rank(b) || (a < b ? -1 : a > b ? 1 : 0))
      .map(([key, value]) => [key, ordered(value)]),
  );
}
