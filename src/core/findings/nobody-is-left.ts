import { counts, isKind } from '../access/deciding/viewer';
import { conditionsOf } from '../access/deciding/reads';
import { allWithin } from '../condition/condition';
import { NONE } from '../access/deciding/level';
import { landingOf } from '../access/sent/landing';
import type { Definition, MenuItem, Role } from '../model/definition';
import type { Who } from '../model/gate';
import type { Id } from '../model/id';
import { privilegesOf } from '../model/privileges';
import { menusOf, withIncluded } from '../model/tree';
import { unitAndBelow } from '../model/units';
import { handedOutBy } from './handing-out-adds-up';
import { namesOf, type AskedViewer, type Context } from './context';
import type { Check } from './finding';

/**
 * Among the people there are, nobody is left to do what the application counts on: to enter it, to look after people, to
 * unlock, to stand in, to hold a role of which a gate speaks. Where people are not known, that no role holds what it takes.
 *
 * Has it: both who hold the only role that hands out others are switched off.
 * Has it not: one of them may sign in again.
 */
export const nobodyIsLeft: Check = {
  kind: 'nobody-is-left',
  rank: 'not-meant',
  title: 'Nobody can do a necessary task',
  *find(context) {
    const { definition, people, tree } = context;
    yield* heldByNoRole(context);
    yield* lookedAfterByNoRole(context);
    if (people.length === 0) return;
    const persons = context.viewers.filter(({ viewer }) => viewer.kind === 'signed-in' && !isKind(viewer));
    const heldBy = (who: Who): boolean => context.isSomebody(who, persons);
    const nothing = (reason: string, places: readonly Id[]) => ({ reason, places, whom: [], mends: [] });

    const app = tree.get(definition.id);
    if (app && persons.every((one) => context.most(one, app) === NONE))
      yield nothing(`Nobody with an account can enter ${definition.name}.`, [definition.id]);

    const keepers = definition.roles.filter((role) => handedOutBy(definition, role).length > 0);
    if (keepers.length > 0 && !keepers.some(({ id }) => heldBy({ kind: 'role', role: id })))
      yield nothing(
        'Nobody can manage people, because nobody has a role that can assign roles.',
        keepers.map(({ id }) => id),
      );

    yield* outsideAllUnits(context, persons, keepers);

    for (const { what, privilege, name, roles } of needed(definition))
      if (roles.length > 0 && !heldBy({ kind: 'privilege', privilege }))
        yield nothing(`Nobody can ${what}, because nobody has the privilege “${name}”.`, [privilege]);

    for (const { id, name, roles } of privilegesAsked(context))
      if (roles.length > 0 && !heldBy({ kind: 'privilege', privilege: id }))
        yield nothing(`Nobody has “${name}”, although lines or conditions use it.`, [id]);

    const asked = rolesAsked(context);
    for (const { id, name } of definition.roles)
      if (asked.has(id) && !heldBy({ kind: 'role', role: id }))
        yield nothing(`Nobody has the role ${name}, although lines give it access.`, [id]);

    yield* landingNowhere(context, persons);
  },
};

/** People at home where nobody looks after anybody: all who do, do so in units of theirs. */
function* outsideAllUnits(context: Context, persons: readonly AskedViewer[], keepers: readonly Role[]) {
  const { definition, moment } = context;
  const ids = new Set(keepers.map(({ id }) => id));
  const keeping = persons.flatMap(({ alike }) =>
    alike.flatMap(({ viewer }) =>
      viewer.kind === 'signed-in'
        ? viewer.assignments.filter(
            (one) =>
              counts(one, moment) && [...withIncluded(definition, [one.role])].some((id) => ids.has(id)),
          )
        : [],
    ),
  );
  if (keeping.length === 0 || keeping.some(({ unit }) => unit === undefined)) return;
  const kept = new Set(keeping.flatMap(({ unit }) => [...(unitAndBelow(definition, unit ?? '') ?? [])]));
  const whom = persons.filter(({ viewer }) => {
    const home = viewer.kind === 'signed-in' ? viewer.attributes?.['home_unit'] : undefined;
    return typeof home !== 'string' || !kept.has(home);
  });
  if (whom.length === 0) return;
  yield {
    reason: `Nobody can manage ${context.names(whom)}, because everyone who can assign roles can do so in other units only.`,
    places: keepers.map(({ id }) => id),
    whom,
    mends: [],
  };
}

