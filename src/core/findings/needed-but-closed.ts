import { EDIT } from '../access/deciding/level';
import type { EntityField } from '../model/definition';
import type { Check, ProposedMend } from './finding';
import { called, sentence } from './words';

/**
 * Who can send a form for a new record cannot fill in a field that is needed and that starts with nothing: it is refused
 * whatever they do.
 *
 * Has it: a form for a new loan without its borrower, who is needed.
 * Has it not: the same form where the borrower need not be there, or starts as something.
 */
export const neededButClosed: Check = {
  kind: 'needed-but-closed',
  rank: 'not-meant',
  title: 'Required field that cannot be filled in',
  *find(context) {
    const { tree, compiled } = context;
    for (const screen of tree.elements) {
      const entity = screen.kind === 'screen' && screen.node.binds?.record === 'new' && tree.recordOf(screen);
      if (screen.kind !== 'screen' || !entity) continue;
      const saves = compiled.handles.savesOn(screen.node);
      const senders = context
        .whoGets(screen)
        .filter((viewer) => saves.some((save) => context.most(viewer, save) === EDIT));
      for (const field of entity.fields) {
        if (!field.required || field.initial !== undefined) continue;
        const parts = compiled.handles
          .fieldsOf(field.id, 'new')
          .filter((part) => part.screen === screen.node)
          .map(({ element }) => element);
        const whom = senders.filter((viewer) => parts.every((part) => context.most(viewer, part) < EDIT));
        if (whom.length === 0) continue;
        yield {
          reason: sentence(
            `${context.names(whom)} can submit ${called(screen)} but cannot fill in the required field ${field.name}.`,
          ),
          places: [screen.id, field.id, ...parts.map(({ id }) => id)],
          whom,
          mends: [notNeeded(field)],
        };
      }
    }
  },
};

const notNeeded = ({ id, name }: EntityField): ProposedMend => ({
  says: `Make ${name} optional.`,
  does: 'nothing',
  edit: { do: 'changeElement', id, from: { required: true }, to: { required: null } },
});
