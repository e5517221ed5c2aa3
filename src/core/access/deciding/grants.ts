import {
  bind,
  constant,
  type OperandResolver,
  type Facts,
  type UnknownSource,
  type UnknownAs,
} from '../../condition/bind';
import type { HeldWhere } from '../../condition/condition';
import { readClock } from '../../condition/clock';
import { all, any, type Formula, type RequiredResult } from '../../condition/formula';
import type { Scope } from '../../condition/type';
import type { Definition } from '../../model/definition';
import { gives, type Line, type Who } from '../../model/gate';
import { isDangling } from '../../model/dangling-references';
import type { Id } from '../../model/id';
import { rolesById, withIncluded } from '../../model/tree';
import { unitAndBelow, unitIds } from '../../model/units';
import { givenBy } from './lines';
import { FORMULAS, ruleOf, type Rule } from './rule';
import { counts, isKind, type Assignment, type Circumstances, type Viewer } from './viewer';

/** Where a role or a privilege is held: everywhere, or for records of these units only. */
export type GrantScope = 'everywhere' | ReadonlySet<Id>;

/** What one viewer holds at one moment, and so whether a line speaks of them. */
export class Grants {
  readonly facts: Facts;
  /** Roles held, by those assigned and by all that these include. */
  readonly roles = new Map<Id, GrantScope>();
  readonly assigned = new Map<Id, GrantScope>();
  readonly privileges = new Map<Id, GrantScope>();

  /** `unknown`: how what is not known yet speaks. */
  constructor(
    readonly definition: Definition,
    readonly viewer: Viewer,
    readonly circumstances: Circumstances,
    unknown: UnknownAs = 'against',
  ) {
    const signedIn = viewer.kind === 'signed-in';
    this.facts = {
      definition,
      signedIn,
      user: signedIn ? (viewer.attributes ?? {}) : undefined,
      notKnown: notKnown(viewer, circumstances),
      unknown,
      session: signedIn ? (circumstances.session ?? {}) : undefined,
      groups: signedIn ? viewer.groups : undefined,
      clock: readClock(circumstances.moment, definition.timeZone),
      hasRole: (role, exactly, held) =>
        isDangling(definition, { kind: 'role', role })
          ? constant(undefined)
          : this.heldAt((exactly ? this.assigned : this.roles).get(role), held),
      hasPrivilege: (privilege, held) =>
        isDangling(definition, { kind: 'privilege', privilege })
          ? constant(undefined)
          : this.heldAt(this.privileges.get(privilege), held),
    };
    if (signedIn) for (const one of viewer.assignments) this.assign(one);
    const byId = rolesById(definition);
    for (const [role, where] of this.roles)
      for (const privilege of byId.get(role)?.privileges ?? []) put(this.privileges, privilege, where);
  }

  /** Whether a line with this who speaks of the viewer: true, false, in doubt, or for some records only. */
  isSpokenOf(who: Who): OperandResolver {
    const { viewer, definition } = this;
    if (isDangling(definition, who)) return constant(undefined);
    const signedIn = viewer.kind === 'signed-in';
    switch (who.kind) {
      case 'everyone':
        return constant(true);
      case 'signed-out':
        return constant(!signedIn);
      case 'signed-in':
        return constant(signedIn);
      case 'role':
        return this.facts.hasRole(who.role, who.exactly ?? false);
      case 'privilege':
        return this.facts.hasPrivilege(who.privilege);
      case 'person':
        return constant(signedIn && viewer.person === who.person);
      case 'group': {
        if (!signedIn) return constant(false);
        return (must) => bind(this.facts, { definition }, { inGroup: who.group }, must);
      }
      case 'unit': {
        if (!signedIn) return constant(false);
        const home = this.facts.user?.['home_unit'];
        if (this.facts.notKnown.includes('user')) return () => this.facts.unknown === 'for';
        // At home in a unit that there is no more, it is in doubt.
        const isThere = typeof home === 'string' && unitAndBelow(definition, home) !== undefined;
        return constant(isThere ? unitAndBelow(definition, who.unit)?.has(home) : undefined);
      }
    }
  }

  /** The assignment by which a line would speak of the viewer, if its period were now. */
  periodOf(who: Who): Assignment | undefined {
    const { viewer, definition, circumstances } = this;
    if (viewer.kind !== 'signed-in' || who.kind !== 'role') return undefined;
    return viewer.assignments.find(
      (one) =>
        !counts(one, circumstances.moment) &&
        (who.exactly ? one.role === who.role : withIncluded(definition, [one.role]).has(who.role)),
    );
  }

  /** Whether the line's when holds. */
  isWhen({ id, when }: Line, scope: Scope): OperandResolver {
    const taken = this.circumstances.taken?.[id];
    if (when && taken !== undefined) return constant(taken);
    return when ? (must) => bind(this.facts, scope, when, must) : constant(true);
  }

  /** Of a line that gives, when it matches; of one that takes away, when it does not. In doubt it is neither. */
  matches(line: Line, scope: Scope): Formula {
    const [who, when] = [this.isSpokenOf(line.who), this.isWhen(line, scope)];
    return gives(line) ? all(who('be true'), when('be true')) : any(who('be false'), when('be false'));
  }

  /** What these lines would give as a gate's own, without its containers. */
  given(lines: readonly Line[], scope: Scope): Rule {
    const { see, edit } = givenBy(FORMULAS, lines, (line) => this.matches(line, scope));
    return ruleOf(see, edit);
  }

  /**
   * Held in some units only, it counts for records of those. For one without a unit, or whose unit there is no more, it
   * is in doubt: it is false only for those of other units that there are.
   */
  private heldAt(where: GrantScope | undefined, held?: HeldWhere): OperandResolver {
    if (where === undefined) return constant(false);
    if (where === 'everywhere' || held === 'anywhere') return constant(true);
    if (held === 'everywhere') return constant(false);
    const inOneOf = (units: readonly Id[], must: RequiredResult): Formula => ({
      atom: { is: 'in units', units: [...units].sort() },
      must,
    });
    return (must) => {
      if (must === 'be true' || must === 'not be true') return inOneOf([...where], must);
      const others = unitIds(this.definition).filter((unit) => !where.has(unit));
      return inOneOf(others, must === 'be false' ? 'be true' : 'not be true');
    };
  }

  private assign({ role, unit, ...period }: Assignment): void {
    if (!counts({ role, ...period }, this.circumstances.moment)) return;
    if (!rolesById(this.definition).has(role)) return;
    const where = unit === undefined ? 'everywhere' : unitAndBelow(this.definition, unit);
    // Held in a unit that is gone: held nowhere.
    if (!where) return;
    put(this.assigned, role, where);
    for (const one of withIncluded(this.definition, [role])) put(this.roles, one, where);
  }
}

function notKnown(viewer: Viewer, { whenever }: Circumstances): UnknownSource[] {
  return [
    ...(isKind(viewer) ? (['user', 'session'] as const) : []),
    ...(whenever ? (['session', 'clock'] as const) : []),
  ];
}

function put(map: Map<Id, GrantScope>, id: Id, where: GrantScope): void {
  const has = map.get(id);
  if (has === 'everywhere') return;
  map.set(id, has === undefined || where === 'everywhere' ? where : new Set([...has, ...where]));
}
