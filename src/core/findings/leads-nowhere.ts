import { NONE } from '../access/deciding/level';
import { sentTo } from '../access/sent/landing';
import type { AskedViewer, Context } from './context';
import type { Check } from './finding';
import { removing } from './removing';

/**
 * A menu item or button is given to people for whom the screen that it leads to is closed, and to nobody for whom it is
 * open: since a handle never shows more than its door, nobody has it at all. Or people are sent on from a screen to one that
 * is closed to all of them.
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
    yield* sentToClosed(context);
  },
};

/** Whom a screen is closed to is sent to another, which is closed to all of them too. */
function* sentToClosed(context: Context) {
  for (const [id, closed] of Object.entries(context.definition.closed)) {
    const [from, to] = [id, closed.show === 'sent' ? closed.screen : ''].map((one) => context.element(one));
    if (from?.kind !== 'screen' || to?.kind !== 'screen') continue;
    const whom = context.viewers.filter((viewer) => context.most(viewer, from) === NONE);
    const arrives = (viewer: AskedViewer): boolean =>
      sentTo(context.accessOf(viewer).most, from.node) !== undefined;
    if (whom.length === 0 || whom.some(arrives)) continue;
    yield {
      reason: `Whom ${from.name} is closed to is sent to ${to.name}, which is closed to all of them.`,
      places: [from.id, to.id],
      whom,
      mends: [
        {
          says: `Refuse them at ${from.name} instead.`,
          edit: { do: 'changeClosed', element: id, from: closed, to: undefined } as const,
        },
      ],
    };
  }
}
