import { viewerKey } from '../access/deciding/viewer-key';
import { EDIT, NONE } from '../access/deciding/level';
import { changesData, type Role } from '../model/definition';
import { withIncluded, type AppElement } from '../model/tree';
import { namesOf, type AskedViewer, type Context } from './context';
import type { Check, ProposedMend } from './finding';

/**
 * Holders of some roles are stood in for in full: who stands in may then see what they may not see as themselves, and
 * change it, where standing in goes with changes.
 *
 * Has it: curators may stand in and change, registrars are stood in for in full, and only registrars delete loans.
 * Has it not: who stands in holds all that the other role gives, or standing in gives the lower of both.
 */
export const standingInReachesFurther: Check = {
  kind: 'standing-in-reaches-further',
  rank: 'lets-in',
  title: 'Acting as another person gives more access',
  *find(context) {
    const { definition } = context;
    const { standIn } = definition;
    if (!standIn) return;
    for (const holder of definition.roles.filter((role) => holds(context, role, standIn.privilege)))
      for (const full of definition.roles.filter(({ standInFull, id }) => standInFull && id !== holder.id)) {
        const [own, theirs] = [holder, full].map(({ id }) => context.kind(viewerKey('role', id)));
        if (!own || !theirs) continue;
        const more = standIn.changes ? done(context, own, theirs) : [];
        const further = more.length > 0 ? more : read(context, own, theirs);
        if (further.length === 0) continue;
        const said = namesOf(further.map((one) => `${one.name} (${one.container?.name ?? ''})`));
        const { standInFull: _, ...lower } = full;
        const readingOnly: ProposedMend = {
          says: 'Make acting as another person read-only.',
          does: 'nothing',
          edit: { do: 'changeSettings', from: { standIn }, to: { standIn: { ...standIn, changes: false } } },
        };
        yield {
          reason:
            more.length > 0
              ? `People with ${holder.name} can act as people with ${full.name}, with full access and changes, and so do things they cannot do themselves: ${said}.`
              : `People with ${holder.name} can act as people with ${full.name} with full access, and so see things they cannot see themselves: ${said}.`,
          places: [full.id, holder.id, ...further.map(({ id }) => id)],
          whom: [own],
          mends: [
            // Where more is seen too, that is left.
            ...(more.length > 0 && read(context, own, theirs).length === 0 ? [readingOnly] : []),
            {
              says: `Limit anyone acting as ${full.name} to the access both people have.`,
              does: 'nothing',
              edit: { do: 'changeItem', list: 'roles', from: full, to: lower },
            },
          ],
        };
      }
  },
};

/** The changes of data that the one may make and the other may not. */
const done = (context: Context, own: AskedViewer, theirs: AskedViewer): AppElement[] =>
  context.tree.elements.filter(
    (one) =>
      one.kind === 'action' &&
      changesData(one.node) &&
      context.most(theirs, one) === EDIT &&
      context.most(own, one) < EDIT,
  );

/** The data that the one may see and the other may not: records as a whole, or single fields. */
const read = (context: Context, own: AskedViewer, theirs: AskedViewer): AppElement[] =>
  context.tree.elements.filter(
    (one) =>
      (one.kind === 'rows' || one.kind === 'data-field') &&
      context.most(theirs, one) > NONE &&
      context.most(own, one) === NONE &&
      // A field of records of which nothing is seen is told by these.
      (one.kind === 'rows' || !one.container || context.most(own, one.container) > NONE),
  );

const holds = ({ definition }: Context, role: Role, privilege: string): boolean => {
  const held = withIncluded(definition, [role.id]);
  return definition.roles.some(({ id, privileges }) => held.has(id) && privileges.includes(privilege));
};
