import type { Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import { failed, ok, type Problem, type Result } from '../../model/problem';
import { placeOf } from '../../model/slots';
import { treeOf, type AppElement } from '../../model/tree';
import { fullName } from '../comparing/words';
import { applyEdit } from '../edits/apply';
import { editBetween } from '../edits/between';
import type { Edit } from '../edits/edit';
import { GoesWith, type AlsoGoes } from './goes-with';
import { notRemoved } from './not-removed';
import { Without } from './without';

/** An element taken away: the one edit that does it, and what it does beside. */
export interface Removal {
  readonly edit: Edit;
  readonly also: readonly AlsoGoes[];
}

/**
 * Takes an element away with all that stands in it and all that names it: handles, buttons, lines, conditions, start
 * screens. Where a condition loses a part it is in doubt, and so closed: a line that gives is taken away, one that
 * takes away holds always. Refused where something would be left that cannot do without it.
 */
export function removalOf(definition: Definition, id: Id): Result<Removal> {
  const element = treeOf(definition).get(id);
  if (!element || !placeOf(definition, id))
    return failed(notRemoved(id, 'It is gone already.', 'Look at the application as it is now.'));
  const refused = whyNot(definition, element);
  if (refused) return failed(refused);
  const goes = new GoesWith(definition, id);
  const without = new Without(definition, goes.gone);
  const after = without.made();
  if (without.refused) return failed(without.refused);
  const edit = editBetween(definition, after);
  if (!edit) return failed(notRemoved(fullName(element), 'It is gone already.', 'Look at it as it is now.'));
  const made = applyEdit(definition, edit);
  return made.ok ? ok({ edit, also: [...goes.also, ...without.also] }) : made;
}

/** What an application or an entity cannot be without. */
function whyNot({ attributes, sessionValues }: Definition, element: AppElement): Problem | undefined {
  if (element.kind === 'action' && ['create', 'update', 'delete'].includes(element.node.kind))
    return notRemoved(
      fullName(element),
      'Records of every kind can be made, changed and deleted by whoever is given that.',
      'Give the action to nobody by its gate.',
    );
  if (element.kind === 'rows')
    for (const { name, type } of [...attributes, ...sessionValues])
      if (type.kind === 'record' && type.entity === element.id)
        return notRemoved(
          fullName(element),
          `${name} points to it.`,
          `Take ${name} away first, or give it another type.`,
        );
  return undefined;
}
