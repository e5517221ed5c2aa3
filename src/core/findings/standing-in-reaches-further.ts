import { viewerKey } from '../access/deciding/viewer-key';
import { EDIT } from '../access/deciding/level';
import { changesData, type Role } from '../model/definition';
import { withIncluded } from '../model/tree';
import { namesOf, type Context } from './context';
import type { Check } from './finding';

/**
 * Standing in for others goes with changes, and for holders of some roles in full: who stands in may then change what they
 * may not change as themselves.
 *
 * Has it: curators may stand in and change, registrars are stood in for in full, and only registrars delete loans.
 * Has it not: standing in is for reading only, or gives the lower of both.
 */
export const standingInReachesFurther: Check = {
  kind: 'standing-in-reaches-further',
  rank: 'lets-in',
  title: 'Standing in reaches further',
  *find(context) {
    const { definition } = context;
    const { standIn } = definition;
    if (!standIn?.changes) return;
    for (const holder of definition.roles.filter((role) => holds(context, role, standIn.privilege)))
      for (const full of definition.roles.filter(({ standInFull, id }) => standInFull && id !== holder.id)) {
        const [own, theirs] = [holder, full].map(({ id }) => context.kind(viewerKey('role', id)));
        if (!own || !theirs) continue;
        const more = context.tree.elements.filter(
          (one) =>
            one.kind === 'action' &&
            changesData(one.node) &&
            context.most(theirs, one) === EDIT &&
            context.most(own, one) < EDIT,
        );
        if (more.length === 0) continue;
        const said = more.map((one) => `${one.name} (${one.container?.name ?? ''})`);
        yield {
          reason: `Who holds ${holder.name} can stand in for who holds ${full.name}, in full and with changes, and then do what they may not themselves: ${namesOf(said)}.`,
          places: [full.id, holder.id, ...more.map(({ id }) => id)],
          whom: [own],
          mends: [
            {
              says: 'Let standing in be for reading only.',
              edit: {
                do: 'changeSettings',
                from: { standIn },
                to: { standIn: { ...standIn, changes: false } },
              },
            },
          ],
        };
      }
  },
};

const holds = ({ definition }: Context, role: Role, privilege: string): boolean => {
  const held = withIncluded(definition, [role.id]);
  return definition.roles.some(({ id, privileges }) => held.has(id) && privileges.includes(privilege));
};
