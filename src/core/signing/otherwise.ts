import { accessOf, type Access } from '../access/deciding/access';
import { compile, type Compiled } from '../access/deciding/compile';
import { sameAnswer } from '../access/deciding/level';
import type { Rule } from '../access/deciding/rule';
import { viewerOfPerson, type Person } from '../access/deciding/viewer';
import { keyedPerson, kindsOf } from '../access/deciding/viewer-key';
import { reachSteps } from '../edit/comparing/access-differences';
import type { Id } from '../model/id';
import { sameJson } from '../model/same-json';
import type { Steps } from '../steps';
import type { AccessSnapshot } from './compare';

/** Whose level stays, and who still gets an element otherwise than before: of other records, or when something is so. */
export interface Otherwise {
  readonly element: Id;
  /** Viewers' keys. */
  readonly who: readonly string[];
  /** `records`: of others than before; `times`: at another time, or with another session. */
  readonly what: 'records' | 'times';
}

/**
 * What differs between two times beside the levels: who gets other records of something, or gets it at other times or with
 * another session. `isTold` says which viewers' level of an element is told as another one.
 */
export function* otherwiseBetween(
  before: AccessSnapshot,
  after: AccessSnapshot,
  isTold: (viewer: string, element: Id) => boolean,
): Steps<Otherwise[]> {
  const found: Otherwise[] = [];
  const tell = (element: Id, whom: readonly string[], what: Otherwise['what']): void => {
    const who = whom.filter((viewer) => !isTold(viewer, element));
    if (who.length > 0) found.push({ element, who, what });
  };
  const everybody = [...kindsOf(after.definition), ...after.people.map(keyedPerson)];
  const { moment } = after;
  for (const { element, groups } of yield* reachSteps(before.definition, after.definition, everybody, {
    moment,
  }))
    for (const one of groups)
      tell(element, one.who, !one.elsewhen && sameAnswer(one.before, one.after) ? 'records' : 'times');
  const compiled = compile(after.definition);
  const changed = changedPeople(before, after);
  for (const [n, [was, is]] of changed.entries()) {
    const { key } = keyedPerson(is);
    for (const element of recordsDiffer(compiled, [was, before.moment], [is, moment]))
      tell(element, [key], 'records');
    yield { done: n + 1, of: changed.length };
  }
  return found;
}

/** The people who are there both times, and with whom something is otherwise: also that a period is over, or has begun. */
export function changedPeople(
  before: AccessSnapshot,
  after: AccessSnapshot,
): (readonly [was: Person, is: Person])[] {
  const then = new Map(before.people.map((one) => [one.id, one]));
  return after.people.flatMap((is) => {
    const was = then.get(is.id);
    const lapsed = is.assignments.some(({ from, until }) =>
      [from, until].some((at) => at && isBetween(Date.parse(at), before.moment, after.moment)),
    );
    return was && (lapsed || !sameJson(was, is)) ? [[was, is] as const] : [];
  });
}

const isBetween = (at: number, one: number, other: number): boolean =>
  at > Math.min(one, other) && at <= Math.max(one, other);

/** The elements of which a person gets other records by being another one, in the same definition. */
function recordsDiffer(
  compiled: Compiled,
  ...sides: readonly (readonly [person: Person, moment: number])[]
): Id[] {
  const [then, now] = sides.map(([person, moment]) =>
    accessOf(compiled, viewerOfPerson(person), { moment, whenever: true }),
  ) as [Access, Access];
  return compiled.tree.elements
    .filter((element) => !sameRules(then, now, (access) => [access.rule(element), access.outerRule(element)]))
    .map(({ id }) => id);
}

const sameRules = (
  one: Access,
  other: Access,
  rules: (access: Access) => readonly (Rule | undefined)[],
): boolean => sameJson([rules(one), rules(one.most)], [rules(other), rules(other.most)]);
