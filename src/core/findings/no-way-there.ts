import { NONE } from '../access/deciding/level';
import { idInKey } from '../access/deciding/viewer-key';
import { newId } from '../model/id';
import type { AppElement } from '../model/tree';
import type { AskedViewer, Context } from './context';
import type { Check, ProposedMend } from './finding';
import { deleting } from './mends';
import { called, sentence } from './words';

/**
 * A screen opens for people who can only get there by typing its address: no menu item or button that they have leads
 * there, no list that they see opens it, and nobody starts or is sent there.
 *
 * Has it: a screen that is open to curators, in no menu and behind no button; or in a menu that curators do not have.
 * Has it not: the same screen as the start screen of curators.
 */
export const noWayThere: Check = {
  kind: 'no-way-there',
  rank: 'not-meant',
  title: 'Screen without a link',
  *find(context) {
    const lists = context.tree.elements.filter((one) => one.kind === 'list');
    for (const screen of context.tree.elements) {
      if (screen.kind !== 'screen' || context.nobodyGets(screen) || startsThere(context, screen)) continue;
      const open = context.whoGets(screen);
      const ways = [
        ...context.compiled.handles.handlesOf(screen).flatMap((id) => context.tree.get(id) ?? []),
        ...lists.filter(({ node }) => node.opens === screen.id),
      ];
      const lost = open.filter((viewer) => ways.every((way) => context.most(viewer, way) === NONE));
      // Of some of them only what is a role is told: what a login state alone has is most often what leads to signing in.
      // From whom lines hide a way, is another finding.
      const whom =
        lost.length === open.length
          ? lost
          : lost.filter(
              (viewer) =>
                idInKey('role', viewer.key) !== undefined &&
                !ways.some((way) => context.isHiddenByOwnLines(viewer, way)),
            );
      if (whom.length === 0) continue;
      yield {
        reason: sentence(
          `${called(screen)} is open to ${context.names(whom)}, but nothing that they can see leads there.`,
        ),
        places: [screen.id],
        whom,
        mends: [
          ...intoTheMenu(context, screen, whom),
          ...(lost.length === open.length ? [deleting(screen)] : []),
        ],
      };
    }
  },
};

function startsThere({ definition }: Context, { id }: AppElement): boolean {
  const starts = [definition.startScreen, ...definition.roles.map((role) => role.startScreen)];
  const sent = Object.values(definition.closed).some((one) => one.show === 'sent' && one.screen === id);
  return sent || starts.includes(id);
}

function intoTheMenu(context: Context, screen: AppElement, whom: readonly AskedViewer[]): ProposedMend[] {
  const { menu } = context.definition;
  const element = context.element(menu.id);
  if (screen.kind !== 'screen' || screen.node.binds?.record === 'existing') return [];
  // Who has no menu would not come there by it.
  if (!element || whom.some((viewer) => context.mostByGate(viewer, element) === NONE)) return [];
  const node = { id: newId(), name: screen.name, screen: screen.id, items: [] };
  return [
    {
      says: `Add ${screen.name} to the menu, for everyone who can open it.`,
      does: 'opens',
      edit: {
        do: 'addElement',
        into: { in: menu.id, list: 'items' },
        at: menu.items.length,
        node,
        gates: {},
        closed: {},
      },
    },
  ];
}
