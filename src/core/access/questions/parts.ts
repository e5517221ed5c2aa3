import { isDataDoor, leadsOrReads, type AppElement } from '../../model/tree';
import type { Access } from '../deciding/access';
import type { Rule } from '../deciding/rule';

/** One of the rules that an element's rule is made of. */
export interface Part {
  readonly rule: Rule;
  /** Is it decided on the record at hand? Else on one that is not known here, or on none. */
  readonly here: boolean;
  /** Does only its edit count, so that giving see is giving nothing? */
  readonly editOnly: boolean;
  /** Does its see count as edit, so that more than see makes no difference? */
  readonly seeSuffices: boolean;
  /** Is it decided for data without a field for the unit? */
  readonly inNoUnit: boolean;
}

/** How the walk came to a step. */
type StepOrigin = Omit<Part, 'rule' | 'inNoUnit'>;

/**
 * What the element's rule is made of, widest first: the gates from the application down, then its doors. They are
 * read from the plan, by which it is decided (plan.ts): the lowest of all of them is the answer.
 */
export function partsOf(access: Access, element: AppElement): Map<AppElement, Part> {
  const { compiled } = access;
  const { plan, tree } = compiled;
  const parts = new Map<AppElement, Part>();
  const gated = (step: number): AppElement => tree.elements[plan.steps[step]?.b ?? 0] as AppElement;
  // Doors of data that follow the screens, and were met only as what contains others: they narrow nothing as that.
  const passed = new Set<AppElement>();
  const put = (one: AppElement, step: number, way: StepOrigin): void => {
    const known = passed.delete(one) ? undefined : parts.get(one);
    // Where the same gate counts twice, the first is told; but for one that is decided on the record at hand.
    if (known && (known.here || !way.here)) return;
    const own = compiled.lines(one.id) !== undefined;
    // An action is told with the rows of its records, unless it is told for its own lines alone.
    const rule = one.kind === 'action' && !(way.editOnly && own) ? access.rule(one) : access.ruleAt(step);
    const inNoUnit = plan.steps[step]?.inNoUnit ?? false;
    parts.set(one, { ...way, inNoUnit, rule: way.editOnly ? { see: true, edit: rule.edit } : rule });
  };
  const walk = (step: number, way: StepOrigin): void => {
    const { op, a, b } = plan.steps[step] as (typeof plan.steps)[number];
    switch (op) {
      case 'gate': {
        walk(a, way);
        const one = gated(step);
        if (!isDataDoor(one) || compiled.lines(one.id)) return put(one, step, way);
        if (parts.has(one)) return;
        put(one, step, way);
        passed.add(one);
        return;
      }
      case 'lower':
        walk(a, way);
        return walk(b, way);
      case 'edit-if':
        walk(a, way);
        // Where the record cannot be written, its fields are for reading, which is all that a column is for.
        return element.kind === 'column' ? undefined : walk(b, { ...way, editOnly: true });
      case 'see-as-edit':
        return walk(a, { ...way, seeSuffices: true });
      case 'constant':
      case 'most':
      case 'without-record':
        return walk(a, { ...way, here: false });
      case 'if-own':
        return compiled.lines(gated(a).id) ? walk(b, way) : undefined;
      case 'unless-followed': {
        const door = gated(a);
        if (compiled.lines(door.id)) return walk(a, way);
        return put(door, b, way);
      }
      case 'always':
      case 'carried':
      case 'higher':
      case 'least':
      case 'asking':
        // A level that is always so; or what screens give together, which is told as the door's own.
        return undefined;
    }
  };
  // All is within the application, also what follows the screens.
  if (isDataDoor(element)) {
    const rows = element.kind === 'rows' && compiled.lines(element.id) === undefined;
    const seeSuffices = rows || leadsOrReads(tree, element);
    walk(plan.gates[tree.root.number] as number, { ...FIRST, seeSuffices });
  }
  walk(plan.rules[element.number] as number, FIRST);
  return parts;
}

const FIRST: StepOrigin = { here: true, editOnly: false, seeSuffices: false };
