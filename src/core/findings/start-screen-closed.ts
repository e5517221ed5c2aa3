import { NONE } from '../access/deciding/level';
import { SIGNED_IN_KEY, SIGNED_OUT_KEY } from '../access/deciding/viewer-key';
import type { Id } from '../model/id';
import type { Role } from '../model/definition';
import { withIncluded, type AppElement } from '../model/tree';
import type { AskedViewer, Context } from './context';
import type { Check, Suspect } from './finding';
import { called } from './words';

/**
 * The screen at which a role starts is closed to most who start there: they land elsewhere, or nowhere. So is that at which
 * the application starts, to those who have no other.
 *
 * Has it: a role that starts at a screen for registrars, without being one.
 * Has it not: the same role, once the screen is open to it.
 */
export const startScreenClosed: Check = {
  kind: 'start-screen-closed',
  rank: 'not-meant',
  title: 'Closed start screen',
  *find(context) {
    const { startScreen, roles } = context.definition;
    if (startScreen !== undefined) yield* startOfAll(context, startScreen);
    for (const role of roles) {
      const screen = context.element(role.startScreen ?? '');
      const { startScreen: _, ...rest } = role;
      const starting = [
        ...context.roleKinds([role]),
        ...context.persons.filter((one) => startsOf(context, one)?.id === role.id),
      ];
      const whom = screen ? refused(context, starting, screen) : [];
      if (!screen || whom.length === 0) continue;
      yield {
        reason: `${role.name} starts at ${called(screen)}, which is closed to ${toWhom(context, whom, starting)}.`,
        places: [screen.id, role.id],
        whom,
        mends: [
          {
            says: `Let ${role.name} start where the application starts.`,
            does: 'nothing',
            edit: { do: 'changeItem', list: 'roles', from: role, to: rest },
          },
        ],
      };
    }
  },
};

/** The role by which somebody starts: the first that has a start screen, in the builder's order. */
function startsOf({ definition }: Context, { viewer }: AskedViewer): Role | undefined {
  if (viewer.kind === 'signed-out') return undefined;
  const held = withIncluded(
    definition,
    viewer.assignments.map(({ role }) => role),
  );
  return definition.roles.find(({ id, startScreen }) => held.has(id) && startScreen !== undefined);
}

/** Those to whom the screen is closed, where that is most of them. */
function refused(context: Context, starting: readonly AskedViewer[], screen: AppElement): AskedViewer[] {
  const whom = starting.filter((viewer) => context.most(viewer, screen) === NONE);
  return context.isMostOf(whom, starting) ? whom : [];
}

const toWhom = (context: Context, whom: readonly AskedViewer[], of: readonly AskedViewer[]): string =>
  whom.length === of.length ? 'everyone who starts there' : `most who start there: ${context.names(whom)}`;

/** Where the application starts is closed to most who start there. */
function* startOfAll(context: Context, startScreen: Id): Generator<Suspect> {
  const { definition } = context;
  const screen = context.element(startScreen);
  const starting = [
    ...context.kindsOf([SIGNED_OUT_KEY, SIGNED_IN_KEY]),
    ...context.roleKinds(definition.roles.filter((role) => role.startScreen === undefined)),
    ...context.persons.filter((one) => startsOf(context, one) === undefined),
  ];
  const whom = screen ? refused(context, starting, screen) : [];
  if (!screen || whom.length === 0) return;
  yield {
    reason: `${definition.name} starts at ${called(screen)}, which is closed to ${toWhom(context, whom, starting)}.`,
    places: [screen.id],
    whom,
    mends: [
      {
        says: 'Let everyone start at the first screen in the menu that is open to them.',
        does: 'nothing',
        edit: { do: 'changeSettings', from: { startScreen }, to: { startScreen: null } },
      },
    ],
  };
}
