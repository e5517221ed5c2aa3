import type { Check } from './finding';

/**
 * None of the people there are is in a group: its condition is most likely not what was meant.
 *
 * Has it: a group of people whose badge is "A-1", where nobody has that badge.
 * Has it not: the same group, once somebody has it.
 */
export const groupOfNobody: Check = {
  kind: 'group-of-nobody',
  rank: 'not-meant',
  title: 'A group of nobody',
  *find(context) {
    const { persons, definition } = context;
    if (persons.length === 0) return;
    for (const { id, name } of definition.groups)
      if (!context.isSomebody({ kind: 'group', group: id }, persons))
        yield { reason: `None of the people is in the group ${name}.`, places: [id], whom: [], mends: [] };
  },
};
