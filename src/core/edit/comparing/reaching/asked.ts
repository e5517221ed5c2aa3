import type { Compiled } from '../../../access/deciding/compile';
import { comparedIn } from '../../../access/deciding/many/looks';
import { madeOf, type ShortPlan } from '../../../access/deciding/many/short-plan';
import type { PlanStep } from '../../../access/deciding/plan';
import type { Assignment, Viewer } from '../../../access/deciding/viewer';
import { operandsOf, type Condition } from '../../../condition/condition';
import { allNamed } from '../../../condition/named';
import type { Who } from '../../../model/gate';
import type { Id } from '../../../model/id';
import type { Value } from '../../../model/value-type';
import { withIncluded } from '../../../model/tree';
import type { AnswerSteps, AffectedPlans } from './touched';

/** What the steps of one plan ask of viewers and of their circumstances. */
class Asking {
  readonly roles = new Set<Id>();
  readonly exactly = new Set<Id>();
  readonly privileges = new Set<Id>();
  readonly people = new Set<Id>();
  readonly user = new Set<Id>();
  /** Attributes of which something else is asked than to be compared with what a record holds. */
  readonly known = new Set<Id>();
  readonly constants = new Set<Value>();
  readonly conditions: Condition[] = [];
  /** Does some step ask for the time, or for what a session holds? */
  readonly asks: boolean;
  /** By step, whether it does. */
  private readonly timed: Uint8Array;
  private readonly footprints = new Map<Id, string>();

  constructor(
    private readonly compiled: Compiled,
    plan: ShortPlan,
    steps: readonly number[],
  ) {
    this.timed = new Uint8Array(plan.steps.length);
    for (const n of steps) {
      const step = plan.steps[n] as PlanStep;
      const isTimed = this.takes(step) || madeOf(plan, step).some((one) => this.timed[one] === 1);
      if (isTimed) this.timed[n] = 1;
    }
    this.asks = this.timed.includes(1);
  }

  /** Does an answer ask for that? */
  asksWhen(one: AnswerSteps | undefined): boolean {
    return one !== undefined && (this.timed[one.rule] === 1 || this.timed[one.outer] === 1);
  }

  /** What of an assigned role the steps ask for: two roles with the same are alike. */
  footprint(role: Id): string {
    let print = this.footprints.get(role);
    if (print === undefined) {
      const { definition, tree } = this.compiled;
      const held = [...withIncluded(definition, [role])];
      const privileges = new Set(held.flatMap((one) => tree.role(one)?.privileges ?? []));
      print = [
        ...held.filter((one) => this.roles.has(one)),
        ...(this.exactly.has(role) ? [`exactly ${role}`] : []),
        ...[...privileges].filter((one) => this.privileges.has(one)),
      ]
        .sort()
        .join(' ');
      this.footprints.set(role, print);
    }
    return print;
  }

  /** Notes what a step asks for; returns whether that is the time or a session. */
  private takes({ op, a, b }: PlanStep): boolean {
    const { plan } = this.compiled;
    if (op === 'carried') {
      const filter = plan.lists[a]?.filter;
      return filter !== undefined && this.takesCondition(filter);
    }
    if (op !== 'gate') return false;
    let asksWhen = false;
    for (const { who, when } of this.compiled.gateAt(b)?.lines ?? []) {
      if (this.takesWho(who)) asksWhen = true;
      if (when && this.takesCondition(when)) asksWhen = true;
    }
    return asksWhen;
  }

  private takesWho(who: Who): boolean {
    if (who.kind === 'role') (who.exactly ? this.exactly : this.roles).add(who.role);
    else if (who.kind === 'privilege') this.privileges.add(who.privilege);
    else if (who.kind === 'person') this.people.add(who.person);
    else if (who.kind === 'unit') this.takesUser('home_unit', true);
    else if (who.kind === 'group') return this.takesCondition({ inGroup: who.group });
    return false;
  }

