import type { Entity, MenuItem, Screen } from '../model/definition';
import type { Id } from '../model/id';
import { withIncluded } from '../model/tree';
import type { Values } from '../model/value';
import type { Access } from './access';
import type { Viewer } from './viewer';

/**
 * Where a viewer lands (DESIGN 3.7): the person's own start screen, else that of the first of their
 * roles that has one, else the application's, else the first in the menu; always one that is open to
 * them. Undefined where nothing is.
 */
export function landingOf(access: Access, viewer: Viewer, own?: Id): Screen | undefined {
  const { definition, tree } = access.compiled;
  const held = viewer.kind === 'signed-in' ? withIncluded(definition, viewer.roles) : new Set<Id>();
  const byRole = definition.roles.find((role) => held.has(role.id) && role.startScreen)?.startScreen;
  const inMenu = (items: readonly MenuItem[]): Id[] =>
    items.flatMap((item) => [...(item.screen ? [item.screen] : []), ...inMenu(item.items)]);
  const candidates = [own, byRole, definition.startScreen, ...inMenu(definition.menu.items)];
  for (const id of candidates) {
    const element = id === undefined ? undefined : tree.get(id);
    if (element?.kind === 'screen' && access.opens(element.node, undefined)) return element.node;
  }
  return undefined;
}

/** A screen on which the viewer can see this record: where one goes after making it. */
export function screenShowing(access: Access, entity: Entity, values: Values): Screen | undefined {
  return access.compiled.handles.recordScreensOf(entity.id).find((screen) => access.opens(screen, values));
}

/** An open screen with a list of the entity: where one goes when a record is gone. */
export function screenListing(access: Access, entity: Entity): Screen | undefined {
  return access.compiled.handles
    .listsOf(entity.id)
    .find(
      ({ node, screen }) =>
        access.opens(screen, undefined) && access.level(access.element(node.id), undefined) > 0,
    )?.screen;
}
