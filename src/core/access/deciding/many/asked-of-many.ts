import { bind, type UnknownAs } from '../../../condition/bind';
import type { Condition } from '../../../condition/condition';
import { type Formula, type RequiredResult, withoutUnits } from '../../../condition/formula';
import type { Scope } from '../../../condition/type';
import { maskOf, put } from '../../../mask';
import type { Definition, List } from '../../../model/definition';
import { gives, type Line, type Who } from '../../../model/gate';
import { sameJson } from '../../../model/same-json';
import type { AppElement } from '../../../model/tree';
import { ruleOfUnlocked, type Compiled } from '../compile';
import { Grants } from '../grants';
import { givenBy, type Algebra, type PerLevel } from '../lines';
import { conditionKey } from '../reads';
import { isKind, type Circumstances, type Viewer } from '../viewer';
import { bitsAlgebra, type Bits } from './bits';
import type { Formulas } from './formulas';
import { alikeFor, looksOf, type Looks } from './looks';
import type { ShortPlan } from './short-plan';

/** What is asked of many viewers: for whom it surely and perhaps holds; and the formula of each, where they have numbers. */
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

/** The lines of one gate as they are for many viewers, with what they give, without its containers. */
export interface AskedGate {
  readonly lines: readonly AskedLine[];
  readonly unlocked: readonly PerLevel<Leaf>[];
  readonly bits: PerLevel<Bits>;
}

/** What a gate gives, in an algebra in which `of` tells what is asked. As `Compiled.given`. */
export const givenTo = <T>(
  algebra: Algebra<T>,
  { lines, unlocked }: Pick<AskedGate, 'lines' | 'unlocked'>,
  of: (leaf: Leaf) => T,
): PerLevel<T> =>
  givenBy(
    algebra,
    lines,
    ({ what, who, when }) =>
      when ? (gives({ what }) ? algebra.both : algebra.either)(of(who), of(when)) : of(who),
    unlocked.map(({ see, edit }) => ({ see: of(see), edit: of(edit) })),
  );

/**
 * What the lines and filters of one definition ask of many viewers. What asks for neither the time nor a session is
 * asked once for all circumstances; and viewers who are alike in what a condition looks at are asked once.
 */
export class AskedOfMany {
  readonly leaves: Map<string, Leaf>;
  private readonly steadyGates = new Map<string, AskedGates>();
  readonly algebra: Algebra<Bits>;
  private readonly looks = new Map<string, Looks>();
  private readonly timed: (boolean | undefined)[] = [];
  private readonly ends: readonly number[];
  private readonly hasKinds: boolean;

  constructor(
    readonly compiled: Compiled,
    readonly plan: ShortPlan,
    readonly viewers: readonly Viewer[],
    /** Without them only for whom what holds is told, and not which formulas it is. */
    readonly formulas: Formulas | undefined,
    /** The same viewers in another definition: where the same is meant by what is asked, it is asked once. */
    beside?: AskedOfMany,
  ) {
    const isShared = beside && meansTheSame(beside.compiled.definition, compiled.definition);
    this.leaves = isShared ? beside.leaves : new Map<string, Leaf>();
    this.ends = viewers
      .flatMap((one) => ('assignments' in one ? one.assignments : []))
      .flatMap(({ from, until }) => [from, until])
      .flatMap((one) => (one === undefined ? [] : [Date.parse(one)]));
    this.hasKinds = viewers.some(isKind);
    this.algebra = bitsAlgebra(viewers.length);
  }

  at(when: Circumstances, unknown: UnknownAs): AskedAt {
    const ended = this.ends.filter((one) => one <= when.moment).length;
    return new AskedAt(this, when, unknown, `${this.hasKinds ? unknown : ''} ${ended}`);
  }

  /** By the number of an element, the gates that ask for neither the time nor a session, while the same assignments count. */
  gatesWhile(counting: string): AskedGates {
    const gates = this.steadyGates.get(counting) ?? new AskedGates();
    this.steadyGates.set(counting, gates);
    return gates;
  }

  /** Do lines of the element with this number ask for the time, or for what a session holds? */
  asksWhen(number: number): boolean {
    return (this.timed[number] ??= (this.compiled.gateAt(number)?.lines ?? []).some(
      ({ who, when }) =>
        (who.kind === 'group' && this.looksOf({ inGroup: who.group }).when) ||
        (when !== undefined && this.looksOf(when).when),
    ));
  }

  looksOf(condition: Condition): Looks {
    const key = conditionKey(condition);
    let looks = this.looks.get(key);
    if (!looks) this.looks.set(key, (looks = looksOf(this.compiled.definition, condition)));
    return looks;
  }
}

/** Do lines that are written the same mean the same in both? */
const meansTheSame = (one: Definition, other: Definition): boolean =>
  MEANT.every((part) => sameJson(one[part], other[part]));

const MEANT = [
  'roles',
  'privileges',
  'units',
  'attributes',
  'groups',
  'conditions',
  'sessionValues',
  'entities',
  'timeZone',
] as const satisfies readonly (keyof Definition)[];

/** Gates by the number of their element: for data with a field for the unit, and for data without. */
class AskedGates {
  private readonly gates: readonly (AskedGate | undefined)[][] = [[], []];

  of(inNoUnit: boolean): (AskedGate | undefined)[] {
    return this.gates[Number(inNoUnit)] as (AskedGate | undefined)[];
  }
}

/** What was answered for all who are alike. */
interface Answered {
  readonly is: Formula;
  readonly number: number;
}

