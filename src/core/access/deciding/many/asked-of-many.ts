import { bind, type Unknown } from '../../../condition/bind';
import { operandsOf, type Condition } from '../../../condition/condition';
import type { Formula, Must } from '../../../condition/formula';
import { allNamed } from '../../../condition/named';
import type { Definition, List } from '../../../model/definition';
import { gives, type Line, type Who } from '../../../model/gate';
import type { Id } from '../../../model/id';
import type { AppElement } from '../../../model/tree';
import { ruleOfUnlocked, type Compiled } from '../compile';
import { Held } from '../held';
import type { Algebra, Given } from '../lines';
import { conditionKey } from '../reads';
import { isKind, type Circumstances, type Viewer } from '../viewer';
import { bitsOf, type Bits } from './bits';
import type { Formulas } from './formulas';
import type { ShortPlan } from './short-plan';

/** What is asked of many viewers: the formula of each, by its number, and for whom it surely and perhaps holds. */
export interface Leaf {
  readonly numbers: Int32Array;
  readonly bits: Bits;
}

/** A line of a gate: of whom it speaks and when or, of one that takes away, of whom it does not and when not. */
export interface AskedLine {
  readonly what: Line['what'];
  readonly who: Leaf;
  readonly when: Leaf | undefined;
}

/** As `Held.matches`: of a line that gives, when it matches; of one that takes away, when it does not. */
export function matches<T>(
  { both, either }: Pick<Algebra<T>, 'both' | 'either'>,
  { what, who, when }: AskedLine,
  of: (leaf: Leaf) => T,
): T {
  if (!when) return of(who);
  return (gives({ what }) ? both : either)(of(who), of(when));
}

/**
 * What the lines and filters of one definition ask of many viewers. What asks for neither the time nor a session is
 * asked once for all circumstances; and viewers who are alike in what a condition looks at are asked once.
 */
export class AskedOfMany {
  readonly leaves = new Map<string, Leaf>();
  private readonly looks = new Map<string, Looks>();
  private readonly ends: readonly number[];
  private readonly hasKinds: boolean;

  constructor(
    readonly compiled: Compiled,
    readonly plan: ShortPlan,
    readonly viewers: readonly Viewer[],
    readonly formulas: Formulas,
  ) {
    this.ends = viewers
      .flatMap((one) => ('assignments' in one ? one.assignments : []))
      .flatMap(({ from, until }) => [from, until])
      .flatMap((one) => (one === undefined ? [] : [Date.parse(one)]));
    this.hasKinds = viewers.some(isKind);
  }

  at(when: Circumstances, unknown: Unknown): AskedAt {
    const ended = this.ends.filter((one) => one <= when.moment).length;
    return new AskedAt(this, when, unknown, `${this.hasKinds ? unknown : ''} ${ended}`);
  }

  looksOf(condition: Condition): Looks {
    const key = conditionKey(condition);
    let looks = this.looks.get(key);
    if (!looks) this.looks.set(key, (looks = looksOf(this.compiled.definition, condition)));
    return looks;
  }
}

/** What a condition looks at, with all that it names. */
interface Looks {
  readonly key: string;
  /** The time, or a session. */
  readonly when: boolean;
  readonly record: boolean;
  /** What somebody holds. */
  readonly roles: boolean;
  readonly user: readonly Id[];
}

function looksOf(definition: Definition, condition: Condition): Looks {
  const parts = allNamed(definition, condition);
  const operands = parts.flatMap(operandsOf);
  const ofEntities = new Set(
    definition.conditions.flatMap(({ id, entity }) => (entity === undefined ? [] : [id])),
  );
  return {
    key: conditionKey(condition),
    when: operands.some((one) => 'clock' in one || 'session' in one),
    record:
      operands.some((one) => 'record' in one) ||
      parts.some((one) => 'meets' in one && ofEntities.has(one.meets)),
    roles: parts.some((one) => 'hasRole' in one || 'hasPrivilege' in one),
    user: [...new Set(operands.flatMap((one) => ('user' in one ? [one.user] : [])))],
  };
}

/** What tells viewers apart for a condition that does not ask what they hold. */
function alikeFor({ user }: Looks, viewer: Viewer): string {
  if (viewer.kind === 'signed-out') return 'out';
  const { attributes, groups } = viewer;
  return JSON.stringify([groups, attributes ? user.map((id) => attributes[id] ?? null) : 'kind']);
}

