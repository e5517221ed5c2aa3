import type { RecordFacts } from '../../condition/atom';
import { holds, withoutUnits, type Formula } from '../../condition/formula';
import { explainCondition, type ConditionStep } from '../../condition/explain-condition';
import { gives, type Line } from '../../model/gate';
import type { Id } from '../../model/id';
import type { AppElement } from '../../model/tree';
import type { Access } from '../deciding/access';
import { EDIT, NONE, sameAnswer, SEE, seenOf, type Answer, type Level } from '../deciding/level';
import { answerOf, levelOn, mostOf } from '../deciding/rule';
import { partsOf, type Part } from './parts';

/** A line that would count, and what it is that keeps it from counting. */
export interface InactiveLine {
  readonly line: Line;
  readonly since: readonly Since[];
}

/** Why a line does not count. */
export type Since =
  /** Its condition: each question with its answer. */
  | { readonly is: 'when'; readonly told: readonly ConditionStep[] }
  /** Its group: the same of what it takes to be in it. */
  | { readonly is: 'group'; readonly told: readonly ConditionStep[] }
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
  readonly nearly: readonly InactiveLine[];
  /** What is left after this step. */
  readonly result: Answer;
}

/** What the answer comes from. */
export type Decided =
  /**
   * A line gave it, capped it or took it away; `told` is its condition, with the values that made it so. Without it, each
   * of those in `also` would leave the same.
   */
  | {
      readonly by: 'line';
      readonly gate: Id;
      readonly line: Line;
      readonly also: readonly Line[];
      readonly told?: readonly ConditionStep[];
    }
  /** A gate with lines of its own gives this viewer nothing; what it would give, those in `also` would take. */
  | { readonly by: 'no-line'; readonly gate: Id; readonly also: readonly Line[] }
  /** A door that follows the screens, and no screen (or none on a screen that saves) holds it open. */
  | { readonly by: 'no-handle'; readonly door: Id }
  /** A door that follows the screens: these handles hold it open. */
  | { readonly by: 'handles'; readonly door: Id; readonly handles: readonly Id[] };

export interface Explanation {
  readonly answer: Answer;
  /** Containers first, then the element, then its doors. */
  readonly steps: readonly Reason[];
  readonly decided: Decided;
  /** It shows a record that it points to by its name, which is closed to the viewer: for all such records, or for some. */
  readonly nameClosed?: { readonly entity: Id; readonly always: boolean };
}

/**
 * Why the viewer has this level on this element: the steps, and what decided. With a record, for that
 * record. The levels are those of `Access`, which decides; here they are only told. Where the answer depends, what
 * decided is what leaves it at its most; `of: 'least'` asks what keeps the least from being more.
 *
 * @example
 * const { decided } = explain(accessOf(compile(LARKFIELD), viewerOfRole('lender'), at), 's_stores');
 * decided // → { by: 'no-line', gate: 's_stores', also: [] }
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
    const at = placeOf(one, part, record);
    const lines = (own ?? []).filter((line) => isCounting(access, at, line));
    const nearly = (own ?? [])
      .filter((line) => !lines.includes(line))
      .flatMap((line) => nearlyCounts(access, at, line) ?? []);
    steps.push({
      element: one.id,
      gate: own ? 'own' : 'follows',
      lines,
      nearly,
      result: { least: answerBy(part).least, most: answerBy(mostly.get(one) ?? part).most },
    });
  }
  const answer = record ? access.answerOn(element, record) : access.answer(element);
  const nameClosed = nameClosedAt(access, element, answer);
  const decided = decide(access, { element, steps, parts, record, answer, of });
  const rest = nameClosed ? { nameClosed } : {};
  if (decided.by !== 'line' || !decided.line.when) return { answer, steps, decided, ...rest };
  const at = access.element(decided.gate);
  const on = parts.get(at)?.here ? record : undefined;
  const told = explainCondition(access.held.facts, access.compiled.scope(at), decided.line.when, on);
  return { answer, steps, decided: { ...decided, told }, ...rest };
}

/** A field or column that points to a record shows its name through that record's own doors. */
function nameClosedAt(access: Access, element: AppElement, answer: Answer): Explanation['nameClosed'] {
  const { tree } = access.compiled;
  const field =
    element.kind === 'field' || element.kind === 'column' ? tree.get(element.node.field) : element;
  if (answer.most === NONE || field?.kind !== 'data-field' || field.node.type.kind !== 'record')
    return undefined;
  const rows = tree.need(field.node.type.entity, 'rows');
  const doors = [rows, tree.get(rows.node.labelField)].flatMap((door) => (door ? access.answer(door) : []));
  if (doors.every(({ least }) => least > NONE)) return undefined;
  return { entity: rows.id, always: doors.some(({ most }) => most === NONE) };
}

