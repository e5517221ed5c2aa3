/**
 * A value as JSON that is the same for the same value, whatever the order of its keys: RFC 8785 (JSON Canonicalization
 * Scheme), whose numbers and texts are as ECMAScript writes them, and whose keys are in the order of their UTF-16 units.
 * What is undefined is left out.
 *
 * @example
 * canonicalJson({ b: 1, a: ['x', null] }) // → '{"a":["x",null],"b":1}'
 */
export function canonicalJson(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map((one) => canonicalJson(one ?? null)).join(',')}]`;
  if (typeof value !== 'object' || value === null) return JSON.stringify(value ?? null);
  const parts = Object.entries(value)
    .filter(([, one]) => one !== undefined)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([key, one]) => `${JSON.stringify(key)}:${canonicalJson(one)}`);
  return `{${parts.join(',')}}`;
}
