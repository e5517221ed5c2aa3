import { entityFrom, freeAddress, workingScreens } from '../../making/kind';
import type { Names } from '../../making/names';
import type { Area, Definition, MenuItem } from '../../model/definition';
import { newId, type Id } from '../../model/id';
import type { ElementNode, Slot } from '../../model/slots';
import { treeOf } from '../../model/tree';
import type { Edit } from '../edits/edit';
import { newGate } from '../edits/make';

/**
 * The edit that adds a kind of data, called so, with the usual actions; with `screens` also a list, a screen for one
 * record and a form for a new one, and what leads there in the menu. Who gets the screens goes by what new screens get.
 */
export function addKind(
  definition: Definition,
  names: Names,
  { screens: withScreens }: { readonly screens: boolean },
): { readonly edit: Edit; readonly id: Id } {
  const entity = entityFrom(newId(), names, [], newId);
  const { entities, areas, menu } = definition;
  const first = adding({ in: null, list: 'entities' }, entities.length, entity);
  if (!withScreens) return { edit: first, id: entity.id };
  const taken = new Set(
    treeOf(definition)
      .screens()
      .map(({ address }) => address),
  );
  const screens = workingScreens(entity, freeAddress(names.plural, taken), newId);
  const gates = Object.fromEntries(screens.map(({ id }) => [id, newGate(definition)]));
  const area: Area = { id: newId(), name: names.plural, screens };
  const item: MenuItem = {
    id: newId(),
    name: names.plural,
    ...(screens[0] && { screen: screens[0].id }),
    items: [],
  };
  const edits = [
    first,
    adding({ in: null, list: 'areas' }, areas.length, area, gates),
    adding({ in: menu.id, list: 'items' }, menu.items.length, item),
  ];
  return { edit: { do: 'together', edits }, id: entity.id };
}

const adding = (into: Slot, at: number, node: object, gates: Definition['gates'] = {}): Edit => ({
  do: 'addElement',
  into,
  at,
  node: node as ElementNode,
  gates,
  closed: {},
});