/**
 * Does the line count? One that gives must surely match, one that takes away may not surely not; for a kind of
 * viewer or where no record is known, one that may for some of them does.
 */
const isCounting = (access: Access, at: Place, line: Line): boolean =>
  matches(gives(line) ? access.most : access, at, line, 'perhaps');

/** Where lines are asked: at a gate, on the record that is at hand there, if it is known. */
interface Place extends Pick<Part, 'inNoUnit'> {
  readonly gate: AppElement;
  readonly record: RecordFacts | undefined;
}

const placeOf = (gate: AppElement, { here, inNoUnit }: Part, record: RecordFacts | undefined): Place => ({
  gate,
  record: here ? record : undefined,
  inNoUnit,
});

/** Does it surely, or perhaps for some record, by what is known in this access? */
function matches(
  { held, compiled }: Access,
  { gate, record, inNoUnit }: Place,
  line: Line,
  how: 'surely' | 'perhaps',
): boolean {
  const asked = held.matches(line, compiled.scope(gate));
  const is = inNoUnit ? withoutUnits(asked) : asked;
  const sure = how === 'surely';
  if (gives(line)) return record ? holds(is, record) : sure ? is === true : is !== false;
  return record ? !holds(is, record) : sure ? is === false : is !== true;
}

/** What keeps a line that speaks of the viewer from counting; undefined for one that does not speak of them. */
function nearlyCounts(
  access: Access,
  { gate, record, inNoUnit }: Place,
  line: Line,
): InactiveLine | undefined {
  const { held, compiled } = access;
  const speaks = held.isSpokenOf(line.who);
  const since: Since[] = [];
  if (speaks('be false') === true) {
    const period = held.periodOf(line.who);
    if (line.who.kind === 'group' && held.facts.signedIn) {
      const asked = { inGroup: line.who.group };
      const told = explainCondition(held.facts, { definition: compiled.definition }, asked, undefined);
      since.push({ is: 'group', told });
    } else if (period) since.push({ is: 'period', from: period.from, until: period.until });
    else return undefined;
  } else if (!holdsOn(speaks('not be false'), record) || (inNoUnit && typeof speaks('be true') !== 'boolean'))
    since.push({ is: 'unit' });
  const when = held.isWhen(line, compiled.scope(gate));
  if (line.when && !holdsOn(when(gives(line) ? 'be true' : 'not be false'), record))
    since.push({ is: 'when', told: explainCondition(held.facts, compiled.scope(gate), line.when, record) });
  return { line, since };
}

const holdsOn = (formula: Formula, record: RecordFacts | undefined): boolean =>
  record ? holds(formula, record) : formula !== false;

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
  if (!step) throw new Error(`Nothing decides the access to ${element.id}`);
  const at = access.element(step.element);
  if (step.gate === 'own') {
    const part = parts.get(at) as Part;
    const place = placeOf(at, part, record);
    const lines = step.lines.filter((line) => !part.editOnly || line.what !== 'see');
    const counts = (line: Line, how: 'surely' | 'perhaps'): boolean =>
      matches(how === 'perhaps' && gives(line) ? access.most : access, place, line, how);
    // What is left at most: what may give, and what surely takes away. At least: the other way round.
    const decisive = lines.filter((line) =>
      counts(line, gives(line) === (of === 'most') ? 'perhaps' : 'surely'),
    );
    // What nothing surely gives is left to what may give it.
    const maybe = lines.filter(gives);
    // What would take it from who was given it, in doubt too.
    if (maybe.length === 0) return { by: 'no-line', gate: at.id, also: lines };
    const counting = decisive.some(gives) ? decisive : maybe;
    // What surely counts is told rather than what counts for some, and what always does rather than under a condition.
    const first = (line: Line): number => (counts(line, 'surely') ? 0 : 2) + (line.when ? 1 : 0);
    return byLines(
      at.id,
      [...counting].sort((a, b) => first(a) - first(b)),
      full ? (part.seeSuffices ? SEE : seenOf(element.kind, FULL).most) : undefined,
    );
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
 * Of the lines that count, the one that the gate's own answer comes from. For a full answer that is a giving one that
 * gives so much at least: what leads somewhere may be capped at see, and see counts as edit there. A cap takes nothing
 * where nothing is given.
 */
function byLines(gate: Id, lines: readonly Line[], full: Level | undefined): Decided {
  const giving = lines.filter(gives);
  const taking = lines.filter((line) => !gives(line));
  const given = Math.max(...giving.map(({ what }) => WEIGHT[what]));
  const left = Math.min(EDIT, ...taking.map(({ what }) => WEIGHT[what]));
  const some =
    full === undefined && left < given
      ? taking.filter(({ what }) => WEIGHT[what] === left)
      : giving.filter(({ what }) => WEIGHT[what] >= Math.min(given, full ?? given));
  const [line, ...also] = some as [Line, ...Line[]];
  return { by: 'line', gate, line, also };
}
