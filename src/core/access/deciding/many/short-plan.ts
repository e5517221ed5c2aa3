import type { Compiled } from '../compile';
import { EDIT, NONE, SEE } from '../level';
import type { PlanStep } from '../plan';

/** A plan in short. Element and list numbers are those of the definition. */
export interface ShortPlan {
  readonly steps: readonly PlanStep[];
  /** As in `Plan`. */
  readonly many: readonly number[];
  readonly rules: readonly number[];
  readonly outers: readonly number[];
}

/**
 * The plan of one definition without what is decided by which gates have lines of their own: what follows takes the
 * step of its container, and steps that are made in the same way of the same are one. Most elements share theirs then.
 *
 * @param isOwn has the element with this number lines of its own? Where undefined, either may be so.
 */
export function shortPlanOf({ plan }: Compiled, isOwn: (element: number) => boolean | undefined): ShortPlan {
  const steps: PlanStep[] = [];
  const many: number[] = [];
  const places = new Map<string, number>();
  /** By a step of the whole plan. */
  const short: number[] = [];
  const at = (step: number): number => short[step] as number;
  const add = (op: PlanStep['op'], a: number, b = 0, inNoUnit?: true): number => {
    const key = `${op} ${a} ${b} ${inNoUnit ?? ''}`;
    let place = places.get(key);
    if (place === undefined)
      places.set(key, (place = steps.push({ op, a, b, ...(inNoUnit && { inNoUnit }) }) - 1));
    return place;
  };
  const higher = (of: readonly number[]): number => {
    const some = [...new Set(of)].filter((step) => step !== NONE);
    if (some.includes(EDIT)) return EDIT;
    if (some.length < 2) return some[0] ?? NONE;
    const key = `higher ${some.join(' ')}`;
    let place = places.get(key);
    if (place === undefined) {
      const from = many.length;
      many.push(...some);
      place = steps.push({ op: 'higher', a: from, b: many.length }) - 1;
      places.set(key, place);
    }
    return place;
  };
  const lower = (a: number, b: number): number => {
    if (a === NONE || b === NONE) return NONE;
    if (a === EDIT || a === b) return b;
    return b === EDIT ? a : add('lower', a, b);
  };
  const shortened = ({ op, a, b, inNoUnit }: PlanStep): number => {
    switch (op) {
      case 'always':
        return add(op, a);
      case 'carried':
        return plan.lists[a]?.filter ? add(op, a, 0, inNoUnit) : EDIT;
      case 'gate':
        return isOwn(b) === false ? at(a) : add(op, at(a), b, inNoUnit);
      case 'higher':
        return higher(plan.many.slice(a, b).map(at));
      case 'lower':
        return lower(at(a), at(b));
      case 'edit-if':
        return at(b) === EDIT ? at(a) : add(op, at(a), at(b));
      case 'if-own':
      case 'unless-followed': {
        const own = isOwn(plan.steps[a]?.b ?? -1);
        if (own === undefined) return add(op, at(a), at(b));
        if (op === 'if-own') return own ? at(b) : EDIT;
        return at(own ? a : b);
      }
      case 'see-as-edit':
        return at(a) > EDIT ? add(op, at(a)) : at(a) === SEE ? EDIT : at(a);
      case 'asking':
        return at(a) > EDIT ? add(op, at(a)) : EDIT;
      case 'constant':
      case 'least':
      case 'most':
      case 'without-record':
        return at(a) > EDIT ? add(op, at(a)) : at(a);
    }
  };
  for (const step of plan.steps) short.push(shortened(step));
  return { steps, many, rules: plan.rules.map(at), outers: plan.outers.map(at) };
}

/** The steps that a step is made of. */
export function madeOf({ many }: Pick<ShortPlan, 'many'>, { op, a, b }: PlanStep): readonly number[] {
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
      return many.slice(a, b);
    case 'asking':
    case 'constant':
    case 'gate':
    case 'least':
    case 'most':
    case 'see-as-edit':
    case 'without-record':
      return [a];
  }
}

/** These steps with all that they are made of, and the levels, in order. */
export function neededFor(plan: ShortPlan, wanted: Iterable<number>): number[] {
  const need = new Uint8Array(plan.steps.length).fill(1, 0, EDIT + 1);
  for (const step of wanted) need[step] = 1;
  // Each is made of earlier ones.
  for (let n = need.length - 1; n > EDIT; n--)
    if (need[n] === 1) for (const one of madeOf(plan, plan.steps[n] as PlanStep)) need[one] = 1;
  return [...need.keys()].filter((n) => need[n] === 1);
}
