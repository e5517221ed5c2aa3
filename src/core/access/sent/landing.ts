import type { RecordFacts } from '../../condition/atom';
import { NONE } from '../deciding/level';
import type { Entity, MenuItem, Screen } from '../../model/definition';
import type { Id } from '../../model/id';
import { menusOf } from '../../model/tree';
import type { Access } from '../deciding/access';

/**
 * Where a viewer lands (access.md 1): the person's own start screen, else that of the first of their
 * roles that has one, else the application's, else the first in the menu, or in an area's own; always one that is open
 * to them. Undefined where nothing is.
 *
 * @example
 * landingOf(accessOf(compile(LARKFIELD), viewerOfRole('registrar'), at))?.id // → 's_loans'
 */
export function landingOf(access: Access, own?: Id): Screen | undefined {
  const { definition, tree } = access.compiled;
  const { roles } = access.held;
  const byRole = definition.roles.find((role) => roles.has(role.id) && role.startScreen)?.startScreen;
  const inMenu = (items: readonly MenuItem[]): Id[] =>
    items.flatMap((item) => [...(item.screen ? [item.screen] : []), ...inMenu(item.items)]);
  const candidates = [
    own,
    byRole,
    definition.startScreen,
    ...inMenu(menusOf(definition).flatMap(({ items }) => items)),
  ];
  for (const id of candidates) {
    const element = id === undefined ? undefined : tree.get(id);
    if (element?.kind === 'screen' && access.opens(element.node, undefined)) return element.node;
  }
  return undefined;
}

/** A screen on which the viewer can see this record: where one goes after making it. */
export function screenShowing(access: Access, record: RecordFacts): Screen | undefined {
  const screens = access.compiled.handles.recordScreensOf(record.entity.id);
  return screens.find((screen) => access.opens(screen, record));
}

/**
 * Where a closed screen sends this viewer: the first on the way that is open to them. Undefined where the
 * builder sends nowhere, or nothing on the way is open.
 */
export function sentTo(access: Access, from: Screen): Screen | undefined {
  const { tree } = access.compiled;
  const seen = new Set<Id>();
  for (let at = from; !seen.has(at.id);) {
    seen.add(at.id);
    const closed = access.compiled.closed(at.id);
    if (closed?.show !== 'sent') return undefined;
    at = tree.need(closed.screen, 'screen').node;
    if (access.level(access.element(at.id), undefined) > NONE) return at;
  }
  return undefined;
}

/** An open screen with a list of the entity: where one goes when a record is gone. */
export function screenListing(access: Access, entity: Entity): Screen | undefined {
  return access.compiled.handles
    .listsOf(entity.id)
    .find(
      ({ node, screen }) =>
        access.opens(screen, undefined) && access.level(access.element(node.id), undefined) > NONE,
    )?.screen;
}
