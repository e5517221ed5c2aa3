import { NONE } from '../access/deciding/level';
import type { Check } from './finding';

/**
 * Something that is shown locked can be unlocked by nobody: whoever holds the privilege to unlock does not get it
 * themselves, and nobody opens for others what they do not have.
 *
 * Has it: the approver of a loan is locked, and the heads who may unlock do not see it either.
 * Has it not: the heads see it.
 */
export const unlocksWhatTheyLack: Check = {
  kind: 'unlocks-what-they-lack',
  rank: 'not-meant',
  title: 'Locked, and nobody can unlock it',
  *find(context) {
    const { definition, tree } = context;
    const { unlock } = definition;
    if (!unlock) return;
    const unlockers = context.spokenOf({ kind: 'privilege', privilege: unlock.privilege });
    for (const [id, { show }] of Object.entries(definition.closed)) {
      const element = tree.get(id);
      if (show !== 'locked' || !element || unlockers.length === 0 || !tree.recordOf(element)) continue;
      if (unlockers.some((one) => context.most(one, element) > NONE)) continue;
      yield {
        reason: `${element.name} is shown locked, and ${context.names(unlockers)}, who may unlock, do not get it themselves.`,
        places: [id],
        whom: unlockers,
        mends: [
          {
            says: `Leave ${element.name} out for who does not get it.`,
            edit: { do: 'changeClosed', element: id, from: definition.closed[id] },
          },
        ],
      };
    }
  },
};
