import { NONE } from '../access/deciding/level';
import { SIGNED_IN_KEY, SIGNED_OUT_KEY } from '../access/deciding/viewer-key';
import type { Id } from '../model/id';
import type { Context } from './context';
import type { Check } from './finding';

/**
 * The screen at which a role starts is closed to it: its people land elsewhere, or nowhere. So is that at which the
 * application starts to all who have no other.
 *
 * Has it: a role that starts at a screen for registrars, without being one.
 * Has it not: the same role, once the screen is open to it.
 */
export const startScreenClosed: Check = {
  kind: 'start-screen-closed',
  rank: 'not-meant',
  title: 'It starts where it may not go',
  *find(context) {
    const { startScreen } = context.definition;
    if (startScreen !== undefined) yield* startOfAll(context, startScreen);
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

/** Where the application starts is closed to every kind of viewer that starts there. */
function* startOfAll(context: Context, startScreen: Id) {
  const { definition } = context;
  const screen = context.element(startScreen);
  const starting = [
    ...context.kindsOf([SIGNED_OUT_KEY, SIGNED_IN_KEY]),
    ...context.roleKinds(definition.roles.filter((role) => role.startScreen === undefined)),
  ];
  if (!screen || starting.some((viewer) => context.most(viewer, screen) > NONE)) return;
  yield {
    reason: `${definition.name} starts at ${screen.name}, which is closed to all who start there.`,
    places: [screen.id],
    whom: starting,
    mends: [
      {
        says: 'Let everybody start at the first screen of the menu that is open to them.',
        edit: { do: 'changeSettings', from: { startScreen }, to: { startScreen: null } } as const,
      },
    ],
  };
}
