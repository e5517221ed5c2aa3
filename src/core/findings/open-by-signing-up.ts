import { accessOf, type Access } from '../access/deciding/access';
import { NONE } from '../access/deciding/level';
import { SIGNED_IN_KEY } from '../access/deciding/viewer-key';
import type { Role } from '../model/definition';
import { sameJson } from '../model/same-json';
import type { AppElement } from '../model/tree';
import type { Check } from './finding';

/**
 * People may open an account for themselves, and so come to see records that are closed to who is signed out, at once or by
 * a role that they join: they are as good as public.
 *
 * Has it: signing up is allowed, and a list of loans is open to everybody who is signed in.
 * Has it not: the list is open to a role that is not given to every new person.
 */
export const openBySigningUp: Check = {
  kind: 'open-by-signing-up',
  rank: 'lets-in',
  title: 'Open to anyone who signs up',
  *find(context) {
    const { definition, compiled, tree } = context;
    if (!definition.signUp) return;
    const holding = (roles: readonly Role[]) =>
      accessOf(
        compiled,
        { kind: 'signed-in', assignments: roles.map(({ id }) => ({ role: id })) },
        { moment: 0, whenever: true },
      );
    const theirs = definition.roles.filter((role) => role.givenToNew || role.joinable);
    const [fresh, bare] = [holding(theirs), holding([])];
    const signedOut = context.accessOf(context.signedOut);
    const open = tree.elements.filter((one) => one.kind === 'rows' && seesMore(fresh, signedOut, one));
    const given = theirs.filter((role) => open.some((one) => seesMore(holding([role]), bare, one)));
    if (open.length === 0) return;
    const names = open.map(({ name }) => name).join(', ');
    const by = given.length > 0 ? `, through the role ${given.map(inWords).join(', ')}` : '';
    yield {
      reason: `Anyone who signs up can see records of ${names} that are closed to people who are signed out${by}.`,
      places: open.map(({ id }) => id),
      whom: given.length > 0 ? context.roleKinds(given) : context.kindsOf([SIGNED_IN_KEY]),
      mends: [
        {
          says: 'Turn off sign-up.',
          does: 'nothing',
          edit: { do: 'changeSettings', from: { signUp: true }, to: { signUp: false } },
        },
      ],
    };
  },
};

/** Does the one see records that the other does not: some where there were none, or others than those? */
function seesMore(one: Access, other: Access, rows: AppElement): boolean {
  const [more, less] = [one.most.rule(rows).see, other.most.rule(rows).see];
  return one.answer(rows).most > NONE && less !== true && !sameJson(more, less);
}

const inWords = ({ name, givenToNew }: Role): string =>
  givenToNew ? `${name}, which new people are given` : `${name}, which they can join`;
