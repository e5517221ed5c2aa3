import { EDIT } from '../access/deciding/level';
import type { Check } from './finding';
import { closedTo } from './mends';
import { called, sentence } from './words';

/**
 * People can change many records at once, and may write none of their fields: there is nothing that they could change.
 *
 * Has it: a button for changing many notes, for clerks who may read them only.
 * Has it not: the same button, where clerks may write their text.
 */
export const bulkChangesNothing: Check = {
  kind: 'bulk-changes-nothing',
  rank: 'not-meant',
  title: 'Changing many records, and no field to change',
  *find(context) {
    const { tree } = context;
    for (const action of tree.elements) {
      if (action.kind !== 'action' || action.node.kind !== 'bulk') continue;
      const fields = tree.elements.filter(
        (one) => one.kind === 'data-field' && one.container === action.container,
      );
      const whom = context
        .whoGets(action, EDIT)
        .filter((viewer) => fields.every((field) => context.most(viewer, field) < EDIT));
      if (whom.length === 0) continue;
      const names = context.names(whom);
      const edit = closedTo(context, action, whom);
      yield {
        reason: sentence(`${names} can use ${called(action)}, but can write none of the fields.`),
        places: [action.id, ...context.compiled.handles.handlesOf(action)],
        whom,
        mends: edit ? [{ says: `Close ${called(action)} to ${names}.`, does: 'closes', edit }] : [],
      };
    }
  },
};
