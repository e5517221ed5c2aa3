import type { Definition, Privilege } from './definition';

/** All privileges, in the order of their groups. */
export const privilegesOf = ({ privileges }: Pick<Definition, 'privileges'>): Privilege[] =>
  privileges.flatMap((group) => group.privileges);

/** All privileges with the name of their group in theirs, for lists in which they stand without it. */
export const privilegesInLists = ({ privileges }: Pick<Definition, 'privileges'>): Privilege[] =>
  privileges.flatMap((group) =>
    group.privileges.map(({ id, name }) => ({ id, name: `${name} (${group.name})` })),
  );
