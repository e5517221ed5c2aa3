import type { Compiled } from '../../../access/deciding/compile';
import { madeOf, neededFor, shortPlanOf, type ShortPlan } from '../../../access/deciding/many/short-plan';
import type { PlanStep } from '../../../access/deciding/plan';
import type { Id } from '../../../model/id';
import type { AppElement, Tree } from '../../../model/tree';
import { Meanings } from './meaning';

/** What an element's answer is made of in one definition, by the numbers of steps: see `Access.rule` and `outerRule`. */
export interface AnswerSteps {
  readonly rule: number;
  readonly outer: number;
}

/** Elements that are decided in the same way in each definition: undefined where they are not in it. */
export interface TouchedElements {
  readonly was: AnswerSteps | undefined;
  readonly is: AnswerSteps | undefined;
}

/**
 * How a step was changed: some of its gate's lines mean something else, or all of it does: it follows on one side and
 * has lines of its own on the other, or it is no gate.
 */
type Changed = 'lines' | 'whole';

/** What of two plans has to be worked through to compare what their changes can reach. */
export interface AffectedPlans {
  readonly before: Compiled;
  readonly after: Compiled;
  readonly plans: { readonly old: ShortPlan; readonly now: ShortPlan };
  /** The elements that may be decided otherwise, in the order of the newer tree, then of the older one. */
  readonly elements: readonly { readonly id: Id; readonly of: TouchedElements }[];
  /** The different `of` among them. */
  readonly sorts: readonly TouchedElements[];
  /** The steps that these need, in order. */
  readonly old: readonly number[];
  readonly now: readonly number[];
  /** By a step of the newer plan, the same step of the older one; -1 where there is none. */
  readonly same: Int32Array;
  /** The steps of the newer plan whose own lines, or filter, mean something else in the older one. */
  readonly changed: ReadonlyMap<number, Changed>;
  /** Are some of these elements or steps only in one of the two? Then not only what is `changed` makes a difference. */
  readonly reshaped: boolean;
}

/**
 * What the changes between two definitions can reach. Both plans are lists of steps, each made of earlier ones: a step
 * is touched where its own lines or filter mean something else, where it is made otherwise, or where a step that it is
 * made of is touched. Everything else gives everybody the same as before, in all circumstances.
 */
export function touchedBetween(before: Compiled, after: Compiled): AffectedPlans {
  const plans = { old: planBeside(before, after), now: planBeside(after, before) };
  const same = sameSteps(before, after, plans);
  const changed = changedSteps(before, after, plans, same);
  const touched = new Uint8Array(plans.now.steps.length);
  plans.now.steps.forEach((step, n) => {
    const isTouched =
      (same[n] as number) < 0 || changed.has(n) || madeOf(plans.now, step).some((one) => touched[one] === 1);
    if (isTouched) touched[n] = 1;
  });
  const stays = (was: AnswerSteps, is: AnswerSteps): boolean =>
    same[is.rule] === was.rule && same[is.outer] === was.outer;
  const sorts = new Map<string, TouchedElements>();
  const elements = elementsOfBoth(before.tree, after.tree).flatMap(({ id, was: old, is: now }) => {
    const [was, is] = [old && answeringOf(plans.old, old), now && answeringOf(plans.now, now)];
    if (was && is && stays(was, is) && !touched[is.rule] && !touched[is.outer]) return [];
    const key = JSON.stringify([was, is]);
    const of = sorts.get(key) ?? { was, is };
    sorts.set(key, of);
    return [{ id, of }];
  });
  const all = [...sorts.values()];
  const needed = stepsFor(plans, all);
  const reshaped =
    all.some(({ was, is }) => !was || !is || !stays(was, is)) ||
    needed.now.some((step) => (same[step] as number) < 0);
  return { before, after, plans, elements, sorts: all, ...needed, same, changed, reshaped };
}

/** The same for some of the elements only. */
export const narrowed = (touched: AffectedPlans, some: readonly TouchedElements[]): AffectedPlans => ({
  ...touched,
  ...stepsFor(touched.plans, some),
});