  private takesCondition(condition: Condition): boolean {
    let asksWhen = false;
    this.conditions.push(condition);
    const parts = allNamed(this.compiled.definition, condition);
    const compared = comparedIn(this.compiled.definition, parts);
    for (const one of parts) {
      if ('hasRole' in one) (one.exactly ? this.exactly : this.roles).add(one.hasRole);
      if ('hasPrivilege' in one) this.privileges.add(one.hasPrivilege);
      if ('oneOf' in one) for (const value of one.values) this.constants.add(value);
      for (const operand of operandsOf(one)) {
        if ('value' in operand) this.constants.add(operand.value);
        if ('user' in operand) this.takesUser(operand.user, !compared.has(operand.user));
        if ('clock' in operand || 'session' in operand) asksWhen = true;
      }
    }
    return asksWhen;
  }

  private takesUser(id: Id, isKnown: boolean): void {
    this.user.add(id);
    if (isKnown) this.known.add(id);
  }
}

/** What the touched part of two definitions asks of viewers: those who are the same in it are compared once. */
export class AskedOfViewers {
  private readonly old: Asking;
  private readonly now: Asking;
  private readonly people: ReadonlySet<Id>;
  private readonly user: readonly Id[];
  /** The conditions of each side. */
  readonly conditions: readonly [readonly Condition[], readonly Condition[]];
  /** Do its steps ask for the time, or for what a session holds? */
  readonly asksWhen: boolean;
  /** By the place of sorts of touched elements: do they ask for the time, or for what a session holds? */
  readonly timed: readonly boolean[];

  /** What was changed asks of viewers, whatever becomes of that. */
  static ofChanges(touched: AffectedPlans): AskedOfViewers {
    const now = [...touched.changed.keys()];
    return new AskedOfViewers({ ...touched, now, old: now.map((n) => touched.same[n] as number) });
  }

  constructor({ before, after, plans, old, now, sorts }: AffectedPlans) {
    this.old = new Asking(before, plans.old, old);
    this.now = new Asking(after, plans.now, now);
    this.people = new Set([...this.old.people, ...this.now.people]);
    this.user = [...new Set([...this.old.user, ...this.now.user])].sort();
    this.conditions = [this.old.conditions, this.now.conditions];
    this.asksWhen = this.old.asks || this.now.asks;
    this.timed = sorts.map(({ was, is }) => this.old.asksWhen(was) || this.now.asksWhen(is));
  }

  /**
   * The viewer with what is asked of them only: two who are alike in that get the same as the same one. What an
   * attribute is does not matter where it is only compared with what records hold: such values are told apart from each
   * other, from what is written in a condition and from attributes of which more is asked, and else are all alike.
   */
  asAsked(viewer: Viewer): Viewer {
    if (viewer.kind === 'signed-out' || !viewer.attributes) return viewer;
    const { attributes } = viewer;
    const sides = [this.old, this.now];
    const known = new Set<unknown>(
      this.user.flatMap((id) => (sides.some((one) => one.known.has(id)) ? [attributes[id]] : [])),
    );
    const tokens = new Map<Value, string>();
    const asAsked = (id: Id): Value | null => {
      const value = attributes[id] ?? null;
      if (value === null || known.has(value) || sides.some((one) => one.constants.has(value))) return value;
      const token = tokens.get(value) ?? `${id}\u0000`;
      tokens.set(value, token);
      return token;
    };
    return { ...viewer, attributes: Object.fromEntries(this.user.map((id) => [id, asAsked(id)])) };
  }

  /** What tells viewers apart in the touched part. */
  keyOf(viewer: Viewer): string {
    if (viewer.kind === 'signed-out') return 'out';
    const { assignments, person, attributes, groups } = viewer;
    const named = person !== undefined && this.people.has(person) ? person : '';
    const held = new Set(assignments.flatMap((one) => this.heldBy(one) ?? []));
    return JSON.stringify([
      named,
      [...held].sort(),
      attributes ? this.user.map((id) => attributes[id] ?? null) : 'kind',
      groups ?? [],
    ]);
  }

  /** What somebody holds by an assignment that is asked for; undefined where that is nothing. */
  heldBy({ role, unit, from, until }: Assignment): string | undefined {
    const [was, is] = [this.old.footprint(role), this.now.footprint(role)];
    return was === '' && is === '' ? undefined : JSON.stringify([was, is, unit, from, until]);
  }
}
