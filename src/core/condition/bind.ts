import type { Definition } from '../model/definition';
import type { Id } from '../model/id';
import { unitAndBelow, unitIds } from '../model/units';
import type { Value, Values } from '../model/value-type';
import { asked, type Atom, readAs, type Reading, type RecordFacts, type Term } from './atom';
import { addDays, type Clock } from './clock';
import type { Comparison, Condition, HeldWhere, Operand, Truth } from './condition';
import { all, any, satisfies, type Formula, type RequiredResult } from './formula';
import { operatorKind } from './operators';
import { comparedKind, fieldFor, typeOf, type Scope, type Type } from './type';

/**
 * An answer that is true, false or in doubt, and may depend on the record. It is asked what it has to be ("be true",
 * say), and tells of which records that holds.
 */
export type OperandResolver = (must: RequiredResult) => Formula;

const CONSTANTS = new Map<Truth, OperandResolver>(
  ([true, false, undefined] as const).map((truth) => [truth, (must) => satisfies(truth, must)]),
);

/** An answer that does not depend on the record. */
export const constant = (truth: Truth): OperandResolver => CONSTANTS.get(truth) as OperandResolver;

/** How what is not known yet speaks. */
export type UnknownAs = 'against' | 'for';

/** What may be not known yet: who one is (of a kind of viewer), what the session holds, what time it is. */
export type UnknownSource = 'user' | 'session' | 'clock';

/** What is known when a condition is asked: the viewer, their session, the moment. */
export interface Facts {
  readonly definition: Definition;
  readonly signedIn: boolean;
  /** The viewer's attributes by id; undefined for one who is signed out. */
  readonly user: Values | undefined;
  /** The values of the viewer's session; undefined where there is none. */
  readonly session: Values | undefined;
  /** What is not known yet, where no value is there. */
  readonly notKnown: readonly UnknownSource[];
  /**
   * Whether what asks for something that is not known yet is taken as if nobody had what it takes, or as if
   * somebody did. Decided both ways, the two are least and most.
   */
  readonly unknown: UnknownAs;
  readonly clock: Clock;
  readonly hasRole: (role: Id, exactly: boolean, held?: HeldWhere) => OperandResolver;
  readonly hasPrivilege: (privilege: Id, held?: HeldWhere) => OperandResolver;
  /** Groups that the viewer is taken to be in without asking. */
  readonly groups?: readonly Id[] | undefined;
}

/** What else must hold before a field may be asked for: in filters, that the asker may see it. */
export type Guard = (term: Extract<Term, { field: Id }>) => Formula;

const towardsTrue = (must: RequiredResult): boolean => must === 'be true' || must === 'not be false';

const OPPOSITE: Readonly<Record<RequiredResult, RequiredResult>> = {
  'be true': 'be false',
  'be false': 'be true',
  'not be true': 'not be false',
  'not be false': 'not be true',
};

/**
 * What it takes of a record for the condition to be as it must, in three-valued logic (Kleene's). All that
 * is known is folded in. Where a guard does not hold, the question cannot be told: neither true nor false.
 */
export function bind(
  facts: Facts,
  scope: Scope,
  condition: Condition,
  must: RequiredResult,
  guard?: Guard,
): Formula {
  return new Binding(facts, scope, guard).formula(condition, must);
}

class Binding {
  /** Named conditions and groups on the way: one that comes back to itself cannot be told. */
  private readonly within = new Set<Id>();

  constructor(
    private readonly facts: Facts,
    private readonly scope: Scope,
    private readonly guard: Guard | undefined,
  ) {}

  formula(condition: Condition, must: RequiredResult): Formula {
    if ('not' in condition) return this.formula(condition.not, OPPOSITE[must]);
    if ('all' in condition || 'any' in condition) {
      // "All" is true where each is, and false where one is; "any" the other way round.
      const parts = ('all' in condition ? condition.all : condition.any).map((one) =>
        this.formula(one, must),
      );
      return towardsTrue(must) === 'all' in condition ? all(...parts) : any(...parts);
    }
    if ('hasRole' in condition)
      return this.facts.hasRole(condition.hasRole, condition.exactly ?? false, condition.held)(must);
    if ('hasPrivilege' in condition)
      return this.facts.hasPrivilege(condition.hasPrivilege, condition.held)(must);
    if ('inGroup' in condition) {
      const { definition, groups, signedIn } = this.facts;
      if (groups?.includes(condition.inGroup)) return satisfies(true, must);
      // Who is signed out is in no group, whatever its condition says of nobody.
      if (!signedIn && definition.groups.some((one) => one.id === condition.inGroup))
        return satisfies(false, must);
      return this.named(condition.inGroup, definition.groups, { definition }, must);
    }
    if ('meets' in condition)
      return this.named(condition.meets, this.facts.definition.conditions, this.scope, must);
    return this.question(condition, must);
  }

