import { EDIT } from '../access/deciding/level';
import { viewerKey } from '../access/deciding/viewer-key';
import type { Definition, Role } from '../model/definition';
import type { Id } from '../model/id';
import { withIncluded } from '../model/tree';
import type { Context } from './context';
import type { Check } from './finding';

/**
 * Who holds a role can come to give one that they may not hand out themselves, by way of others: they give a first role,
 * whose holder may give the next. Two people who help each other so get further than either was meant to.
 *
 * Has it: a keeper who may hand out Deputy, and a deputy who may hand out Head.
 * Has it not: a keeper who may hand out both.
 */
export const handingOutAddsUp: Check = {
  kind: 'handing-out-adds-up',
  rank: 'lets-in',
  title: 'Role can be passed on indirectly',
  *find(context) {
    const { definition } = context;
    for (const role of definition.roles) {
      const own = withIncluded(definition, [role.id]);
      const all = waysFrom(definition, role);
      const ways = all.filter(({ path, to }) => path.length > 1 && !own.has(to.id));
      if (ways.length === 0) continue;
      const furthest = furthestOf(
        context,
        all.map(({ to }) => to),
      );
      for (const { path, to } of ways) {
        const last = path.at(-1) as Role;
        yield {
          reason: `People with ${role.name} can end up assigning ${to.name} in ${path.length} steps: ${[...path, to].map(({ name }) => name).join(' → ')}.${to === furthest ? ' No other role they can reach this way gives more access.' : ''}`,
          places: [role.id, ...path.slice(1).map(({ id }) => id), to.id],
          whom: context.roleKinds([role]),
          mends: [
            {
              says: `Stop ${last.name} from assigning ${to.name}.`,
              does: 'nothing',
              edit: {
                do: 'changeItem',
                list: 'roles',
                from: last,
                to: { ...last, handsOut: (last.handsOut ?? []).filter((one) => one.role !== to.id) },
              },
            },
          ],
        };
      }
    }
  },
};

/** The role that gives the most to edit. */
function furthestOf(context: Context, roles: readonly Role[]): Role | undefined {
  const reach = (role: Role): number => {
    const viewer = context.kind(viewerKey('role', role.id));
    return viewer ? context.tree.elements.filter((one) => context.most(viewer, one) === EDIT).length : 0;
  };
  return [...roles].sort((one, other) => reach(other) - reach(one))[0];
}

interface AssignmentPath {
  /** Who hands out on the way, the first of them first. */
  readonly path: readonly Role[];
  readonly to: Role;
}

/** The shortest way to each role that can be come to. */
function waysFrom(definition: Definition, first: Role): AssignmentPath[] {
  const found = new Map<Id, AssignmentPath>();
  let now: readonly (readonly Role[])[] = [[first]];
  while (now.length > 0) {
    const next: (readonly Role[])[] = [];
    for (const path of now)
      for (const to of handedOutBy(definition, path.at(-1) as Role))
        if (!found.has(to.id) && to.id !== first.id) {
          found.set(to.id, { path, to });
          next.push([...path, to]);
        }
    now = next;
  }
  return [...found.values()];
}

/** The roles that a holder of this role alone may hand out. */
export function handedOutBy(definition: Definition, role: Role): Role[] {
  const held = withIncluded(definition, [role.id]);
  return definition.roles
    .filter(({ id }) => held.has(id))
    .flatMap(({ handsOut = [] }) => handsOut)
    .filter((one) => one.notHeld || held.has(one.role))
    .flatMap(({ role: id }) => definition.roles.find((one) => one.id === id) ?? []);
}
