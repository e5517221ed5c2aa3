import { NONE } from '../access/deciding/level';
import { sentTo } from '../access/sent/landing';
import type { Context } from './context';
import type { Check, Suspect } from './finding';
import { deleting, following } from './mends';
import { called, sentence } from './words';

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
  title: 'Link to a closed screen',
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
        reason: sentence(
          `${called(way)} is given only to ${context.names(given)}, who cannot open ${called(screen)}, so nobody sees it.`,
        ),
        places: [way.id, screen.id],
        whom: given,
        mends: [
          following(context, way, {
            says: `Show ${called(way)} to everyone who can open the screen: ${context.names(open)}.`,
            does: 'opens',
            to: open,
          }),
          deleting(way),
        ],
      };
    }
    yield* sentToClosed(context);
  },
};

/** People to whom a screen is closed are sent to another, which is closed to most of them too. */
function* sentToClosed(context: Context): Generator<Suspect> {
  for (const [id, closed] of Object.entries(context.definition.closed)) {
    const [from, to] = [id, closed.show === 'sent' ? closed.screen : ''].map((one) => context.element(one));
    if (from?.kind !== 'screen' || to?.kind !== 'screen') continue;
    // Who is signed out is asked to sign in first.
    const sent = context.viewers.filter(
      (viewer) => viewer !== context.signedOut && context.most(viewer, from) === NONE,
    );
    const whom = sent.filter((viewer) => sentTo(context.accessOf(viewer).most, from.node) === undefined);
    if (!context.isMostOf(whom, sent)) continue;
    const all = whom.length === sent.length ? 'all' : 'most';
    yield {
      reason: sentence(
        `${called(from)} redirects people without access to ${called(to)}, which is closed to ${all} of them: ${context.names(whom)}.`,
      ),
      places: [from.id, to.id],
      whom,
      mends: [
        {
          says: `Show “no access” at ${called(from)} instead.`,
          does: 'nothing',
          edit: { do: 'changeClosed', element: id, from: closed, to: undefined },
        },
      ],
    };
  }
}
