import { allWithin, operandsOf } from '../../condition/condition';
import type { Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import { withIncluded } from '../../model/tree';
import { unitAndBelow } from '../../model/units';
import type { Grants, GrantScope } from '../deciding/grants';
import { conditionsOf } from '../deciding/reads';
import type { Assignment, Person } from '../deciding/viewer';

/**
 * What somebody who looks after people inside the application may do with them (access.md 6): hand out only
 * the roles that they were allowed to, in their own units, never to themselves, and nothing above what they
 * hold unless that was granted.
 */
export class HandingOut {
  /** The roles that may be handed out, and where. */
  readonly roles: ReadonlyMap<Id, GrantScope>;
  /** Attributes that a condition or a line asks of: they decide about access, so they are not changed here. */
  readonly compared: ReadonlySet<Id>;
  /** May they set those all the same, since the builder allows it for a role that they hold everywhere? */
  readonly setsCompared: boolean;
  private readonly named: ReadonlySet<Id>;

  constructor(
    private readonly held: Grants,
    private readonly self: Id,
  ) {
    const roles = new Map<Id, GrantScope>();
    for (const role of held.definition.roles) {
      const where = held.roles.get(role.id);
      if (where === undefined) continue;
      for (const { role: given, notHeld } of role.handsOut ?? []) {
        const own = notHeld ? 'everywhere' : held.roles.get(given);
        if (own !== undefined) roles.set(given, either(roles.get(given), both(where, own)));
      }
    }
    this.roles = roles;
    this.compared = comparedAttributes(held.definition);
    this.setsCompared = held.definition.roles.some(
      (role) => role.setsCompared && held.roles.get(role.id) === 'everywhere',
    );
    this.named = namedPeople(held.definition);
  }

  /** May they look after this person at all? Never themselves; and only people at home in their units. */
  mayLookAfter({ id, attributes }: Pick<Person, 'id' | 'attributes'>): boolean {
    if (id === this.self || this.roles.size === 0) return false;
    return [...this.roles.values()].some((where) => isIn(where, attributes['home_unit']));
  }

  /** The units whose people they look after; undefined for everybody. */
  units(): ReadonlySet<Id> | undefined {
    const places = [...this.roles.values()];
    if (places.includes('everywhere')) return undefined;
    return new Set(places.flatMap((where) => [...(where as ReadonlySet<Id>)]));
  }

  /** May they give or take away this assignment? */
  mayHandOut({ role, unit }: Pick<Assignment, 'role' | 'unit'>): boolean {
    const where = this.roles.get(role);
    if (where === undefined) return false;
    if (where === 'everywhere') return true;
    const below = unit === undefined ? undefined : unitAndBelow(this.held.definition, unit);
    return below !== undefined && [...below].every((one) => where.has(one));
  }

  /** Which of these attributes may not be set, since access depends on them. */
  notToBeSet(attributes: readonly Id[]): Id[] {
    return this.setsCompared ? [] : attributes.filter((one) => this.compared.has(one));
  }

  /**
   * May the person's account be given to another address? Then it is somebody else's, with all that access
   * depends on: so only where they may do what they please with that, and no line names the person.
   */
  mayReaddress(person: Pick<Person, 'id' | 'assignments'>): boolean {
    return (
      this.holdsNoMore(person) &&
      !this.named.has(person.id) &&
      (this.setsCompared || this.compared.size === 0)
    );
  }

  /** Does the person hold nothing but what this one holds or may hand out? Else their account is not touched. */
  holdsNoMore({ assignments }: Pick<Person, 'assignments'>): boolean {
    return assignments.every(
      (one) =>
        this.mayHandOut(one) ||
        [...withIncluded(this.held.definition, [one.role])].every(
          (role) => this.held.roles.get(role) === 'everywhere',
        ),
    );
  }
}

/** The people whom a line names. */
function namedPeople(definition: Definition): Set<Id> {
  const lines = Object.values(definition.gates).flatMap((gate) => gate.lines);
  return new Set(lines.flatMap(({ who }) => (who.kind === 'person' ? [who.person] : [])));
}

const isIn = (where: GrantScope, unit: unknown): boolean =>
  where === 'everywhere' || (typeof unit === 'string' && where.has(unit));

const either = (a: GrantScope | undefined, b: GrantScope): GrantScope =>
  a === undefined ? b : a === 'everywhere' || b === 'everywhere' ? 'everywhere' : new Set([...a, ...b]);

function both(a: GrantScope, b: GrantScope): GrantScope {
  if (a === 'everywhere') return b;
  return b === 'everywhere' ? a : new Set([...a].filter((one) => b.has(one)));
}

/** The attributes that access depends on. */
export function comparedAttributes(definition: Definition): Set<Id> {
  const found = new Set<Id>();
  for (const operand of conditionsOf(definition).flatMap(allWithin).flatMap(operandsOf))
    if ('user' in operand) found.add(operand.user);
  for (const { lines } of Object.values(definition.gates))
    if (lines.some(({ who }) => who.kind === 'unit')) found.add('home_unit');
  return found;
}
