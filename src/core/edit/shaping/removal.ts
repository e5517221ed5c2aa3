import type { Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import { failed, ok, type Problem, type Result } from '../../model/problem';
import { placeOf } from '../../model/slots';
import { treeOf, type AppElement } from '../../model/tree';
import { fullName } from '../comparing/words';
import { applyEdit } from '../edits/apply';
import { editBetween } from '../edits/between';
import type { Edit } from '../edits/edit';
import { DependentDeletions, type DependentDeletion } from './goes-with';
import { notRemoved } from './not-removed';
import { ReferenceRemover } from './remove-references';

/** An element taken away: the one edit that does it, and what it does beside. */
export interface Removal {
  readonly edit: Edit;
  readonly also: readonly DependentDeletion[];
}

/**
 * Takes an element away with all that stands in it and all that names it: handles, buttons, lines, conditions, start
 * screens. Where a condition loses a part it is in doubt, and so closed: a line that gives is taken away, one that
 * takes away holds always. Refused where something would be left that cannot do without it.
 */
export function removalOf(definition: Definition, id: Id): Result<Removal> {
  const element = treeOf(definition).get(id);
  if (!element || !placeOf(definition, id))
    return failed(notRemoved(id, 'It has already been deleted.', 'Reload to see the current version.'));
  const refused = whyNot(definition, element);
  if (refused) return failed(refused);
  const goes = new DependentDeletions(definition, id);
  const without = new ReferenceRemover(definition, goes.gone);
  const after = without.made();
  if (without.refused) return failed(without.refused);
  const edit = editBetween(definition, after);
  if (!edit)
    return failed(
      notRemoved(fullName(element), 'It has already been deleted.', 'Reload to see the current version.'),
    );
  const made = applyEdit(definition, edit);
  return made.ok ? ok({ edit, also: [...goes.also, ...without.also] }) : made;
}

/** What an application or an entity cannot be without. */
function whyNot({ attributes, sessionValues }: Definition, element: AppElement): Problem | undefined {
  if (element.kind === 'action' && ['create', 'update', 'delete'].includes(element.node.kind))
    return notRemoved(
      fullName(element),
      'The create, update and delete actions of an entity cannot be deleted.',
      'To prevent anyone from using it, remove all lines from its gate.',
    );
  if (element.kind === 'rows')
    for (const { name, type } of [...attributes, ...sessionValues])
      if (type.kind === 'record' && type.entity === element.id)
        return notRemoved(
          fullName(element),
          `${name} refers to it.`,
          `Delete ${name} first or change its type.`,
        );
  return undefined;
}
