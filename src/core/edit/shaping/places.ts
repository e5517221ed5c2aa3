import type { Definition } from '../../model/definition';
import { placeOf, type Slot } from '../../model/slots';
import type { AppElement, Tree } from '../../model/tree';
import type { Edit } from '../edits/edit';

/**
 * May an element stand in that list? Where it stands already, and: a part in another section of its screen, a section
 * on the screen or one of its faces, a screen in another area, a menu item under another that is not under it.
 */
export function mayStandIn(tree: Tree, element: AppElement, from: Slot, to: Slot): boolean {
  if (from.list !== to.list) return false;
  if (from.in === to.in) return true;
  const holder = to.in === null ? undefined : tree.get(to.in);
  switch (to.list) {
    case 'parts':
      return holder?.kind === 'section' && holder.screen === element.screen;
    case 'sections':
      return (holder?.kind === 'screen' || holder?.kind === 'face') && holder.screen === element.screen;
    case 'screens':
      return holder?.kind === 'area';
    case 'items':
      return (
        (holder?.kind === 'menu' || holder?.kind === 'menu-item') && !tree.within(element).includes(holder)
      );
    case 'actions':
    case 'areas':
    case 'buttons':
    case 'columns':
    case 'entities':
    case 'faces':
    case 'fields':
    case 'frame':
      return false;
  }
}

/** The edit that puts an element at a place in a list, before what stands there; undefined where it stands there. */
export function moveTo(
  definition: Definition,
  id: AppElement['id'],
  slot: Slot,
  at: number,
): Edit | undefined {
  const place = placeOf(definition, id);
  if (!place) return undefined;
  const within = place.slot.in === slot.in && place.slot.list === slot.list;
  // What stands before it is one less once it is taken from there.
  const to = within && place.at < at ? at - 1 : at;
  if (within && to === place.at) return undefined;
  return { do: 'moveElement', id, from: { ...place.slot, at: place.at }, to: { ...slot, at: to } };
}
