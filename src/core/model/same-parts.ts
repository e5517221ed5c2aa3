/**
 * A plain value with all its parts that are also in another one taken from there, so that comparing the two, and what
 * comes of them by edits, stops at each. What has an id is looked for under it, all else in its place.
 *
 * @example
 * const [one, two] = [{ a: [{ id: 'x' }] }, { a: [{ id: 'y' }, { id: 'x' }] }];
 * withSameParts(one, two).a[1] === one.a[0] // → true
 */
export function withSameParts<T>(other: unknown, value: T): T {
  if (typeof value !== 'object' || value === null || typeof other !== 'object' || other === null)
    return value;
  if (Array.isArray(value) !== Array.isArray(other)) return value;
  return (Array.isArray(value) ? itemsOf(other as unknown[], value) : membersOf(other, value)) as T;
}

function itemsOf(other: readonly unknown[], value: readonly unknown[]): readonly unknown[] {
  const byId = new Map(other.map((one) => [idOf(one), one]));
  const items = value.map((one, n) =>
    withSameParts(idOf(one) === idOf(other[n]) ? other[n] : byId.get(idOf(one)), one),
  );
  return items.length === other.length && items.every((one, n) => one === other[n]) ? other : items;
}

function membersOf(other: object, value: object): object {
  const [theirs, keys] = [other as Record<string, unknown>, Object.keys(value)];
  const members = keys.map(
    (key) => [key, withSameParts(theirs[key], (value as typeof theirs)[key])] as const,
  );
  const same =
    keys.length === Object.keys(other).length &&
    members.every(([key, one]) => key in theirs && one === theirs[key]);
  return same ? other : Object.fromEntries(members);
}

const idOf = (one: unknown): unknown =>
  typeof one === 'object' && one !== null && 'id' in one ? one.id : undefined;
