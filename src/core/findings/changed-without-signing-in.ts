import { EDIT } from '../access/deciding/level';
import { changesData } from '../model/definition';
import type { Check } from './finding';
import { closedTo } from './mends';
import { called } from './words';

/**
 * Somebody who is not signed in can make, change or delete records. A form for the public may mean it; nobody then knows
 * who did it.
 *
 * Has it: a form for a new report on a screen that is open to everyone, with a button that saves.
 * Has it not: the same form on a screen that is open to who is signed in.
 */
export const changedWithoutSigningIn: Check = {
  kind: 'changed-without-signing-in',
  rank: 'lets-in',
  title: 'Data can be changed without signing in',
  *find(context) {
    const { tree, compiled, signedOut: out } = context;
    for (const action of tree.elements) {
      if (action.kind !== 'action' || !changesData(action.node) || context.most(out, action) < EDIT) continue;
      const edit = closedTo(context, action, [out]);
      yield {
        reason: `People who are signed out can use ${called(action)}.`,
        places: [action.id, ...compiled.handles.handlesOf(action)],
        whom: [out],
        mends: edit
          ? [
              {
                says: `Block ${called(action)} for people who are signed out.`,
                does: 'closes',
                edit,
              },
            ]
          : [],
      };
    }
  },
};
