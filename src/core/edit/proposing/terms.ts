import type { Question, RuleExpression } from '../../access/questions/screen-rules';
import type { Condition } from '../../condition/condition';
import type { Definition } from '../../model/definition';
import { sameWho, type Who } from '../../model/gate';
import { isDangling } from '../../model/dangling-references';
import { sameJson } from '../../model/same-json';
import { withIncluded } from '../../model/tree';

/** Questions that must all be answered so, for one way to something. */
export type Term = readonly Question[];

/** More ways than these are told as one condition. */
const MOST_TERMS = 200;

/**
 * The saying as the ways that there are to it: any of them is enough. As few as the roles' inclusion allows: a way
 * that another one holds is left out. Undefined where they would be too many.
 */
export function termsOf(definition: Definition, saying: RuleExpression): readonly Term[] | undefined {
  if (typeof saying === 'boolean') return saying ? [[]] : [];
  if ('any' in saying) {
    let found: readonly Term[] = [];
    for (const one of saying.any) {
      const terms = termsOf(definition, one);
      if (!terms || terms.length + found.length > MOST_TERMS * 5) return undefined;
      found = leastOf(definition, [...found, ...terms]);
    }
    return found.length > MOST_TERMS ? undefined : found;
  }
  if ('all' in saying) {
    let found: readonly Term[] = [[]];
    for (const one of saying.all) {
      const terms = termsOf(definition, one);
      if (!terms || terms.length * found.length > MOST_TERMS * 5) return undefined;
      const joined = found.flatMap((a) => terms.map((b) => joinedTerm(definition, a, b)));
      found = leastOf(
        definition,
        joined.filter((one) => one !== undefined),
      );
    }
    return found.length > MOST_TERMS ? undefined : found;
  }
  return [[saying]];
}

/** Both of them; undefined where they contradict each other. */
function joinedTerm(definition: Definition, a: Term, b: Term): Term | undefined {
  let found: readonly Question[] = a;
  for (const one of b) {
    if (found.some((other) => implies(definition, other, one))) continue;
    found = [...found.filter((other) => !implies(definition, one, other)), one];
  }
  const never = found.some((one) =>
    found.some((other) => one.is && !other.is && implies(definition, one, { ...other, is: true })),
  );
  return never ? undefined : found;
}

/** Without those that another one is wider than. */
const leastOf = (definition: Definition, terms: readonly Term[]): Term[] =>
  terms.filter(
    (term, n) =>
      !terms.some(
        (other, m) =>
          m !== n && isWithin(definition, term, other) && !(m > n && isWithin(definition, other, term)),
      ),
  );

/** Is the wider way open wherever the narrower one is? */
export const isWithin = (definition: Definition, narrow: Term, wide: Term): boolean =>
  wide.every((one) => narrow.some((other) => implies(definition, other, one)));

/** Does the one hold wherever the other does? Told by their form: not all that is so is found. */
function implies(definition: Definition, one: Question, other: Question): boolean {
  if (one.is !== other.is) return false;
  if ('when' in one || 'when' in other)
    return 'when' in one && 'when' in other && sameJson(one.when, other.when);
  if (sameWho(one.who, other.who)) return true;
  const [a, b] = one.is ? [one.who, other.who] : [other.who, one.who];
  if (a.kind !== 'role' || b.kind !== 'role' || b.exactly) return false;
  return withIncluded(definition, [a.role]).has(b.role) && !isDangling(definition, b);
}

/** A question as a condition. Whether one is signed in, and who one is, no condition asks. */
export function asCondition(question: Question): Condition | undefined {
  const condition = 'when' in question ? question.when : whoAsCondition(question.who);
  return condition && (question.is ? condition : { not: condition });
}

function whoAsCondition(who: Who): Condition | undefined {
  switch (who.kind) {
    case 'role':
      return { hasRole: who.role, ...(who.exactly && { exactly: true }) };
    case 'privilege':
      return { hasPrivilege: who.privilege };
    case 'group':
      return { inGroup: who.group };
    case 'unit':
      return { inUnit: { user: 'home_unit' }, unit: { value: who.unit } };
    case 'everyone':
    case 'person':
    case 'signed-in':
    case 'signed-out':
      return undefined;
  }
}

/** The whole saying as one condition. */
export function sayingAsCondition(saying: RuleExpression): Condition {
  if (typeof saying === 'boolean') return saying ? { all: [] } : { any: [] };
  if ('all' in saying) return { all: saying.all.map(sayingAsCondition) };
  if ('any' in saying) return { any: saying.any.map(sayingAsCondition) };
  const condition = asCondition(saying);
  if (!condition) throw new Error('A formula without a condition was passed where a condition is required');
  return condition;
}
