import type { Definition, Role } from '../../model/definition';
import type { Id } from '../../model/id';
import { privilegesOf } from '../../model/privileges';
import { sameJson } from '../../model/same-json';
import { treeOf } from '../../model/tree';

/** Something that lets people do more than look and work: it is told before all else. */
export interface Power {
  readonly about: string;
  readonly said: string;
  /** Whose holders have the power: these are named beside it. */
  readonly holders?: { readonly role: Id } | { readonly privilege: Id } | undefined;
}

/**
 * What gives power in the newer definition and did not in the older: standing in, unlocking, opening accounts,
 * joining, handing out, setting what conditions compare, and privileges and roles that come to be held with a role.
 */
export function powerOf(before: Definition, after: Definition): Power[] {
  const nameOf = (id: Id): string =>
    [...privilegesOf(after), ...after.roles, ...before.roles].find((one) => one.id === id)?.name ??
    treeOf(after).get(id)?.name ??
    id;
  const found: Power[] = [];
  const { standIn, unlock } = after;
  if (standIn && !sameJson(standIn, before.standIn))
    found.push({
      about: 'Standing in',
      said: `Whoever holds “${nameOf(standIn.privilege)}” may look as another person for ${minutes(standIn.minutes)}, ${standIn.changes ? 'and change what that person may change' : 'for reading only'}.`,
      holders: { privilege: standIn.privilege },
    });
  if (unlock && !sameJson(unlock, before.unlock))
    found.push({
      about: 'Unlocking',
      said: `Whoever holds “${nameOf(unlock.privilege)}” may open locked places on others’ screens for ${minutes(unlock.minutes)}.`,
      holders: { privilege: unlock.privilege },
    });
  if (after.signUp && !before.signUp) {
    const given = after.roles.filter((one) => one.givenToNew).map(({ name }) => name);
    found.push({
      about: 'Signing up',
      said: `Anybody may open an account. They get ${given.length > 0 ? given.join(', ') : 'no role'}, and what is open to who is signed in.`,
    });
  }
  for (const role of after.roles)
    found.push(
      ...powerOfRole(
        before.roles.find((one) => one.id === role.id),
        role,
        nameOf,
      ),
    );
  return found;
}

const minutes = (n: number): string => (n === 1 ? '1 minute' : `${n} minutes`);

/** The same of one role. */
export function powerOfRole(was: Role | undefined, is: Role, nameOf: (id: Id) => string): Power[] {
  const about = `Role ${is.name}`;
  const holders = { role: is.id };
  const found: Power[] = [];
  const say = (said: string, held = true): void => void found.push({ about, said, ...(held && { holders }) });
  for (const { role, notHeld } of is.handsOut ?? []) {
    const then = was?.handsOut?.find((one) => one.role === role);
    if (!then || (notHeld && !then.notHeld))
      say(`Who holds it may hand out ${nameOf(role)}${notHeld ? ', also without holding it' : ''}.`);
  }
  if (is.setsCompared && !was?.setsCompared)
    say(
      'Who holds it and looks after people may set what conditions compare, and so let them in where they say.',
    );
  if (is.joinable && !was?.joinable)
    say('People may join by themselves, and then have all that it gives.', false);
  if (is.givenToNew && !was?.givenToNew) say('Every new person gets it.', false);
  if (is.standInFull && !was?.standInFull)
    say(
      'Who stands in for somebody with such roles only gets all that they get, not the lower of both.',
      false,
    );
  for (const one of is.privileges)
    if (!was?.privileges.includes(one)) say(`It now holds the privilege “${nameOf(one)}”.`);
  for (const one of is.includes)
    if (!was?.includes.includes(one)) say(`It now includes ${nameOf(one)}, with all that this gives.`);
  return found;
}
