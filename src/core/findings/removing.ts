import type { Edit } from '../edit/edits/edit';
import { removalOf } from '../edit/shaping/removal';
import type { Definition } from '../model/definition';
import type { AppElement } from '../model/tree';
import type { Mend } from './finding';

/** The mend that takes an element away with all that names it. */
export const removing = ({ id, name }: AppElement): readonly Mend[] => [
  { says: `Take ${name} away.`, removes: id },
];

/** The edit of a mend; undefined where something cannot be without what it would take away. */
export function editOfMend(definition: Definition, mend: Mend): Edit | undefined {
  if ('edit' in mend) return mend.edit;
  const removal = removalOf(definition, mend.removes);
  return removal.ok ? removal.value.edit : undefined;
}