/** The privileges that the application's settings count on, and the roles that hold them. */
function needed(definition: Definition) {
  const { unlock, standIn, roles } = definition;
  return (
    [
      ['unlock elements for others', unlock],
      ['act as another person', standIn],
    ] as const
  ).flatMap(([what, rule]) =>
    rule
      ? {
          what,
          privilege: rule.privilege,
          name: privilegesOf(definition).find(({ id }) => id === rule.privilege)?.name ?? rule.privilege,
          roles: roles.filter(({ privileges }) => privileges.includes(rule.privilege)),
        }
      : [],
  );
}

function* heldByNoRole(context: Context) {
  const nothing = (reason: string, privilege: Id) => ({ reason, places: [privilege], whom: [], mends: [] });
  for (const { what, privilege, name, roles } of needed(context.definition))
    if (roles.length === 0)
      yield nothing(`Nobody can ${what}, because no role has the privilege “${name}”.`, privilege);
  for (const { id, name, roles } of privilegesAsked(context))
    if (roles.length === 0)
      yield nothing(`No role has the privilege “${name}”, although lines or conditions use it.`, id);
}

/** There are screens to look after people, and no role that may hand out others gets to one of them. */
function* lookedAfterByNoRole(context: Context) {
  const { definition, tree } = context;
  const parts = tree.elements.filter(({ kind }) => kind === 'people');
  const keepers = definition.roles.filter((role) => handedOutBy(definition, role).length > 0);
  const [first] = parts;
  if (
    !first ||
    context.roleKinds(keepers).some((one) => parts.some((part) => context.most(one, part) > NONE))
  )
    return;
  const why =
    keepers.length === 0
      ? 'no role can assign other roles'
      : `${first.screen?.name ?? first.name} is closed to ${namesOf(keepers.map(({ name }) => name))}, the roles that can assign roles`;
  yield {
    reason: `Nobody can manage people: ${why}.`,
    places: [first.id, ...keepers.map(({ id }) => id)],
    whom: context.roleKinds(keepers),
    mends: [],
  };
}

/** The privileges of which lines and conditions speak and that no setting counts on, with the roles that hold them. */
function privilegesAsked({ definition }: Context) {
  const { gates, unlock, standIn, roles } = definition;
  const counted = [unlock?.privilege, standIn?.privilege];
  const spoken = new Set([
    ...Object.values(gates).flatMap(({ lines }) =>
      lines.flatMap(({ who }) => (who.kind === 'privilege' ? [who.privilege] : [])),
    ),
    ...conditionsOf(definition)
      .flatMap(allWithin)
      .flatMap((one) => ('hasPrivilege' in one ? [one.hasPrivilege] : [])),
  ]);
  return privilegesOf(definition)
    .filter(({ id }) => spoken.has(id) && !counted.includes(id))
    .map((one) => ({ ...one, roles: roles.filter(({ privileges }) => privileges.includes(one.id)) }));
}

/** The roles of which lines speak. */
const rolesAsked = ({ definition }: Context): ReadonlySet<Id> =>
  new Set(
    Object.values(definition.gates).flatMap(({ lines }) =>
      lines.flatMap(({ who }) => (who.kind === 'role' ? [who.role] : [])),
    ),
  );

/** People who sign in and find that nothing is open to them. */
function* landingNowhere(context: Context, persons: readonly AskedViewer[]) {
  const { definition } = context;
  const inMenu = (items: readonly MenuItem[]): Id[] =>
    items.flatMap((item) => [...(item.screen ? [item.screen] : []), ...inMenu(item.items)]);
  const usual = [definition.startScreen ?? '', ...inMenu(menusOf(definition).flatMap(({ items }) => items))]
    .flatMap((id) => context.element(id) ?? [])
    .filter((one) => one.kind === 'screen' && one.node.binds?.record !== 'existing');
  // By far the most land where one usually does; only of the others it is worked out one by one.
  const lost = persons.filter(
    (one) =>
      !usual.some((screen) => context.most(one, screen) > NONE) &&
      landingOf(context.accessOf(one).most) === undefined,
  );
  if (lost.length === 0) return;
  yield {
    reason: `${context.names(lost)} can sign in but cannot open any screen.`,
    places: [context.definition.id],
    whom: lost,
    mends: [],
  };
}