/** The same in one circumstance, with what is not known speaking one way. */
export class AskedAt {
  readonly compiled: Compiled;
  readonly plan: ShortPlan;
  readonly viewers: readonly Viewer[];
  private readonly held: (Held | undefined)[] = [];
  /** By the number of an element, and of a list. */
  private readonly lines: (readonly AskedLine[] | undefined)[] = [];
  private readonly filters: (Leaf | undefined)[] = [];
  private readonly here: string;

  constructor(
    private readonly asked: AskedOfMany,
    private readonly when: Circumstances,
    private readonly unknown: Unknown,
    /** The same in circumstances in which the same assignments count. */
    private readonly steady: string,
  ) {
    this.compiled = asked.compiled;
    this.plan = asked.plan;
    this.viewers = asked.viewers;
    this.here = `${unknown} ${when.moment} ${when.whenever} ${JSON.stringify(when.session)}`;
  }

  /** The lines of the element with this number; undefined where it follows. */
  linesAt(number: number): readonly AskedLine[] | undefined {
    if (!this.compiled.hasLines(number)) return undefined;
    return (this.lines[number] ??= this.askLines(this.compiled.tree.elements[number] as AppElement));
  }

  /** Whose records pass the fixed filter of the list with this number in the plan. */
  passing(number: number): Leaf {
    return (this.filters[number] ??= this.askFilter(this.compiled.plan.lists[number] as List));
  }

  /** What was unlocked of the element with this number, as if by lines. */
  unlockedAt(number: number): readonly Given<Leaf>[] {
    const id = this.compiled.tree.elements[number]?.id;
    const unlocked = this.when.unlocked?.filter((one) => one.element === id) ?? [];
    return unlocked.map(ruleOfUnlocked).map(({ see, edit }) => ({
      see: this.ask(`unlocked ${JSON.stringify(see)}`, undefined, () => see),
      edit: this.ask(`unlocked ${JSON.stringify(edit)}`, undefined, () => edit),
    }));
  }

  private askLines(element: AppElement): AskedLine[] {
    const scope = this.compiled.scope(element);
    return (this.compiled.gateAt(element.number)?.lines ?? []).map((line): AskedLine => {
      const must = gives(line) ? 'be true' : 'be false';
      const who = this.askWho(line.who, must);
      if (!line.when) return { what: line.what, who, when: undefined };
      const looks = this.asked.looksOf(line.when);
      const taken = this.when.taken?.[line.id] ?? '';
      const key = `when ${looks.key} ${looks.record ? scope.entity?.id : ''} ${must} ${taken}`;
      const when = this.ask(key, looks, (held) => held.isWhen(line, scope)(must));
      return { what: line.what, who, when };
    });
  }

  private askWho(who: Who, must: Must): Leaf {
    const looks = who.kind === 'group' ? this.asked.looksOf({ inGroup: who.group }) : undefined;
    return this.ask(`who ${JSON.stringify(who)} ${must}`, looks, (held) => held.isSpokenOf(who)(must));
  }

  private askFilter({ filter, entity }: List): Leaf {
    if (!filter) return this.ask('no filter', undefined, () => true);
    const { definition, tree } = this.compiled;
    const scope = { definition, entity: tree.entityOf(entity) };
    const looks = this.asked.looksOf(filter);
    return this.ask(`filter ${looks.key} ${entity}`, looks, ({ facts }) =>
      bind(facts, scope, filter, 'be true'),
    );
  }

  private ask(what: string, looks: Looks | undefined, of: (held: Held) => Formula): Leaf {
    const { leaves, formulas } = this.asked;
    const key = `${what} ${this.steady} ${looks?.when ? this.here : ''}`;
    let leaf = leaves.get(key);
    if (!leaf) {
      const known = new Map<string, number>();
      const numbers = Int32Array.from(this.viewers, (viewer, v) => {
        const alike = looks && !looks.roles ? alikeFor(looks, viewer) : undefined;
        const found = alike === undefined ? undefined : known.get(alike);
        if (found !== undefined) return found;
        const number = formulas.numberOf(of(this.heldBy(v)), v);
        if (alike !== undefined) known.set(alike, number);
        return number;
      });
      leaf = { numbers, bits: bitsOf(numbers) };
      leaves.set(key, leaf);
    }
    return leaf;
  }

  private heldBy(v: number): Held {
    const { definition } = this.compiled;
    return (this.held[v] ??= new Held(definition, this.viewers[v] as Viewer, this.when, this.unknown));
  }
}
