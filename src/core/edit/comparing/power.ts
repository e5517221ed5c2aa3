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
      about: 'Acting as another person',
      said: `Anyone with “${nameOf(standIn.privilege)}” can act as another person for ${minutes(standIn.minutes)}, ${standIn.changes ? 'with permission to make changes' : 'read-only'}.`,
      holders: { privilege: standIn.privilege },
    });
  if (unlock && !sameJson(unlock, before.unlock))
    found.push({
      about: 'Temporary unlocking',
      said: `Anyone with “${nameOf(unlock.privilege)}” can unlock locked elements on other people’s screens for ${minutes(unlock.minutes)}.`,
      holders: { privilege: unlock.privilege },
    });
  if (after.signUp && !before.signUp) {
    const given = after.roles.filter((one) => one.givenToNew).map(({ name }) => name);
    found.push({
      about: 'Sign-up',
      said: `Anyone can sign up for an account. They are assigned ${given.length > 0 ? given.join(', ') : 'no role'} and have everything that signed-in people can access.`,
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
      say(
        `People with this role can assign ${nameOf(role)}${notHeld ? ', even without having it themselves' : ''}.`,
      );
  }
  if (is.setsCompared && !was?.setsCompared)
    say(
      'People with this role who manage users can change attributes that conditions use, and so change those users’ access.',
    );
  if (is.joinable && !was?.joinable)
    say('People can join this role themselves and then have all its access.', false);
  if (is.givenToNew && !was?.givenToNew) say('Every new person is assigned this role.', false);
  if (is.standInFull && !was?.standInFull)
    say(
      'Anyone acting as a person whose roles all allow it has that person’s full access, not just the access both have.',
      false,
    );
  for (const one of is.privileges)
    if (!was?.privileges.includes(one)) say(`Privilege “${nameOf(one)}” added.`);
  for (const one of is.includes)
    if (!was?.includes.includes(one)) say(`Now includes ${nameOf(one)} and all its access.`);
  return found;
}
