import type { Definition } from '../model/definition';
import type { Id } from '../model/id';
import { allWithin, type Condition } from './condition';

/** The condition and all within it, itself first, also within the conditions and groups that it names. */
export function allNamed(
  definition: Pick<Definition, 'conditions' | 'groups'>,
  condition: Condition,
  seen: ReadonlySet<Id> = new Set(),
): Condition[] {
  return allWithin(condition).flatMap((one) => {
    const named =
      'meets' in one
        ? definition.conditions.find(({ id }) => id === one.meets)
        : 'inGroup' in one
          ? definition.groups.find(({ id }) => id === one.inGroup)
          : undefined;
    if (!named || seen.has(named.id)) return [one];
    return [one, ...allNamed(definition, named.condition, new Set([...seen, named.id]))];
  });
}