function stepsFor(
  plans: AffectedPlans['plans'],
  some: readonly TouchedElements[],
): Pick<AffectedPlans, 'old' | 'now'> {
  const stepsOf = (one: AnswerSteps | undefined): number[] => (one ? [one.rule, one.outer] : []);
  return {
    old: neededFor(
      plans.old,
      some.flatMap(({ was }) => stepsOf(was)),
    ),
    now: neededFor(
      plans.now,
      some.flatMap(({ is }) => stepsOf(is)),
    ),
  };
}

/** The plan of a definition in short, but for gates that have lines of their own in one of the two only. */
const planBeside = (compiled: Compiled, other: Compiled): ShortPlan =>
  shortPlanOf(compiled, (number) => {
    const own = compiled.hasLines(number);
    const there = other.tree.get(compiled.tree.elements[number]?.id ?? '');
    return there && other.hasLines(there.number) !== own ? undefined : own;
  });

const answeringOf = ({ rules, outers }: ShortPlan, { number }: AppElement): AnswerSteps => ({
  rule: rules[number] as number,
  outer: outers[number] as number,
});

const elementsOfBoth = (
  before: Tree,
  after: Tree,
): { readonly id: Id; readonly was: AppElement | undefined; readonly is: AppElement | undefined }[] => [
  ...after.elements.map((is) => ({ id: is.id, was: before.get(is.id), is })),
  ...before.elements.flatMap((was) => (after.get(was.id) ? [] : [{ id: was.id, was, is: undefined }])),
];

/** By a step of the newer plan, the one that is made in the same way, of the same elements, whatever their lines say. */
function sameSteps(before: Compiled, after: Compiled, { old, now }: AffectedPlans['plans']): Int32Array {
  const numbers = new Map<string, number>();
  const shapesOf = (compiled: Compiled, plan: ShortPlan): number[] => {
    const found: number[] = [];
    for (const step of plan.steps) {
      const made = madeOf(plan, step).map((one) => found[one]);
      const shape = `${step.op} ${made.join(' ')} ${about(compiled, step)} ${step.inNoUnit ?? ''}`;
      const number = numbers.get(shape) ?? numbers.size;
      numbers.set(shape, number);
      found.push(number);
    }
    return found;
  };
  const places = new Map(shapesOf(before, old).map((shape, n) => [shape, n]));
  return Int32Array.from(shapesOf(after, now), (shape) => places.get(shape) ?? -1);
}

/** What a step is about beside other steps: a level, an element, a list. */
function about({ plan, tree }: Compiled, { op, a, b }: PlanStep): string {
  if (op === 'always') return String(a);
  if (op === 'gate') return tree.elements[b]?.id ?? '';
  return op === 'carried' ? (plan.lists[a]?.id ?? '') : '';
}

function changedSteps(
  before: Compiled,
  after: Compiled,
  { old, now }: AffectedPlans['plans'],
  same: Int32Array,
): Map<number, Changed> {
  const changed = new Map<number, Changed>();
  const [was, is] = [new Meanings(before), new Meanings(after)];
  now.steps.forEach(({ op, a, b }, n) => {
    const partner = old.steps[same[n] as number];
    if (!partner) return;
    if (op === 'gate') {
      const [one, other] = [before.tree.elements[partner.b], after.tree.elements[b]];
      const how = one && other && changeOf(was.gate(one), is.gate(other));
      if (how) changed.set(n, how);
    } else if (op === 'carried') {
      const [one, other] = [before.plan.lists[partner.a], after.plan.lists[a]];
      if (one && other && was.filter(one) !== is.filter(other)) changed.set(n, 'whole');
    }
  });
  return changed;
}

/** How one gate's lines differ from the other's, by what they mean; undefined where they do not. */
function changeOf(
  was: ReadonlySet<string> | undefined,
  is: ReadonlySet<string> | undefined,
): Changed | undefined {
  if (!was && !is) return undefined;
  if (!was || !is) return 'whole';
  return was.size === is.size && [...was].every((text) => is.has(text)) ? undefined : 'lines';
}
