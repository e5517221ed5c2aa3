import type { Compiled } from '../../../access/deciding/compile';
import type { PlanStep } from '../../../access/deciding/plan';
import type { Assignment, Viewer } from '../../../access/deciding/viewer';
import { operandsOf, type Condition } from '../../../condition/condition';
import { allNamed } from '../../../condition/named';
import type { Who } from '../../../model/gate';
import type { Id } from '../../../model/id';
import { withIncluded } from '../../../model/tree';
import { madeOf, type Touched } from './touched';

/** What the steps of one plan ask of viewers and of their circumstances. */
class Asking {
  readonly roles = new Set<Id>();
  readonly exactly = new Set<Id>();
  readonly privileges = new Set<Id>();
  readonly people = new Set<Id>();
  readonly user = new Set<Id>();
  readonly conditions: Condition[] = [];
  /** Does some step ask for the time, or for what a session holds? */
  readonly asks: boolean;
  /** The elements whose rules ask for that. */
  readonly timed: ReadonlySet<number>;
  private readonly footprints = new Map<Id, string>();

  constructor(
    private readonly compiled: Compiled,
    steps: readonly number[],
    /** The elements whose rules these are, by number. */
    elements: readonly number[],
  ) {
    const { plan } = compiled;
    const timed = new Uint8Array(plan.steps.length);
    for (const n of steps) {
      const step = plan.steps[n] as PlanStep;
      if (this.takes(step) || madeOf(compiled, step).some((one) => timed[one] === 1)) timed[n] = 1;
    }
    this.asks = timed.includes(1);
    this.timed = new Set(
      elements.filter((number) => [plan.rules, plan.outers].some((of) => timed[of[number] as number] === 1)),
    );
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
    else if (who.kind === 'unit') this.user.add('home_unit');
    else if (who.kind === 'group') return this.takesCondition({ inGroup: who.group });
    return false;
  }

  private takesCondition(condition: Condition): boolean {
    let asksWhen = false;
    this.conditions.push(condition);
    for (const one of allNamed(this.compiled.definition, condition)) {
      if ('hasRole' in one) (one.exactly ? this.exactly : this.roles).add(one.hasRole);
      if ('hasPrivilege' in one) this.privileges.add(one.hasPrivilege);
      for (const operand of operandsOf(one)) {
        if ('user' in operand) this.user.add(operand.user);
        if ('clock' in operand || 'session' in operand) asksWhen = true;
      }
    }
    return asksWhen;
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
  /** By the number of a touched element: does it ask for the time, or for what a session holds? */
  readonly timed: readonly boolean[];

  /** What was changed asks of viewers, whatever becomes of that. */
  static ofChanges(touched: Touched): AskedOfViewers {
    const now = [...touched.changed.keys()];
    return new AskedOfViewers({ ...touched, now, old: now.map((n) => touched.same[n] as number) });
  }

  constructor({ before, after, old, now, elements }: Touched) {
    const numbers = (side: 'was' | 'is'): number[] => elements.flatMap((one) => one[side]?.number ?? []);
    this.old = new Asking(before, old, numbers('was'));
    this.now = new Asking(after, now, numbers('is'));
    this.people = new Set([...this.old.people, ...this.now.people]);
    this.user = [...new Set([...this.old.user, ...this.now.user])].sort();
    this.conditions = [this.old.conditions, this.now.conditions];
    this.asksWhen = this.old.asks || this.now.asks;
    this.timed = elements.map(
      ({ was, is }) =>
        (was !== undefined && this.old.timed.has(was.number)) ||
        (is !== undefined && this.now.timed.has(is.number)),
    );
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
