import type { Menu, MenuItem, Screen } from '../../model/definition';
import { frameOf } from '../../model/tree';
import type { Access } from '../deciding/access';
import { NONE } from '../deciding/level';
import { addressOf, shownClosed } from './resolve';
import type { ShownFrame, ShownMenuItem } from './shown';

/**
 * What stands around a screen that is open to the viewer: the name and the menu of its area, where that has its own
 * and they get it; else the application's, as where no screen is open.
 *
 * @example
 * const access = accessOf(compile(LARKFIELD), viewerOfRole('registrar'), at);
 * frameAround(access, undefined).name // → 'Larkfield Loans Desk'
 */
export function frameAround(access: Access, screen: Screen | undefined): ShownFrame {
  const { definition } = access.compiled;
  const own = frameOf(definition, screen);
  if (own && access.level(access.element(own.id), undefined) > NONE)
    return { id: own.id, name: own.name, menu: resolveMenu(access, own) };
  return { id: definition.menu.id, name: definition.name, menu: resolveMenu(access, definition.menu) };
}

/** A menu as the viewer has it: items without a screen stay where something is left in them. */
export function resolveMenu(access: Access, menu: Menu): ShownMenuItem[] {
  const resolveItem = (item: MenuItem): ShownMenuItem[] => {
    const { id, name } = item;
    const element = access.element(id);
    if (access.level(element, undefined) === NONE) {
      const closed = shownClosed(access, element);
      return closed ? [{ id, name, closed, items: [] }] : [];
    }
    const items = item.items.flatMap(resolveItem);
    if (!item.screen && items.length === 0) return [];
    const screen = item.screen && access.compiled.tree.need(item.screen, 'screen').node;
    return [{ id, name, ...(screen && { address: addressOf(screen) }), items }];
  };
  return access.level(access.element(menu.id), undefined) === NONE ? [] : menu.items.flatMap(resolveItem);
}
