import { NONE } from '../access/deciding/level';
import type { Check } from './finding';
import { called, sentence } from './words';

/**
 * Something is shown locked, and some who hold the privilege to unlock do not get it themselves: nobody opens for others
 * what they do not have, so that they are asked for it in vain.
 *
 * Has it: the approver of a loan is locked, and one of two roles that may unlock does not see it either.
 * Has it not: whoever may unlock sees it.
 */
export const unlocksWhatTheyLack: Check = {
  kind: 'unlocks-what-they-lack',
  rank: 'not-meant',
  title: 'Locked element that cannot be unlocked',
  *find(context) {
    const { definition, tree } = context;
    const { unlock } = definition;
    if (!unlock) return;
    const unlockers = context.spokenOf({ kind: 'privilege', privilege: unlock.privilege });
    for (const [id, { show }] of Object.entries(definition.closed)) {
      const element = tree.get(id);
      if (show !== 'locked' || !element || unlockers.length === 0 || !tree.recordOf(element)) continue;
      const whom = unlockers.filter((one) => context.most(one, element) === NONE);
      if (whom.length === 0) continue;
      const by = whom.length === unlockers.length ? ' Nobody can unlock it.' : '';
      yield {
        reason: sentence(
          `${called(element)} is shown locked, but ${context.names(whom)}, who can unlock, cannot see it themselves.${by}`,
        ),
        places: [id],
        whom,
        mends: [
          {
            says: `Hide ${called(element)} from people without access.`,
            does: 'nothing',
            edit: { do: 'changeClosed', element: id, from: definition.closed[id] },
          },
        ],
      };
    }
  },
};
