import type { Compiled } from '../../../access/deciding/compile';
import { EDIT } from '../../../access/deciding/level';
import type { PlanStep } from '../../../access/deciding/plan';
import type { Line } from '../../../model/gate';
import type { Id } from '../../../model/id';
import type { AppElement } from '../../../model/tree';
import { Meanings } from './meaning';

/** An element of either definition: undefined where it is not there. */
export interface TouchedElement {
  readonly id: Id;
  readonly was: AppElement | undefined;
  readonly is: AppElement | undefined;
}

/** The lines of a gate that stand, as they are meant, on one side only; all of them where it follows on the other. */
interface Changed {
  readonly old: ReadonlySet<Line>;
  readonly now: ReadonlySet<Line>;
  /** It follows on one side and has lines of its own on the other, or it is no gate. */
  readonly whole: boolean;
}

/** What of two plans has to be worked through to compare what their changes can reach. */
export interface Touched {
  readonly before: Compiled;
  readonly after: Compiled;
  /** The elements that may be decided otherwise, in the order of the newer tree, then of the older one. */
  readonly elements: readonly TouchedElement[];
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
export function touchedBetween(before: Compiled, after: Compiled): Touched {
  const { same, first } = sameSteps(before, after);
  const [was, is] = [new Meanings(before), new Meanings(after)];
  const { plan, tree } = after;
  const changed = new Map<number, Changed>();
  const touched = new Uint8Array(plan.steps.length);
  plan.steps.forEach((step, n) => {
    const partner = same[n] as number;
    if (partner < 0) touched[n] = 1;
    else if (step.op === 'gate') {
      const element = tree.elements[step.b] as AppElement;
      const old = before.tree.get(element.id) as AppElement;
      const differing = linesThatDiffer(was.gate(old), is.gate(element));
      if (differing) changed.set(n, differing);
    } else if (step.op === 'carried') {
      const [one, other] = [before.plan.lists[before.plan.steps[partner]?.a ?? -1], plan.lists[step.a]];
      if (one && other && was.filter(one) !== is.filter(other)) changed.set(n, WHOLE);
    }
    if (changed.has(n) || madeOf(after, step).some((one) => touched[one] === 1)) touched[n] = 1;
  });
  const isTouched = ({ number }: AppElement): boolean =>
    [plan.rules, plan.outers].some((steps) => touched[steps[number] as number] === 1);
  const stays = (one: AppElement, other: AppElement): boolean =>
    [
      [before.plan.rules, plan.rules],
      [before.plan.outers, plan.outers],
    ].every(([old, now]) => same[now?.[other.number] as number] === first[old?.[one.number] as number]);
  const elements = [
    ...tree.elements.flatMap((one): TouchedElement[] => {
      const old = before.tree.get(one.id);
      return old && stays(old, one) && !isTouched(one) ? [] : [{ id: one.id, was: old, is: one }];
    }),
    ...before.tree.elements.flatMap((one): TouchedElement[] =>
      tree.get(one.id) ? [] : [{ id: one.id, was: one, is: undefined }],
    ),
  ];
  const reshaped = elements.some(({ was: one, is: other }) => !one || !other || !stays(one, other));
  const found = narrowed({ before, after, elements, same, changed, reshaped, old: [], now: [] }, elements);
  return { ...found, reshaped: reshaped || found.now.some((n) => (same[n] as number) < 0) };
}

/** The same for some of the elements only. */
export function narrowed(touched: Touched, elements: readonly TouchedElement[]): Touched {
  const { before, after } = touched;
  const [was, is] = (['was', 'is'] as const).map((side) => elements.flatMap((one) => one[side] ?? []));
  return { ...touched, elements, old: needed(before, was ?? []), now: needed(after, is ?? []) };
}

const WHOLE: Changed = { old: new Set(), now: new Set(), whole: true };

/** The lines that one gate has and the other has not, by what they mean; undefined where there are none. */
function linesThatDiffer(
  was: ReadonlyMap<string, Line> | undefined,
  is: ReadonlyMap<string, Line> | undefined,
): Changed | undefined {
  if (!was && !is) return undefined;
  if (!was || !is) return WHOLE;
  const [old, now] = [
    [was, is],
    [is, was],
  ].map(
    ([one, other]) => new Set([...(one ?? [])].flatMap(([text, line]) => (other?.has(text) ? [] : [line]))),
  );
  return old && now && old.size + now.size > 0 ? { old, now, whole: false } : undefined;
}

/** The steps that a step is made of. */
export function madeOf({ plan }: Compiled, { op, a, b }: PlanStep): readonly number[] {
  switch (op) {
    case 'always':
    case 'carried':
      return [];
    case 'lower':
    case 'edit-if':
    case 'if-own':
    case 'unless-followed':
      return [a, b];
    case 'higher':
      return plan.many.slice(a, b);
    default:
      return [a];
  }
}

/** All steps that the elements' rules are made of, in order. */
function needed(compiled: Compiled, elements: readonly AppElement[]): number[] {
  const { steps, rules, outers } = compiled.plan;
  const need = new Uint8Array(steps.length);
  for (const { number } of elements) {
    need[rules[number] as number] = 1;
    need[outers[number] as number] = 1;
  }
  // Each is made of earlier ones.
  for (let n = steps.length - 1; n >= 0; n--)
    if (need[n] === 1) for (const one of madeOf(compiled, steps[n] as PlanStep)) need[one] = 1;
  const found: number[] = [];
  for (let n = 0; n < need.length; n++) if (need[n] === 1 || n <= EDIT) found.push(n);
  return found;
}

/**
 * Which steps are made in the same way, of the same elements, whatever their lines say. Of several in one plan that are
 * the same, the `first` stands for all.
 */
function sameSteps(
  before: Compiled,
  after: Compiled,
): { readonly same: Int32Array; readonly first: Int32Array } {
  const same = new Int32Array(after.plan.steps.length).fill(-1);
  const first = Int32Array.from(before.plan.steps, (_, n) => n);
  if (before.plan === after.plan) return { same: first, first };
  const numbers = new Map<string, number>();
  const shapes = (compiled: Compiled): number[] => {
    const found: number[] = [];
    for (const step of compiled.plan.steps) {
      const shape = `${step.op} ${madeOf(compiled, step)
        .map((one) => found[one])
        .join(' ')} ${about(compiled, step)}`;
      const number = numbers.get(shape) ?? numbers.size;
      numbers.set(shape, number);
      found.push(number);
    }
    return found;
  };
  const old = new Map<number, number>();
  shapes(before).forEach((shape, n) => {
    if (!old.has(shape)) old.set(shape, n);
    first[n] = old.get(shape) as number;
  });
  shapes(after).forEach((shape, n) => (same[n] = old.get(shape) ?? -1));
  return { same, first };
}

/** What a step is about beside other steps: a level, an element, a list. */
function about({ plan, tree }: Compiled, { op, a, b }: PlanStep): string {
  if (op === 'always') return String(a);
  if (op === 'gate') return tree.elements[b]?.id ?? '';
  return op === 'carried' ? (plan.lists[a]?.id ?? '') : '';
}
