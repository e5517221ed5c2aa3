import type { RecordFacts } from '../../condition/atom';
import { holds, type Formula } from '../../condition/formula';
import { tell, type Told } from '../../condition/tell';
import type { Screen } from '../../model/definition';
import { gives, type Line } from '../../model/gate';
import type { Id } from '../../model/id';
import { isDataDoor, type AppElement } from '../../model/tree';
import type { Access } from '../deciding/access';
import { EDIT, NONE, sameAnswer, SEE, seenOf, type Answer, type Level } from '../deciding/level';
import { answerOf, levelOn, mostOf, type Rule } from '../deciding/rule';

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
interface Reason {
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
  /** A line gave it, capped it or took it away; `told` is its condition, with the values that made it so. */
  | { readonly by: 'line'; readonly gate: Id; readonly line: Line; readonly told?: readonly Told[] }
  /** A gate with lines of its own speaks of this viewer in none of them. */
  | { readonly by: 'no-line'; readonly gate: Id }
  /** A door that follows the screens, and no screen (or none on a screen that saves) holds it open. */
  | { readonly by: 'no-handle'; readonly door: Id }
  /** A door that follows the screens: these handles hold it open. */
  | { readonly by: 'handles'; readonly door: Id; readonly handles: readonly Id[] };

export interface Explanation {
  readonly answer: Answer;
  /** Containers first, then the element, then its doors. */
  readonly steps: readonly Reason[];
  readonly decided: Decided;
}

/**
 * Why the viewer has this level on this element: the steps, and what decided. With a record, for that
 * record. The levels are those of `Access`, which decides; here they are only told. Where the answer depends, what
 * decided is what leaves it at its most; `of: 'least'` asks what keeps the least from being more.
 *
 * @example
 * const { decided } = explain(accessOf(compile(LARKFIELD), viewerOfRole('lender'), at), 's_stores');
 * decided // → { by: 'no-line', gate: 's_stores' }
 */
export function explain(
  access: Access,
  id: Id,
  record?: RecordFacts,
  of: 'most' | 'least' = 'most',
): Explanation {
  const element = access.element(id);
  const answerBy = ({ rule, here }: Part): Answer => {
    if (!record) return answerOf(rule);
    const level = levelOn(here ? rule : mostOf(rule), record);
    return { least: level, most: level };
  };
  const steps: Reason[] = [];
  const parts = partsOf(access, element);
  // Of a kind of viewer: the same once more, with what is not known of it speaking for it.
  const mostly = access.most === access ? parts : partsOf(access.most, element);
  for (const [one, part] of parts) {
    const own = access.compiled.lines(one.id);
    const on = part.here ? record : undefined;
    const lines = (own ?? []).filter((line) => isCounting(access, one, line, on));
    const nearly = (own ?? [])
      .filter((line) => !lines.includes(line))
      .flatMap((line) => nearlyCounts(access, one, line, on) ?? []);
    steps.push({
      element: one.id,
      gate: own ? 'own' : 'follows',
      lines,
      nearly,
      result: { least: answerBy(part).least, most: answerBy(mostly.get(one) ?? part).most },
    });
  }
  const answer = record ? access.answerOn(element, record) : access.answer(element);
  const decided = decide(access, { element, steps, parts, record, answer, of });
  if (decided.by !== 'line' || !decided.line.when) return { answer, steps, decided };
  const at = access.element(decided.gate);
  const on = parts.get(at)?.here ? record : undefined;
  const told = tell(access.held.facts, access.compiled.scope(at), decided.line.when, on);
  return { answer, steps, decided: { ...decided, told } };
}

/**
 * Does the line count? One that gives must surely match, one that takes away may not surely not; for a kind of
 * viewer or where no record is known, one that may for some of them does.
 */
const isCounting = (
  access: Access,
  element: AppElement,
  line: Line,
  record: RecordFacts | undefined,
): boolean => matches(gives(line) ? access.most : access, element, line, record, 'perhaps');

/** Does it surely, or perhaps for some record, by what is known in this access? */
function matches(
  { held, compiled }: Access,
  element: AppElement,
  line: Line,
  record: RecordFacts | undefined,
  how: 'surely' | 'perhaps',
): boolean {
  const is = held.matches(line, compiled.scope(element));
  const sure = how === 'surely';
  if (gives(line)) return record ? holds(is, record) : sure ? is === true : is !== false;
  return record ? !holds(is, record) : sure ? is === false : is !== true;
}

/** What keeps a line that speaks of the viewer from counting; undefined for one that does not speak of them. */
function nearlyCounts(
  access: Access,
  element: AppElement,
  line: Line,
  record: RecordFacts | undefined,
): Nearly | undefined {
  const { held, compiled } = access;
  const speaks = held.isSpokenOf(line.who);
  const since: Since[] = [];
  if (speaks('be false') === true) {
    const period = held.periodOf(line.who);
    if (line.who.kind === 'group' && held.facts.signedIn) {
      const asked = { inGroup: line.who.group };
      const told = tell(held.facts, { definition: compiled.definition }, asked, undefined);
      since.push({ is: 'group', told });
    } else if (period) since.push({ is: 'period', from: period.from, until: period.until });
    else return undefined;
  } else if (!holdsOn(speaks('not be false'), record)) since.push({ is: 'unit' });
  const when = held.isWhen(line, compiled.scope(element));
  if (line.when && !holdsOn(when(gives(line) ? 'be true' : 'not be false'), record))
    since.push({ is: 'when', told: tell(held.facts, compiled.scope(element), line.when, record) });
  return { line, since };
}

const holdsOn = (formula: Formula, record: RecordFacts | undefined): boolean =>
  record ? holds(formula, record) : formula !== false;

/** From the application down to the element; doors of data are told apart from it. */
function pathTo(element: AppElement): AppElement[] {
  const above = element.container ? pathTo(element.container) : [];
  return isDataDoor(element) ? above : [...above, element];
}

/** One of the rules that an element's rule is made of. */
interface Part {
  readonly rule: Rule;
  /** Is it decided on the record at hand? Else on one that is not known here, or on none. */
  readonly here: boolean;
  /** Does only its edit count, so that giving see is giving nothing? */
  readonly editOnly?: boolean;
}

/**
 * What the element's rule is made of, widest first: the gates from the application down, then its doors.
 * The lowest of all of them is the answer.
 */
function partsOf(access: Access, element: AppElement): Map<AppElement, Part> {
  const { tree, handles } = access.compiled;
  const doorId = isDataDoor(element) ? element.id : handles.doorOf(element)?.id;
  const door = doorId === undefined ? undefined : access.element(doorId);
  const parts = new Map<AppElement, Part>();
  const put = (one: AppElement, rule: Rule, here = true): void => {
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
  if (door.kind !== 'data-field') {
    put(door, access.rule(door));
    return parts;
  }
  // What rows say by lines of their own, they say of a field's lines too.
  if (record === 'new' && access.compiled.lines(door.id)) put(rows, access.gateRule(rows));
  put(door, access.ownDoorRule(door, record));
  // Where the record cannot be written, its fields are for reading, which is all that a column is for.
  if (element.kind === 'column') return parts;
  const save = access.element(tree.action(entity, record === 'new' ? 'create' : 'update').id);
  const ownLines = access.compiled.lines(save.id) !== undefined;
  const reading = ({ edit }: Rule): Part => ({ rule: { see: true, edit }, here: true, editOnly: true });
  // Making a record by lines of its own is within its rows.
  if (ownLines && !parts.has(rows)) parts.set(rows, reading(access.rule(rows)));
  parts.set(save, reading(ownLines ? access.gateRule(save) : access.rule(save)));
  return parts;
}

interface Deciding {
  readonly element: AppElement;
  readonly steps: readonly Reason[];
  readonly parts: ReadonlyMap<AppElement, Part>;
  readonly record: RecordFacts | undefined;
  readonly answer: Answer;
  readonly of: 'most' | 'least';
}

/**
 * For a full answer, the nearest gate with lines of its own gave it. For a lower one, the first step
 * whose most is as low took the rest away; where only the least is lower, the first that depends.
 */
function decide(access: Access, deciding: Deciding): Decided {
  const { element, steps, parts, record, answer } = deciding;
  const of = answer.most < EDIT ? deciding.of : 'least';
  const full = sameAnswer(seenOf(element.kind, answer), seenOf(element.kind, FULL));
  const low = steps.find(({ result }) => result[of] <= answer[of]);
  const step = (full ? steps.findLast((one) => one.gate === 'own') : low) ?? steps[steps.length - 1];
  if (!step) throw new Error(`${element.id} is decided by nothing`);
  const at = access.element(step.element);
  if (step.gate === 'own') {
    const on = parts.get(at)?.here ? record : undefined;
    const lines = step.lines.filter((line) => !parts.get(at)?.editOnly || line.what !== 'see');
    const counts = (line: Line, how: 'surely' | 'perhaps'): boolean =>
      matches(how === 'perhaps' && gives(line) ? access.most : access, at, line, on, how);
    // What is left at most: what may give, and what surely takes away. At least: the other way round.
    const decisive = lines.filter((line) =>
      counts(line, gives(line) === (of === 'most') ? 'perhaps' : 'surely'),
    );
    // What nothing surely gives is left to what may give it.
    const maybe = lines.filter(gives);
    return byLines(at.id, decisive.some(gives) || maybe.length === 0 ? decisive : maybe, full);
  }
  const holding = access.compiled.handles
    .handlesOf(at)
    .filter((id) => access.most.gateRule(access.element(id)).see !== false);
  return step.result.most > NONE && holding.length > 0
    ? { by: 'handles', door: at.id, handles: holding }
    : { by: 'no-handle', door: at.id };
}

const FULL: Answer = { least: EDIT, most: EDIT };

const WEIGHT: Readonly<Record<Line['what'], Level>> = {
  edit: EDIT,
  see: SEE,
  'at-most-see': SEE,
  block: NONE,
};

/**
 * Of the lines that count, the one that the gate's own answer comes from. For a full answer that is the giving one:
 * what leads somewhere may be capped at see, and see counts as edit there. A cap takes nothing where nothing is given.
 */
function byLines(gate: Id, lines: readonly Line[], full: boolean): Decided {
  const given = lines.filter(gives).sort((a, b) => WEIGHT[b.what] - WEIGHT[a.what])[0];
  const taken = lines.filter((line) => !gives(line)).sort((a, b) => WEIGHT[a.what] - WEIGHT[b.what])[0];
  if (taken && (given ? !full && WEIGHT[taken.what] < WEIGHT[given.what] : taken.what === 'block'))
    return { by: 'line', gate, line: taken };
  return given ? { by: 'line', gate, line: given } : { by: 'no-line', gate };
}
