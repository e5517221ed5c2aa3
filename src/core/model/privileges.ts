import type { Definition, Privilege } from './definition';

const known = new WeakMap<Definition['privileges'], readonly Privilege[]>();

/** All privileges, in the order of their groups. */
export function privilegesOf({ privileges }: Pick<Definition, 'privileges'>): readonly Privilege[] {
  let found = known.get(privileges);
  if (!found) known.set(privileges, (found = privileges.flatMap((group) => group.privileges)));
  return found;
}

/** All privileges with the name of their group in theirs, for lists in which they stand without it. */
export const privilegesInLists = ({ privileges }: Pick<Definition, 'privileges'>): Privilege[] =>
  privileges.flatMap((group) =>
    group.privileges.map(({ id, name }) => ({ id, name: `${name} (${group.name})` })),
  );
