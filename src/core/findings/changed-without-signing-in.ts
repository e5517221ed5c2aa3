import { EDIT } from '../access/deciding/level';
import { SIGNED_OUT_KEY } from '../access/deciding/viewer-key';
import { editLines, newLine } from '../edit/edits/make';
import { startLines } from '../edit/proposing/start';
import { changesData } from '../model/definition';
import type { Check } from './finding';

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
  title: 'Changed without signing in',
  *find(context) {
    const { tree, viewers, compiled, definition } = context;
    const out = viewers.find(({ key }) => key === SIGNED_OUT_KEY);
    if (!out) return;
    for (const action of tree.elements) {
      if (action.kind !== 'action' || !changesData(action.node) || context.most(out, action) < EDIT) continue;
      const lines = compiled.lines(action.id);
      const block = newLine({ kind: 'signed-out' }, 'block');
      yield {
        reason: `Who is not signed in can do “${action.name}” with ${action.container?.name ?? 'records'}.`,
        places: [action.id, ...compiled.handles.handlesOf(action)],
        whom: [out],
        mends: [
          {
            says: `Block ${action.name} for who is not signed in.`,
            edit: editLines(action.id, lines, [...(lines ?? startLines(definition, action.id)), block]),
          },
        ],
      };
    }
  },
};
