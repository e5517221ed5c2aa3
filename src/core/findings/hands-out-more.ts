import { viewerKey } from '../access/deciding/viewer-key';
import { withIncluded } from '../model/tree';
import { namesOf, type AskedViewer, type Context } from './context';
import type { Check } from './finding';

/**
 * People with a role can assign others that have more than they have: together with somebody whom they assign it, they
 * come by it.
 *
 * Has it: a keeper of accounts who can assign Head, and has nothing of what heads see.
 * Has it not: a head who can assign Registrar, which Head includes.
 */
export const handsOutMore: Check = {
  kind: 'hands-out-more',
  rank: 'lets-in',
  title: 'A role assigns more access than it has',
  *find(context) {
    const { definition } = context;
    for (const role of definition.roles) {
      const held = withIncluded(definition, [role.id]);
      const own = context.kind(viewerKey('role', role.id));
      const more = definition.roles.filter(({ id }) => {
        const handed = role.handsOut?.some((one) => one.role === id && one.notHeld);
        const theirs = context.kind(viewerKey('role', id));
        return handed && !held.has(id) && own && theirs && hasMore(context, theirs, own);
      });
      if (more.length === 0) continue;
      yield {
        reason: `People with ${role.name} can assign ${namesOf(more.map(({ name }) => name))}, which ${more.length === 1 ? 'has' : 'have'} access that they do not have themselves.`,
        places: [role.id, ...more.map(({ id }) => id)],
        whom: context.roleKinds([role]),
        mends: [
          {
            says: `Let ${role.name} assign only roles that do not have more.`,
            does: 'nothing',
            edit: {
              do: 'changeItem',
              list: 'roles',
              from: role,
              to: {
                ...role,
                handsOut: (role.handsOut ?? []).filter((one) => !more.some(({ id }) => id === one.role)),
              },
            },
          },
        ],
      };
    }
  },
};

const hasMore = (context: Context, one: AskedViewer, other: AskedViewer): boolean =>
  context.tree.elements.some((element) => context.most(one, element) > context.most(other, element));
