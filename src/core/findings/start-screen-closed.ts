import { NONE } from '../access/deciding/level';
import type { Check } from './finding';

/**
 * The screen at which a role starts is closed to it: its people land elsewhere, or nowhere.
 *
 * Has it: a role that starts at a screen for registrars, without being one.
 * Has it not: the same role, once the screen is open to it.
 */
export const startScreenClosed: Check = {
  kind: 'start-screen-closed',
  rank: 'not-meant',
  title: 'It starts where it may not go',
  *find(context) {
    for (const role of context.definition.roles) {
      const screen = context.element(role.startScreen ?? '');
      const [viewer] = context.roleKinds([role]);
      if (!screen || !viewer || context.most(viewer, screen) > NONE) continue;
      const { startScreen: _, ...rest } = role;
      yield {
        reason: `${role.name} starts at ${screen.name}, which is closed to it.`,
        places: [screen.id, role.id],
        whom: [viewer],
        mends: [
          {
            says: `Let ${role.name} start where the application says.`,
            edit: { do: 'changeItem', list: 'roles', from: role, to: rest },
          },
        ],
      };
    }
  },
};
