import { NONE } from '../access/deciding/level';
import { newId } from '../model/id';
import type { AppElement } from '../model/tree';
import type { AskedViewer, Context } from './context';
import type { Check, Mend } from './finding';
import { removing } from './removing';

/**
 * A screen opens for people none of whom can get there without typing its address: no menu item or button that they have
 * leads there, no list that they see opens it, and nobody starts or is sent there.
 *
 * Has it: a screen that is open to curators, in no menu and behind no button.
 * Has it not: the same screen as the start screen of curators.
 */
export const noWayThere: Check = {
  kind: 'no-way-there',
  rank: 'not-meant',
  title: 'Open, and no way leads there',
  *find(context) {
    const lists = context.tree.elements.filter((one) => one.kind === 'list');
    for (const screen of context.tree.elements) {
      if (screen.kind !== 'screen' || context.nobodyGets(screen) || startsThere(context, screen)) continue;
      const whom = context.whoGets(screen);
      const ways = [
        ...context.compiled.handles.handlesOf(screen).flatMap((id) => context.tree.get(id) ?? []),
        ...lists.filter(({ node }) => node.opens === screen.id),
      ];
      if (whom.some((viewer) => ways.some((way) => context.most(viewer, way) > NONE))) continue;
      yield {
        reason: `${screen.name} is open to ${context.names(whom)}, and nothing that they have leads there.`,
        places: [screen.id],
        whom,
        mends: [...intoTheMenu(context, screen, whom), ...removing(screen)],
      };
    }
  },
};

function startsThere({ definition }: Context, { id }: AppElement): boolean {
  const starts = [definition.startScreen, ...definition.roles.map((role) => role.startScreen)];
  const sent = Object.values(definition.closed).some((one) => one.show === 'sent' && one.screen === id);
  return sent || starts.includes(id);
}

function intoTheMenu(context: Context, screen: AppElement, whom: readonly AskedViewer[]): Mend[] {
  const { menu } = context.definition;
  const element = context.element(menu.id);
  if (screen.kind !== 'screen' || screen.node.binds?.record === 'existing') return [];
  // Who has no menu would not come there by it.
  if (!element || whom.every((viewer) => context.mostByGate(viewer, element) === NONE)) return [];
  const node = { id: newId(), name: screen.name, screen: screen.id, items: [] };
  return [
    {
      says: `Put ${screen.name} into the menu.`,
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
