import type { RecordFacts } from '../condition/atom';
import { all, holds, type Formula } from '../condition/formula';
import { tell, type Told } from '../condition/tell';
import type { Screen } from '../model/definition';
import { gives, type Line } from '../model/gate';
import type { Id } from '../model/id';
import { isDataDoor, type Element } from '../model/tree';
import type { Access } from './access';
import { EDIT, NONE, SEE, type Answer, type Level } from './level';
import { answerOf, levelOn, mostOf, type Rule } from './rule';

/** A line that would count, and what it is that keeps it from counting. */
export interface Nearly {
  readonly line: Line;
  readonly since: readonly Since[];
}

/** Why a line does not count. */
export type Since =
  /** Its condition: each question with its answer. */
  | { readonly is: 'when'; readonly told: readonly Told[] }
  /** Its group: the same of what it takes to be in it. */
  | { readonly is: 'group'; readonly told: readonly Told[] }
  /** The role is held for records of other units only. */
  | { readonly is: 'unit' }
  /** The role is held, but not at this moment. */
  | { readonly is: 'period'; readonly from?: string | undefined; readonly until?: string | undefined };

/** One step on the way from the application down to the element. */
export interface Step {
  readonly element: Id;
  /** Does it follow its container (a door of data: the screens), or have lines of its own? */
  readonly gate: 'follows' | 'own';
  /** The lines that count for this viewer; where no record is known, those that may. */
  readonly lines: readonly Line[];
  /** Lines that speak of the viewer, and would count but for their condition, unit or period. */
  readonly nearly: readonly Nearly[];
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
 * Why the viewer has this level on this element: the steps, and what decided. With a record, for that
 * record. The levels are those of `Access`, which decides; here they are only told.
 */
export function explain(access: Access, id: Id, record?: RecordFacts): Explanation {
  const element = access.element(id);
  const tell = (rule: Rule, here: boolean): Answer => {
    if (!record) return answerOf(rule);
    const level = levelOn(here ? rule : mostOf(rule), record);
    return { least: level, most: level };
  };
  const steps: Step[] = [];
  for (const [one, { rule, here }] of partsOf(access, element)) {
    const own = access.compiled.lines(one.id);
    const on = here ? record : undefined;
    const lines = (own ?? []).filter((line) => holdsOn(counting(access, one, line), on));
    const nearly = (own ?? [])
      .filter((line) => !lines.includes(line))
      .flatMap((line) => nearlyCounts(access, one, line, on) ?? []);
    steps.push({
      element: one.id,
      gate: own ? 'own' : 'follows',
      lines,
      nearly,
      result: tell(rule, here),
    });
  }
  const level = record && access.level(element, record);
  const answer = level === undefined ? access.answer(element) : { least: level, most: level };
  return { answer, steps, decided: decide(access, steps, answer) };
}

/** What it takes for the line to count: one that gives must surely match, one that takes away may not surely not. */
function counting(access: Access, element: Element, line: Line): Formula {
  const { held, compiled } = access;
  const [who, when] = [held.isSpokenOf(line.who), held.isWhen(line, compiled.scope(element))];
  if (gives(line)) return all(who('be true'), when('be true'));
  return all(who('not be false'), when('not be false'));
}

/** What keeps a line that speaks of the viewer from counting; undefined for one that does not speak of them. */
function nearlyCounts(
  access: Access,
  element: Element,
  line: Line,
  record: RecordFacts | undefined,
): Nearly | undefined {
  const { held, compiled } = access;
  const who = held.isSpokenOf(line.who)('not be false');
  const since: Since[] = [];
  if (who === false) {
    const period = held.periodOf(line.who);
    if (line.who.kind === 'group' && held.facts.user) {
      const asked = { inGroup: line.who.group };
      const told = tell(held.facts, { definition: compiled.definition }, asked, undefined);
      since.push({ is: 'group', told });
    } else if (period) since.push({ is: 'period', from: period.from, until: period.until });
    else return undefined;
  } else if (!holdsOn(who, record)) since.push({ is: 'unit' });
  if (
    line.when &&
    !holdsOn(held.isWhen(line, compiled.scope(element))(gives(line) ? 'be true' : 'not be false'), record)
  )
    since.push({ is: 'when', told: tell(held.facts, compiled.scope(element), line.when, record) });
  return { line, since };
}

const holdsOn = (formula: Formula, record: RecordFacts | undefined): boolean =>
  record ? holds(formula, record) : formula !== false;

/** From the application down to the element; doors of data are told apart from it. */
function pathTo(element: Element): Element[] {
  const above = element.container ? pathTo(element.container) : [];
  return isDataDoor(element) ? above : [...above, element];
}

/** One of the rules that an element's rule is made of. */
interface Part {
  readonly rule: Rule;
  /** Is it decided on the record at hand? Else on one that is not known here, or on none. */
  readonly here: boolean;
}

/**
 * What the element's rule is made of, widest first: the gates from the application down, then its doors.
 * The lowest of all of them is the answer.
 */
function partsOf(access: Access, element: Element): Map<Element, Part> {
  const { tree, handles } = access.compiled;
  const doorId = isDataDoor(element) ? element.id : handles.doorOf(element)?.id;
  const door = doorId === undefined ? undefined : access.element(doorId);
  const parts = new Map<Element, Part>();
  const put = (one: Element, rule: Rule, here = true): void => {
    // What is decided on the record at hand is told, where the same gate counts twice.
    if (here || !parts.has(one)) parts.set(one, { rule, here });
  };
  const putRows = (screen: Screen | undefined): void => {
    if (screen?.binds?.record !== 'existing') return;
    const rows = access.element(screen.binds.entity);
    put(rows, access.rule(rows));
  };
  // What a list's containers ask of is the record of its screen.
  const inList = access.outerRule(element) !== undefined;
  for (const one of pathTo(element))
    put(one, access.gateRule(one), !inList || access.outerRule(one) !== undefined);
  // A list and what is in it are about the row's record; all else is there only where its screen opens.
  if (element.kind !== 'list' && !element.list) putRows(element.screen);
  if (door?.kind === 'screen') {
    const makes = door.node.binds?.record === 'new';
    for (const one of pathTo(door)) put(one, access.gateRule(one), !makes);
    putRows(door.node);
  }
  const entity = door && isDataDoor(door) ? tree.entityOf(door.id) : undefined;
  if (!door || !entity) return parts;
  const record = element.kind === 'field' && element.screen?.binds?.record === 'new' ? 'new' : 'existing';
  const rows = access.element(entity.id);
  const making = door.kind === 'action' && door.node.kind === 'create';
  const within = [door, rows].some((one) => access.compiled.lines(one.id));
  if (record === 'existing' && (!making || within)) put(rows, access.rule(rows));
  if (door.kind === 'data-field') {
    // Where the record cannot be written, its fields are for reading.
    const save = access.element(tree.action(entity, record === 'new' ? 'create' : 'update').id);
    put(save, { see: true, edit: access.rule(save).edit });
    put(door, access.doors.field(door.id, record));
  } else put(door, access.rule(door));
  return parts;
}

/**
 * For a full answer, the nearest gate with lines of its own gave it. For a lower one, the first step
 * whose most is as low took the rest away; where only the least is lower, the first that depends.
 */
function decide(access: Access, steps: readonly Step[], answer: Answer): Decided {
  const full = answer.least === EDIT;
  const low = steps.find(({ result }) =>
    answer.most < EDIT ? result.most <= answer.most : result.least <= answer.least,
  );
  const step = (full ? steps.findLast((one) => one.gate === 'own') : low) ?? (steps.at(-1) as Step);
  if (step.gate === 'own') return byLines(step, full);
  const door = access.element(step.element);
  const holding = access.compiled.handles
    .handlesOf(door)
    .filter((id) => access.gateRule(access.element(id)).see !== false);
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
