import { NONE } from '../access/deciding/level';
import type { Check } from './finding';

/**
 * People see a field that points to a record, and neither that record's name nor anything else of it: the field is empty
 * for them, though what they have of it is called see.
 *
 * Has it: the item of a loan, shown to people for whom the title of items is closed.
 * Has it not: the same field, where they see what items are called.
 */
export const pointedToClosed: Check = {
  kind: 'pointed-to-closed',
  rank: 'not-meant',
  title: 'A field that stays empty',
  *find(context) {
    const { tree } = context;
    for (const field of tree.elements) {
      if (field.kind !== 'data-field' || field.node.type.kind !== 'record') continue;
      const pointed = tree.need(field.node.type.entity, 'rows');
      const label = tree.get(pointed.node.labelField);
      const whom = context
        .whoGets(field)
        .filter((viewer) =>
          [pointed, label].some((door) => door !== undefined && context.most(viewer, door) === NONE),
        );
      if (whom.length === 0) continue;
      yield {
        reason: `${pointed.name} are closed to ${context.names(whom)}, so ${field.name} of ${tree.entityOf(field.id)?.plural ?? ''} stays empty for them.`,
        places: [field.id, pointed.id],
        whom,
        mends: [],
      };
    }
  },
};
