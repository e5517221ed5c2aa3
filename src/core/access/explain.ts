import { gives, type Line } from '../model/gate';
import type { Id } from '../model/id';
import { isDataDoor, type Element } from '../model/tree';
import type { Values } from '../model/value';
import type { Access } from './access';
import { compile } from './compile';
import { EDIT, NONE, SEE, type Answer, type Level } from './level';
import { ALWAYS, answerOf, levelOn, type Rule } from './rule';
import { isSpokenOf, type Viewer } from './viewer';
import type { Definition, Screen } from '../model/definition';

/** One step on the way from the application down to the element. */
export interface Step {
  readonly element: Id;
  /** Does it follow its container (a door of data: the screens), or have lines of its own? */
  readonly gate: 'follows' | 'own';
  /** The lines that speak of this viewer. */
  readonly lines: readonly Line[];
  /** What is left after this step. */
  readonly result: Answer;
}

/** What the answer comes from. */
export type Decided =
  /** A line gave it, capped it or took it away. */
  | { readonly by: 'line'; readonly gate: Id; readonly line: Line }
  /** A gate with lines of its own speaks of this viewer in none of them. */
  | { readonly by: 'no-line'; readonly gate: Id }
  /** A door that follows the screens, and no screen (or none on a screen that saves) holds it open. */
  | { readonly by: 'no-handle'; readonly door: Id }
  /** A door that follows the screens: these handles hold it open. */
  | { readonly by: 'handles'; readonly door: Id; readonly handles: readonly Id[] };

export interface Explanation {
  readonly answer: Answer;
  /** Containers first, then the element, then its doors. */
  readonly steps: readonly Step[];
  readonly decided: Decided;
}

/**
 * Why this viewer has this level on this element: the steps, and what decided. With a record, for that
 * record. The levels are those of `Access`, which decides; here they are only told.
 */
export function explain(definition: Definition, viewer: Viewer, id: Id, record?: Values): Explanation {
  const access = compile(definition).access(viewer);
  const element = access.element(id);
  const tell = (rule: Rule): Answer => {
    if (!record) return answerOf(rule);
    const level = levelOn(rule, record);
    return { least: level, most: level };
  };
  const steps: Step[] = [];
  const put = (one: Element, result: Answer): void => {
    const own = access.compiled.lines(one.id);
    const lines = (own ?? []).filter((line) => {
      const spoken = isSpokenOf(definition, viewer, line.who);
      return gives(line) ? spoken === true : spoken !== false;
    });
    steps.push({ element: one.id, gate: own ? 'own' : 'follows', lines, result });
  };
  for (const [one, rule] of partsOf(access, element)) put(one, tell(rule));
  const answer = tell(access.rule(element));
  return { answer, steps, decided: decide(access, steps, answer) };
}

/** From the application down to the element; doors of data are told apart from it. */
function pathTo(element: Element): Element[] {
  const above = element.container ? pathTo(element.container) : [];
  return isDataDoor(element) ? above : [...above, element];
}

/**
 * What the element's rule is made of, widest first: the gates from the application down, then its doors.
 * The lowest of all of them is the answer.
 */
function partsOf(access: Access, element: Element): Map<Element, Rule> {
  const { tree, handles } = access.compiled;
  const doorId = isDataDoor(element) ? element.id : handles.doorOf(element)?.id;
  const door = doorId === undefined ? undefined : access.element(doorId);
  const parts = new Map<Element, Rule>();
  const putGates = (of: Element): void => {
    for (const one of pathTo(of)) parts.set(one, ALWAYS[access.gateResult(one)]);
  };
  const putRows = (screen: Screen | undefined): void => {
    if (screen?.binds?.record !== 'existing') return;
    const rows = access.element(screen.binds.entity);
    parts.set(rows, access.rule(rows));
  };
  putGates(element);
  // A list and what is in it are about the row's record; all else is there only where its screen opens.
  if (element.kind !== 'list' && !element.list) putRows(element.screen);
  if (door?.kind === 'screen') {
    putGates(door);
    putRows(door.node);
  }
  const entity = door && isDataDoor(door) ? tree.entityOf(door.id) : undefined;
  if (!door || !entity) return parts;
  const record = element.kind === 'field' && element.screen?.binds?.record === 'new' ? 'new' : 'existing';
  const rows = access.element(entity.id);
  if (record === 'existing') parts.set(rows, access.rule(rows));
  if (door.kind === 'data-field') {
    // Where the record cannot be written, its fields are for reading.
    const save = access.element(tree.action(entity, record === 'new' ? 'create' : 'update').id);
    parts.set(save, { see: true, edit: access.rule(save).edit });
    parts.set(door, access.doors.field(door.id, record));
  } else parts.set(door, access.rule(door));
  return parts;
}

/**
 * For a full answer, the nearest gate with lines of its own gave it. For a lower one, the first step
 * whose most is as low took the rest away; where only the least is lower, the first that depends.
 */
function decide(access: Access, steps: readonly Step[], answer: Answer): Decided {
  const full = answer.least === EDIT;
  const step = full
    ? steps.findLast((one) => one.gate === 'own')
    : steps.find(({ result }) =>
        answer.most < EDIT ? result.most <= answer.most : result.least <= answer.least,
      );
  if (!step) throw new Error('A step is always as low as the answer');
  if (step.gate === 'own') return byLines(step, full);
  const door = access.element(step.element);
  const holding = access.compiled.handles
    .handlesOf(door)
    .filter((id) => access.gateResult(access.element(id)) > NONE);
  return step.result.most > NONE && holding.length > 0
    ? { by: 'handles', door: door.id, handles: holding }
    : { by: 'no-handle', door: door.id };
}

const WEIGHT: Readonly<Record<Line['what'], Level>> = {
  edit: EDIT,
  see: SEE,
  'at-most-see': SEE,
  block: NONE,
};

/**
 * Of the lines that speak of the viewer, the one that the gate's own answer comes from. For a full answer
 * that is the giving one: what leads somewhere may be capped at see, and see counts as edit there.
 */
function byLines({ element: gate, lines }: Step, full: boolean): Decided {
  const given = lines.filter(gives).sort((a, b) => WEIGHT[b.what] - WEIGHT[a.what])[0];
  const taken = lines.filter((line) => !gives(line)).sort((a, b) => WEIGHT[a.what] - WEIGHT[b.what])[0];
  if (taken && (!given || (!full && WEIGHT[taken.what] < WEIGHT[given.what])))
    return { by: 'line', gate, line: taken };
  return given ? { by: 'line', gate, line: given } : { by: 'no-line', gate };
}
