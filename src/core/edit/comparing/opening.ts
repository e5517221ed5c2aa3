import { kindsOf } from '../../access/deciding/viewer-key';
import type { Circumstances } from '../../access/deciding/viewer';
import type { Definition } from '../../model/definition';
import { isDataDoor, treeOf } from '../../model/tree';
import { compareReach, type AccessDifference } from './access-differences';

/** What of an entity's records comes to be open to somebody who could not reach it before. */
export interface Opened<Key> {
  /** What its records are called. */
  readonly about: string;
  /** Fields and actions by name; the records themselves, where they were closed. */
  readonly what: readonly string[];
  /** Login states, roles and groups by name: these there are, whether or not anybody holds them yet. */
  readonly kinds: readonly string[];
  readonly people: ReadonlySet<Key>;
}

const THE_RECORDS = 'the records themselves';

/**
 * What the newer of two definitions opens of the data, whoever shows it, and to whom: kinds of viewers, and the people
 * that `shifts` are of. What is open to who is signed out comes first.
 */
export function opensOf<Key>(
  before: Definition,
  after: Definition,
  shifts: readonly AccessDifference<Key>[],
  at: Circumstances,
): Opened<Key>[] {
  const tree = treeOf(after);
  const kinds = kindsOf(after);
  const names = new Map(kinds.map(({ key, name }) => [key, name]));
  const ofKinds = new Map(compareReach(before, after, kinds, at).map((one) => [one.element, one]));
  const ofPeople = new Map(shifts.map((one) => [one.element, one]));
  const numbers = new Map<readonly Key[], number>();
  const numberOf = (list: readonly Key[]): number => {
    if (!numbers.has(list)) numbers.set(list, numbers.size);
    return numbers.get(list) ?? 0;
  };
  const found = new Map<string, { about: string; what: string[]; kinds: string[]; people: Set<Key> }>();
  for (const element of tree.elements) {
    if (!isDataDoor(element)) continue;
    const open = gaining(ofKinds.get(element.id)).flat();
    const people = gaining(ofPeople.get(element.id));
    if (open.length + people.length === 0) continue;
    const rows = element.kind === 'rows' ? element : element.container;
    const which = [rows?.id, ...open, ...people.map(numberOf)].join(' ');
    let one = found.get(which);
    if (!one)
      found.set(
        which,
        (one = {
          about: rows?.name ?? '',
          what: [],
          kinds: open.map((key) => names.get(key) ?? key),
          people: new Set(people.flat()),
        }),
      );
    one.what.push(element.kind === 'rows' ? THE_RECORDS : element.name);
  }
  const [first] = kinds;
  const isPublic = (one: Opened<Key>): boolean => one.kinds.includes(first?.name ?? '');
  return [...found.values()].sort((a, b) => Number(isPublic(b)) - Number(isPublic(a)));
}

/** Those who get more of it than before, in the lists that they stand in. */
const gaining = <Key>(shift: AccessDifference<Key> | undefined): (readonly Key[])[] =>
  (shift?.groups ?? [])
    .filter(({ before, after }) => after.most > before.most || after.least > before.least)
    .map(({ who }) => who);
