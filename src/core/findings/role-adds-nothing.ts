import { SIGNED_IN_KEY, viewerKey } from '../access/deciding/viewer-key';
import type { Definition, Role } from '../model/definition';
import { removeNamed } from '../edit/edits/make';
import { withIncluded } from '../model/tree';
import { sameJson } from '../model/same-json';
import type { Context } from './context';
import type { Check } from './finding';

/**
 * A role that gives nothing beyond what everybody has who is signed in, or just what another role gives: nobody can tell
 * what it is for.
 *
 * Has it: a role of which no line speaks, with no privileges; two roles for which every gate has the same lines.
 * Has it not: a role that nothing asks for yet, but which may hand out others.
 */
export const roleAddsNothing: Check = {
  kind: 'role-adds-nothing',
  rank: 'not-meant',
  title: 'Role without additional access',
  *find(context) {
    const { definition } = context;
    const signedIn = context.kind(SIGNED_IN_KEY);
    const seen: Role[] = [];
    for (const role of definition.roles) {
      const own = context.kind(viewerKey('role', role.id));
      if (!own || !signedIn) continue;
      const idle = isIdle(definition, role);
      if (idle && context.sameRow(own, signedIn)) {
        // Beside another role, a line or a condition that names it may make a difference.
        const edit = isNamed(definition, role) ? undefined : removeNamed(definition, 'roles', role.id);
        yield {
          reason: `${role.name} gives no more access than every signed-in person has.`,
          places: [role.id],
          whom: [own],
          mends: edit ? [{ says: `Delete the role ${role.name}.`, does: 'nothing', edit }] : [],
        };
        continue;
      }
      const twin = seen.find((other) => isTwin(context, other, role));
      seen.push(role);
      if (!twin) continue;
      yield {
        reason: `${role.name} and ${twin.name} give exactly the same access.`,
        places: [role.id, twin.id],
        whom: [own, ...context.roleKinds([twin])],
        mends: [],
      };
    }
  },
};

const isNamed = ({ gates, groups, conditions, areas }: Definition, { id }: Role): boolean =>
  JSON.stringify([gates, groups, conditions, areas]).includes(`"${id}"`);

/** Does it neither hold privileges nor do anything but give access? */
function isIdle(definition: Definition, role: Role): boolean {
  const held = definition.roles.filter(({ id }) => withIncluded(definition, [role.id]).has(id));
  return held.every(
    ({ privileges, handsOut = [], startScreen }) =>
      privileges.length === 0 && handsOut.length === 0 && startScreen === undefined,
  );
}

function isTwin(context: Context, one: Role, other: Role): boolean {
  const [a, b] = [one, other].map(({ id }) => context.kind(viewerKey('role', id)));
  const [c, d] = [one, other].map(({ id }) => rolesBeside(context.definition, id));
  return a !== undefined && b !== undefined && context.sameRow(a, b) && sameJson(c, d);
}

/** What holding a role brings beside access. */
function rolesBeside(definition: Definition, id: string) {
  const held = definition.roles.filter((one) => withIncluded(definition, [id]).has(one.id));
  return {
    privileges: [...new Set(held.flatMap((one) => one.privileges))].sort(),
    handsOut: held.flatMap((one) => one.handsOut ?? []),
    starts: held.find((one) => one.startScreen)?.startScreen,
  };
}
