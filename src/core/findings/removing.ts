import { removalOf } from '../edit/shaping/removal';
import type { AppElement } from '../model/tree';
import type { Context } from './context';
import type { Mend } from './finding';

/** The mend that takes an element away with all that names it; none where something cannot be without it. */
export function removing({ definition }: Context, element: AppElement): readonly Mend[] {
  const removal = removalOf(definition, element.id);
  return removal.ok ? [{ says: `Take ${element.name} away.`, edit: removal.value.edit }] : [];
}
