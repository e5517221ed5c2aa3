import { rightNow, type Person } from '../../access/deciding/viewer';
import { keyedPerson, kindsOf } from '../../access/deciding/viewer-key';
import type { Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import { privilegesOf } from '../../model/privileges';
import { treeOf } from '../../model/tree';
import { unitsOf } from '../../model/units';
import { compareReach } from './access-differences';

/** Who would get more since something is deleted, and of what. */
export interface Widening {
  /** By the key of each. */
  readonly who: readonly string[];
  readonly elements: readonly Id[];
}

/** The ids of all that lines, conditions and people can name. */
function named(definition: Definition): Set<Id> {
  const lists = [
    definition.roles,
    privilegesOf(definition),
    unitsOf(definition),
    definition.groups,
    definition.conditions,
    definition.attributes,
    definition.sessionValues,
    treeOf(definition).elements,
  ];
  return new Set(lists.flatMap((list) => list.map(({ id }) => id)));
}

/** Is something gone that was there before? */
export function deletesSomething(before: Definition, after: Definition): boolean {
  // One tree: the two differ in their gates only.
  if (treeOf(before) === treeOf(after)) return false;
  const there = named(after);
  return [...named(before)].some((id) => !there.has(id));
}

/**
 * Who gets more after something was deleted: lines that took something away may have gone with what they named.
 * Counted are real people and everybody of each kind, now and at any other time; getting other records than before counts
 * too, since some of them may be more. Undefined where nothing is deleted, or nobody gets more.
 *
 * @example
 * wideningOf(LARKFIELD, LARKFIELD, []) // → undefined
 */
export function wideningOf(
  before: Definition,
  after: Definition,
  people: readonly Person[],
): Widening | undefined {
  if (!deletesSomething(before, after)) return undefined;
  const still = new Set(kindsOf(after).map(({ key }) => key));
  const affected = [
    ...kindsOf(before).filter(({ key }) => still.has(key)),
    ...people.filter(({ active }) => active).map(keyedPerson),
  ];
  const who = new Set<string>();
  const elements: Id[] = [];
  for (const { element, groups: moved } of compareReach(before, after, affected, rightNow())) {
    const more = moved.filter(
      ({ before: was, after: is }) =>
        is.most > was.most || is.least > was.least || (is.most === was.most && is.least === was.least),
    );
    if (more.length === 0) continue;
    elements.push(element);
    for (const one of more) for (const key of one.who) who.add(key);
  }
  return who.size === 0 ? undefined : { who: [...who].sort(), elements };
}
