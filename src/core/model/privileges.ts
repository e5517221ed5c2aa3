import type { Definition, Privilege } from './definition';

/** All privileges, in the order of their groups. */
export const privilegesOf = ({ privileges }: Pick<Definition, 'privileges'>): Privilege[] =>
  privileges.flatMap((group) => group.privileges);
