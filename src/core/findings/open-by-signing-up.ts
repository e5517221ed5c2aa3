import { accessOf } from '../access/deciding/access';
import { NONE, type Answer } from '../access/deciding/level';
import { SIGNED_IN_KEY, SIGNED_OUT_KEY } from '../access/deciding/viewer-key';
import type { Role } from '../model/definition';
import type { Check } from './finding';

/**
 * People may open an account for themselves, and so come to see records that nobody sees who is not signed in, or all where
 * those see some, at once or by a role that they join: they are as good as public.
 *
 * Has it: signing up is allowed, and a list of loans is open to everybody who is signed in.
 * Has it not: the list is open to a role that is not given to every new person.
 */
export const openBySigningUp: Check = {
  kind: 'open-by-signing-up',
  rank: 'lets-in',
  title: 'Open to all who sign up',
  *find(context) {
    const { definition, compiled, tree, viewers } = context;
    if (!definition.signUp) return;
    const out = viewers.find(({ key }) => key === SIGNED_OUT_KEY);
    const holding = (roles: readonly Role[]) =>
      accessOf(
        compiled,
        { kind: 'signed-in', assignments: roles.map(({ id }) => ({ role: id })) },
        { moment: 0, whenever: true },
      );
    const theirs = definition.roles.filter((role) => role.givenToNew || role.joinable);
    const [fresh, bare] = [holding(theirs), holding([])];
    const open = tree.elements.filter(
      (one) => one.kind === 'rows' && out && seesMore(fresh.answer(one), context.answer(out, one)),
    );
    const given = theirs.filter((role) =>
      open.some((one) => seesMore(holding([role]).answer(one), bare.answer(one))),
    );
    if (open.length === 0) return;
    const names = open.map(({ name }) => name).join(', ');
    const by = given.length > 0 ? `, by the role ${given.map(inWords).join(', ')}` : '';
    yield {
      reason: `Whoever opens an account for themselves sees records of ${names}${by}.`,
      places: open.map(({ id }) => id),
      whom: given.length > 0 ? context.roleKinds(given) : context.kindsOf([SIGNED_IN_KEY]),
      mends: [
        {
          says: 'Let nobody open an account for themselves.',
          edit: { do: 'changeSettings', from: { signUp: true }, to: { signUp: false } },
        },
      ],
    };
  },
};

/** Records where there were none, or every one where there were some. */
const seesMore = (one: Answer, other: Answer): boolean =>
  (one.most > NONE && other.most === NONE) || (one.least > NONE && other.least === NONE);

const inWords = ({ name, givenToNew }: Role): string =>
  givenToNew ? `${name}, which is given to whoever is new` : `${name}, which they can join`;
