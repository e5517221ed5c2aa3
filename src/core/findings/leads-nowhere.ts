import { NONE } from '../access/deciding/level';
import type { Check } from './finding';
import { removing } from './removing';

/**
 * A menu item or button is given to people for whom the screen that it leads to is closed, and to nobody for whom it is
 * open: since a handle never shows more than its door, nobody has it at all.
 *
 * Has it: a menu item for lenders that leads to a screen for registrars.
 * Has it not: the same item where the screen is open to lenders as well.
 */
export const leadsNowhere: Check = {
  kind: 'leads-nowhere',
  rank: 'not-meant',
  title: 'A way that nobody can go',
  *find(context) {
    const { compiled, tree } = context;
    for (const way of tree.elements) {
      const door = compiled.handles.doorOf(way);
      if (door?.kind !== 'screen' || !compiled.lines(way.id)) continue;
      const screen = tree.need(door.id, 'screen');
      const given = context.viewers.filter((viewer) => context.mostByGate(viewer, way) > NONE);
      const open = context.whoGets(screen);
      if (given.length === 0 || open.length === 0 || context.whoGets(way).length > 0) continue;
      yield {
        reason: `${way.name} is given to ${context.names(given)}, for whom the screen ${screen.name} is closed: nobody has it.`,
        places: [way.id, screen.id],
        whom: given,
        mends: [
          {
            says: `Let ${way.name} follow: whoever can open the screen has it.`,
            edit: { do: 'follow', gate: way.id, lines: compiled.lines(way.id) ?? [] },
          },
          ...removing(way),
        ],
      };
    }
  },
};
