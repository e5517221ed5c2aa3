import { EDIT, NONE } from '../access/deciding/level';
import type { Check } from './finding';
import { deleting } from './mends';
import { called, sentence } from './words';

/**
 * A field that points to a record is there to be filled in by people who may see none of those records: they have nothing
 * to choose from.
 *
 * Has it: the item of a new loan, on a form for people who see no items.
 * Has it not: the same field, where a list of items is open to them.
 */
export const picksFromNothing: Check = {
  kind: 'picks-from-nothing',
  rank: 'not-meant',
  title: 'No records to choose from',
  *find(context) {
    const { tree } = context;
    for (const part of tree.elements) {
      if (part.kind !== 'field') continue;
      const door = tree.get(part.node.field);
      if (door?.kind !== 'data-field' || door.node.type.kind !== 'record') continue;
      const pointed = tree.need(door.node.type.entity, 'rows');
      const whom = context.whoGets(part, EDIT).filter((viewer) => context.most(viewer, pointed) === NONE);
      if (whom.length === 0) continue;
      yield {
        reason: sentence(
          `${context.names(whom)} can fill in ${called(part)}, but can see none of ${called(pointed)} to choose from.`,
        ),
        places: [part.id, pointed.id],
        whom,
        mends: [deleting(part)],
      };
    }
  },
};
