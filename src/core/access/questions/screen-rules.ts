import { operandsOf, type Condition } from '../../condition/condition';
import { allOf, anyOf, type BooleanExpression } from '../../condition/boolean-expression';
import type { Definition } from '../../model/definition';
import { gives, type Line, type Who } from '../../model/gate';
import type { AppElement } from '../../model/tree';
import type { Compiled } from '../deciding/compile';
import { EDIT } from '../deciding/level';
import { givenBy, type Algebra, type PerLevel } from '../deciding/lines';
import type { PlanStep } from '../deciding/plan';

/**
 * What lines ask before somebody gets something, whoever that is: not folded for one viewer, as a formula is, but
 * told of all of them. Each question must be answered just so (`is`); in doubt it is not.
 */
export type RuleExpression = BooleanExpression<Question>;

export type Question =
  { readonly who: Who; readonly is: boolean } | { readonly when: Condition; readonly is: boolean };

/** What is said of each level. */
export type ExpressedRule = PerLevel<RuleExpression>;

const allSaid: (...parts: readonly RuleExpression[]) => RuleExpression = allOf<Question>;
const anySaid: (...parts: readonly RuleExpression[]) => RuleExpression = anyOf<Question>;

/** The saying with each of its questions answered by another one. */
export function mapSaid(saying: RuleExpression, of: (question: Question) => RuleExpression): RuleExpression {
  if (typeof saying === 'boolean') return saying;
  if ('all' in saying) return allSaid(...saying.all.map((one) => mapSaid(one, of)));
  return 'any' in saying ? anySaid(...saying.any.map((one) => mapSaid(one, of))) : of(saying);
}

const SAID = [
  { see: false, edit: false },
  { see: true, edit: false },
  { see: true, edit: true },
] as const satisfies readonly ExpressedRule[];

const SAYINGS: Algebra<RuleExpression> = { never: false, always: true, both: allSaid, either: anySaid };

/** What a line asks, of everybody at once. */
function askedBy({ who, what, when }: Line): RuleExpression {
  const is = gives({ what });
  const asked: RuleExpression[] = [{ who, is }, ...(when ? [{ when, is }] : [])];
  return is ? allSaid(...asked) : anySaid(...asked);
}

/**
 * What the screens say of who gets a door of data that follows them: the same steps of the plan as for one viewer,
 * read as sayings about the door's own records. Undefined for what is no such door.
 */
export function rulesFromScreens(compiled: Compiled, door: AppElement): ExpressedRule | undefined {
  const { plan, definition } = compiled;
  const from = plan.followed.get(door.number);
  if (from === undefined) return undefined;
  const known = new Map<number, ExpressedRule>();
  const at = (n: number): ExpressedRule => {
    let rule = known.get(n);
    if (!rule) known.set(n, (rule = work(plan.steps[n] as PlanStep)));
    return rule;
  };
  const work = ({ op, a, b }: PlanStep): ExpressedRule => {
    switch (op) {
      case 'always':
        return SAID[a as 0 | 1 | 2];
      case 'gate':
        return compiled.hasLines(b)
          ? both(at(a), givenBy(SAYINGS, compiled.gateAt(b)?.lines ?? [], askedBy))
          : at(a);
      case 'carried': {
        const filter = plan.lists[a]?.filter;
        const passes: RuleExpression = filter ? { when: filter, is: true } : true;
        return { see: passes, edit: passes };
      }
      case 'lower':
        return both(at(a), at(b));
      case 'higher': {
        const rules = plan.many.slice(a, b).map(at);
        return {
          see: anySaid(...rules.map((one) => one.see)),
          edit: anySaid(...rules.map((one) => one.edit)),
        };
      }
      case 'edit-if':
        return { see: at(a).see, edit: allSaid(at(a).edit, at(b).edit) };
      case 'see-as-edit':
        return { see: at(a).see, edit: at(a).see };
      case 'least':
      case 'constant':
        // What of it differs from record to record is told by `asking`, whose least counts beside it.
        return { see: whateverRecord(definition, at(a).see), edit: whateverRecord(definition, at(a).edit) };
      case 'asking':
        return SAID[EDIT];
      case 'if-own':
      case 'most':
      case 'unless-followed':
      case 'without-record':
        throw new Error(`A door that follows the screens cannot have the step ${op}`);
    }
  };
  return at(from);
}

const both = (a: ExpressedRule, b: ExpressedRule): ExpressedRule => ({
  see: allSaid(a.see, b.see),
  edit: allSaid(a.edit, b.edit),
});

/** Said of another record than the one at hand: only what holds whatever that record is. */
const whateverRecord = (definition: Definition, saying: RuleExpression): RuleExpression =>
  mapSaid(saying, (question) => {
    if ('when' in question) return whatever(definition, question.when, question.is);
    const { who, is } = question;
    switch (who.kind) {
      case 'role':
        return whatever(definition, { hasRole: who.role, ...(who.exactly && { exactly: true }) }, is);
      case 'privilege':
        return whatever(definition, { hasPrivilege: who.privilege }, is);
      case 'group':
        return whatever(definition, { inGroup: who.group }, is);
      case 'everyone':
      case 'person':
      case 'signed-in':
      case 'signed-out':
      case 'unit':
        return question;
    }
  });

/** The condition where it is answered so whatever the record is. */
function whatever(definition: Definition, condition: Condition, is: boolean): RuleExpression {
  const inner = (one: Condition): RuleExpression => whatever(definition, one, is);
  if ('all' in condition || 'any' in condition) {
    const parts = ('all' in condition ? condition.all : condition.any).map(inner);
    return 'all' in condition === is ? allSaid(...parts) : anySaid(...parts);
  }
  if ('not' in condition) return whatever(definition, condition.not, !is);
  if ('hasRole' in condition || 'hasPrivilege' in condition)
    return { when: condition.held ? condition : { ...condition, held: is ? 'everywhere' : 'anywhere' }, is };
  if ('inGroup' in condition) {
    // Being in the group is asked beside what it takes: who is signed out is in none, whatever that says of them.
    const group = definition.groups.find((one) => one.id === condition.inGroup);
    if (!group) return false;
    const asked = allSaid({ when: condition, is }, whatever(definition, group.condition, is));
    return is ? asked : anySaid({ who: { kind: 'signed-out' }, is: true }, asked);
  }
  if ('meets' in condition) {
    const named = definition.conditions.find((one) => one.id === condition.meets);
    return named ? whatever(definition, named.condition, is) : false;
  }
  return operandsOf(condition).some((one) => 'record' in one) ? false : { when: condition, is };
}