  private named(
    id: Id,
    from: readonly { readonly id: Id; readonly condition: Condition; readonly entity?: Id }[],
    scope: Scope,
    must: RequiredResult,
  ): Formula {
    const found = from.find((one) => one.id === id);
    const wrongEntity = found?.entity !== undefined && found.entity !== scope.entity?.id;
    if (!found || wrongEntity || this.within.has(id)) return satisfies(undefined, must);
    this.within.add(id);
    const inner = new Binding(this.facts, scope, this.guard);
    for (const one of this.within) inner.within.add(one);
    const formula = inner.formula(found.condition, must);
    this.within.delete(id);
    return formula;
  }

  /** A comparison, or another question that has no conditions within. */
  private question(
    condition: Exclude<
      Condition,
      | { not: Condition }
      | { all: readonly Condition[] }
      | { any: readonly Condition[] }
      | { hasRole: Id }
      | { hasPrivilege: Id }
      | { inGroup: Id }
      | { meets: Id }
    >,
    must: RequiredResult,
  ): Formula {
    if ('compare' in condition) return this.comparison(condition, must);
    if ('between' in condition) {
      const { between, from, to } = condition;
      const [low, high] = [
        this.comparison({ compare: '<=', left: from, right: between }, must),
        this.comparison({ compare: '<=', left: between, right: to }, must),
      ];
      return towardsTrue(must) ? all(low, high) : any(low, high);
    }
    if ('empty' in condition) {
      const known = this.known(condition.empty);
      if (known?.unknown) return this.notKnown([], must);
      if (known) return satisfies(known.value === undefined ? undefined : known.value === null, must);
      return this.ask({ is: 'empty', of: this.term(condition.empty) }, must);
    }
    if ('oneOf' in condition) {
      const { oneOf, values } = condition;
      const is = this.ask({ is: 'one of', of: this.term(oneOf), values }, must);
      return this.inUnitsThatAre([oneOf], must, is);
    }
    if ('inUnit' in condition) {
      const { value: unit, unknown } = this.known(condition.unit) ?? {};
      if (unknown) return this.notKnown([this.term(condition.inUnit)], must);
      const below = typeof unit === 'string' ? unitAndBelow(this.facts.definition, unit) : undefined;
      if (!below) return satisfies(undefined, must);
      const is = this.ask({ is: 'one of', of: this.term(condition.inUnit), values: [...below] }, must);
      return this.inUnitsThatAre([condition.inUnit], must, is);
    }
    return this.ask(
      { is: 'call', name: condition.call, with: condition.with.map((one) => this.term(one)) },
      must,
    );
  }

  private comparison({ compare, left, right, anyCase }: Comparison, must: RequiredResult): Formula {
    const [a, b] = [this.term(left, right, anyCase), this.term(right, left, anyCase)];
    const { test, turned, not } = operatorKind(compare);
    const be = not ? OPPOSITE[must] : must;
    const is = this.ask({ is: test, left: turned ? b : a, right: turned ? a : b }, be);
    return test === '=' ? this.inUnitsThatAre([left, right], be, is) : is;
  }

  /**
   * A unit that there is no more is in doubt, whatever is asked of it. Where one field is asked to be something that there
   * is, or not to be it, that is so by itself.
   */
  private inUnitsThatAre(operands: readonly Operand[], must: RequiredResult, is: Formula): Formula {
    const fields = operands.filter((one) => 'record' in one && typeOf(this.scope, one)?.kind === 'unit');
    const isKnown = operands.every((one) => 'record' in one || this.known(one)?.unknown !== true);
    if (fields.length === 0) return is;
    if (fields.length === 1 && isKnown && (must === 'be true' || must === 'not be true')) return is;
    const values = unitIds(this.facts.definition);
    const surely = must === 'be true' || must === 'be false';
    const there = fields.map((one) =>
      this.ask({ is: 'one of', of: this.term(one), values }, surely ? 'be true' : 'not be true'),
    );
    return surely ? all(is, ...there) : any(is, ...there);
  }