/** The same in one circumstance, with what is not known speaking one way. */
export class AskedAt {
  readonly compiled: Compiled;
  readonly plan: ShortPlan;
  readonly viewers: readonly Viewer[];
  private readonly held: (Grants | undefined)[] = [];
  readonly algebra: Algebra<Bits>;
  private readonly steady: AskedGates;
  private readonly timed = new AskedGates();
  /** By the number of a list; where the data has a field for the unit, and where it has none. */
  private readonly filters: readonly (Leaf | undefined)[][] = [[], []];
  private readonly here: string;

  constructor(
    private readonly asked: AskedOfMany,
    private readonly when: Circumstances,
    private readonly unknown: UnknownAs,
    /** The same in circumstances in which the same assignments count. */
    private readonly counting: string,
  ) {
    this.compiled = asked.compiled;
    this.plan = asked.plan;
    this.viewers = asked.viewers;
    this.algebra = asked.algebra;
    this.steady = asked.gatesWhile(counting);
    this.here = `${unknown} ${when.moment} ${when.whenever} ${JSON.stringify(when.session)}`;
  }

  /** The gate of the element with this number, as a step asks for it; undefined where it follows. */
  gateAt(number: number, inNoUnit = false): AskedGate | undefined {
    if (!this.compiled.hasLines(number)) return undefined;
    const { unlocked, taken } = this.when;
    const isTimed = unlocked !== undefined || taken !== undefined || this.asked.asksWhen(number);
    const gates = (isTimed ? this.timed : this.steady).of(inNoUnit);
    return (gates[number] ??= this.askGate(this.compiled.tree.elements[number] as AppElement, inNoUnit));
  }

  /** Whose records pass the fixed filter of the list with this number in the plan. */
  passing(number: number, inNoUnit = false): Leaf {
    const filters = this.filters[Number(inNoUnit)] as (Leaf | undefined)[];
    return (filters[number] ??= this.askFilter(this.compiled.plan.lists[number] as List, inNoUnit));
  }

  private askGate(element: AppElement, inNoUnit: boolean): AskedGate {
    const lines = (this.compiled.gateAt(element.number)?.lines ?? []).map((line) =>
      this.askLine(line, this.compiled.scope(element), inNoUnit),
    );
    const unlocked = (this.when.unlocked ?? [])
      .filter((one) => one.element === element.id)
      .map(ruleOfUnlocked)
      .map(({ see, edit }) => ({ see: this.askUnlocked(see), edit: this.askUnlocked(edit) }));
    return { lines, unlocked, bits: givenTo(this.algebra, { lines, unlocked }, ({ bits }) => bits) };
  }

  private askLine(line: Line, scope: Scope, inNoUnit: boolean): AskedLine {
    const must = gives(line) ? 'be true' : 'be false';
    const who = this.askWho(line.who, must, inNoUnit);
    if (!line.when) return { what: line.what, who, when: undefined };
    const looks = this.asked.looksOf(line.when);
    const taken = this.when.taken?.[line.id] ?? '';
    const key = `when ${looks.key} ${looks.record ? scope.entity?.id : ''} ${must} ${taken}`;
    const when = this.ask(key, looks, (held) => held.isWhen(line, scope)(must), inNoUnit);
    return { what: line.what, who, when };
  }

  private askUnlocked(formula: Formula): Leaf {
    return this.ask(`unlocked ${JSON.stringify(formula)}`, undefined, () => formula);
  }

  private askWho(who: Who, must: RequiredResult, inNoUnit: boolean): Leaf {
    const looks = who.kind === 'group' ? this.asked.looksOf({ inGroup: who.group }) : undefined;
    const key = `who ${JSON.stringify(who)} ${must}`;
    return this.ask(key, looks, (held) => held.isSpokenOf(who)(must), inNoUnit);
  }

  private askFilter({ filter, entity }: List, inNoUnit: boolean): Leaf {
    if (!filter) return this.ask('no filter', undefined, () => true);
    const { definition, tree } = this.compiled;
    const scope = { definition, entity: tree.entityOf(entity) };
    const looks = this.asked.looksOf(filter);
    const passes = ({ facts }: Grants): Formula => bind(facts, scope, filter, 'be true');
    return this.ask(`filter ${looks.key} ${entity}`, looks, passes, inNoUnit);
  }

  private ask(what: string, looks: Looks | undefined, of: (held: Grants) => Formula, inNoUnit = false): Leaf {
    const { leaves, formulas } = this.asked;
    const key = `${what} ${this.counting} ${looks?.when ? this.here : ''}${inNoUnit ? ' in no unit' : ''}`;
    let leaf = leaves.get(key);
    if (!leaf) {
      const { length } = this.viewers;
      leaf = {
        numbers: new Int32Array(formulas ? length : 0),
        bits: { surely: maskOf(length), perhaps: maskOf(length) },
      };
      const known = new Map<string, Answered>();
      for (let v = 0; v < length; v++) {
        const alike =
          looks && !looks.roles ? alikeFor(looks, this.viewers[v] as Viewer, formulas !== undefined) : '';
        let answered = alike === '' ? undefined : known.get(alike);
        if (!answered) {
          const bound = of(this.heldBy(v));
          const is = inNoUnit ? withoutUnits(bound) : bound;
          answered = { is, number: formulas?.numberOf(is, v) ?? 0 };
          if (alike !== '') known.set(alike, answered);
        }
        leaf.numbers[v] = answered.number;
        if (answered.is === true) put(leaf.bits.surely, v);
        if (answered.is !== false) put(leaf.bits.perhaps, v);
      }
      leaves.set(key, leaf);
    }
    return leaf;
  }

  private heldBy(v: number): Grants {
    const { definition } = this.compiled;
    return (this.held[v] ??= new Grants(definition, this.viewers[v] as Viewer, this.when, this.unknown));
  }
}