  private ask(atom: Atom, must: RequiredResult): Formula {
    const terms = termsOf(atom);
    // With a value that is missing nothing can be told, whatever the record.
    if (terms.includes(MISSING)) return satisfies(undefined, must);
    if (terms.includes(NOT_KNOWN)) return this.notKnown(terms, must);
    const fields = terms.filter((term) => 'field' in term);
    if (fields.length === 0) {
      // Nothing of a record in it: the answer is known now.
      return satisfies(asked(atom)(NO_RECORD), must);
    }
    if (!this.guard) return { atom, must };
    if (must !== 'be true' && must !== 'be false')
      throw new Error('The expected result must be “be true” or “be false”');
    const doors = all(...fields.map(this.guard));
    return doors === false ? false : { doors, asks: atom, must };
  }

  /** The value of an operand that is no field; its value is null where it is empty, undefined in doubt. */
  private known(operand: Operand): Known | undefined {
    if ('value' in operand) return { value: operand.value };
    if ('user' in operand) return this.held('user', operand.user);
    if ('session' in operand) return this.held('session', operand.session);
    if ('clock' in operand) {
      if (this.facts.notKnown.includes('clock')) return { unknown: true };
      const reading = this.facts.clock[operand.clock];
      return { value: operand.clock === 'today' ? addDays(reading, operand.plus ?? 0) : reading };
    }
    return undefined;
  }

  private held(of: 'user' | 'session', id: Id): Known {
    const values = this.facts[of];
    const value = values?.[id];
    // Of a kind of viewer, a value of another form than its type's is missing, and so not known yet.
    if (values && this.facts.notKnown.includes(of) && !this.isReadable(of, id, value))
      return { unknown: true };
    return { value: values && (value ?? null) };
  }

  private isReadable(of: 'user' | 'session', id: Id, value: Value | null | undefined): boolean {
    if (value === undefined || value === null) return value === null;
    const operand = of === 'user' ? { user: id } : { session: id };
    return readAs(value, readingOf(typeOf(this.scope, operand))) !== undefined;
  }

  /**
   * What asks for something that is not known yet. In doubt about the record it stays in doubt, whatever that is:
   * somebody can only have what it takes where the record's own values are there.
   */
  private notKnown(terms: readonly Term[], must: RequiredResult): Formula {
    if (this.facts.unknown !== 'for' || this.guard) return false;
    if (terms.includes(MISSING) || satisfies(undefined, must)) return satisfies(undefined, must);
    const fields = terms.filter((term) => 'field' in term);
    return all(...fields.map((of): Formula => ({ atom: { is: 'empty', of }, must: 'be false' })));
  }

  private term(operand: Operand, other?: Operand, anyCase = false): Term {
    const type = typeOf(this.scope, operand) ?? (other && typeOf(this.scope, other));
    const as = anyCase ? 'folded' : readingOf(type);
    if ('record' in operand) {
      // A field that is gone has no value.
      if (!fieldFor(this.scope, operand)) return MISSING;
      const { record: field, through } = operand;
      return through === undefined ? { field, as } : { field, through, as };
    }
    const { value, unknown } = this.known(operand) ?? {};
    if (unknown) return NOT_KNOWN;
    if (value === undefined || value === null) return MISSING;
    if (type?.kind === 'unit' && !unitAndBelow(this.facts.definition, String(value))) return MISSING;
    return { constant: value, as };
  }
}

/** The value of an operand: null where it is empty, undefined in doubt, or not known yet. */
interface Known {
  readonly value?: Value | null | undefined;
  readonly unknown?: boolean;
}

/** Constants that read as missing: no decimal looks like them. */
const MISSING: Term = { constant: '', as: 'decimal' };
const NOT_KNOWN: Term = { constant: '?', as: 'decimal' };

const NO_RECORD: RecordFacts = {
  entity: { id: '', name: '', plural: '', labelField: '', fields: [], actions: [] },
  values: {},
};

export const readingOf = (type: Type | undefined): Reading => (type ? comparedKind(type).form : 'text');

function termsOf(atom: Atom): readonly Term[] {
  if ('left' in atom) return [atom.left, atom.right];
  if ('of' in atom) return [atom.of];
  return 'with' in atom ? atom.with : [];
}
