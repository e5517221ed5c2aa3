import { type Access, accessOf, unsharedAccessOf } from '../../access/deciding/access';
import { compile, type Compiled } from '../../access/deciding/compile';
import { explain, type Decided } from '../../access/questions/explain';
import { EDIT, NONE, SEE, type Level } from '../../access/deciding/level';
import { answerOf, levelOn, intersectRules, ALWAYS, type Rule } from '../../access/deciding/rule';
import type { Circumstances, Viewer } from '../../access/deciding/viewer';
import type { RecordFacts } from '../../condition/atom';
import type { Definition } from '../../model/definition';
import { type Line, type Who } from '../../model/gate';
import type { Id } from '../../model/id';
import { isDataDoor, leadsOrReads, withIncluded, type AppElement } from '../../model/tree';
import type { Edit } from '../edits/edit';
import { editLines } from '../edits/make';
import { levelReaderFor, type LevelReader } from './aim';
import { candidates, linesApart, newBlocks, type CandidateContext } from './candidates';
import { cheapest } from './search';
import { startLines } from './start';

/** What somebody wants turned: this viewer's level on this element, on this record where one is known. */
export interface TargetLevel {
  readonly element: Id;
  readonly viewer: Viewer;
  readonly level: Level;
  readonly at: Circumstances;
  readonly record?: RecordFacts | undefined;
  /** May a line name the person? `roles`: only what they hold. */
  readonly naming: 'anybody' | 'roles';
}

/** A change that turns an answer. */
export interface AccessChange {
  readonly edit: Edit;
  readonly definition: Definition;
  /** The gates that it changes, in the order in which they were in the way. */
  readonly gates: readonly Id[];
}

/** So many gates may be in the way; more means that going on does not help. */
const MOST_GATES = 12;

/**
 * The smallest change that turns an answer: fewest lines, then fewest of the others (`everybody`) who gain
 * at the gates that it changes. Found by mending what decides, deciding again, and so on until the level is
 * there; where that takes several lines, or cannot do it, each single line at each gate that bears on the element
 * is tried. Undefined where no change of lines can: say, no button on the screen saves.
 *
 * @example
 * const wanted = { element: 's_stores', viewer: viewerOfRole('lender'), level: 1, at, naming: 'roles' };
 * smallestChange(LARKFIELD, wanted, [])?.gates // → ['s_stores']
 */
export function smallestChange(
  definition: Definition,
  wanted: TargetLevel,
  everybody: readonly Viewer[],
): AccessChange | undefined {
  const access = unsharedAccessOf(compile(definition), wanted.viewer, wanted.at);
  const aim = levelReaderFor(access, access.element(wanted.element), wanted.level, wanted.record);
  const mended = mendWhatDecides(definition, wanted, everybody, aim);
  if (mended?.changed === 1) return mended;
  return oneLine(definition, wanted, everybody, aim) ?? mended;
}

function mendWhatDecides(
  definition: Definition,
  wanted: TargetLevel,
  everybody: readonly Viewer[],
  aim: LevelReader,
): (AccessChange & { readonly changed: number }) | undefined {
  const { at, viewer, element, level, record } = wanted;
  const edits: Edit[] = [];
  const gates: Id[] = [];
  let now = definition;
  let changed = 0;
  while (gates.length < MOST_GATES) {
    const access = unsharedAccessOf(compile(now), viewer, at);
    const { decided } = explain(access, element, record, access.most === access ? 'most' : 'least');
    const has = aim(access, access.element(element), record);
    if (has === level) return { edit: together(edits), definition: now, gates, changed };
    const gate = has > level ? element : gateInTheWay(access, element, decided, record);
    if (gate === undefined || gates.includes(gate)) return undefined;
    const search = new TurnSearch(now, access, gate, wanted, everybody);
    const after = search.lines(has > level);
    if (!after) return undefined;
    changed += Math.floor(linesApart(search.before, after));
    edits.push(editLines(gate, compile(now).lines(gate), after));
    gates.push(gate);
    now = { ...now, gates: { ...now.gates, [gate]: { lines: after } } };
  }
  return undefined;
}

/** The single line, at any gate that bears on the element, that turns the answer and moves fewest others. */
function oneLine(
  definition: Definition,
  wanted: TargetLevel,
  everybody: readonly Viewer[],
  aim: LevelReader,
): AccessChange | undefined {
  const { at, viewer, element, level, record } = wanted;
  const access = unsharedAccessOf(compile(definition), viewer, at);
  const tries = [...gatesAbout(access, access.element(element))].flatMap((gate) => {
    const search = new TurnSearch(definition, access, gate, wanted, everybody);
    return [...search.oneLineAway()].map((lines) => ({ gate, lines, search }));
  });
  return cheapest(tries, ({ gate, lines, search }) => {
    const after = { ...definition, gates: { ...definition.gates, [gate]: { lines } } };
    const then = unsharedAccessOf(compile(after), viewer, at);
    if (aim(then, then.element(element), record) !== level) return undefined;
    const edit = editLines(gate, compile(definition).lines(gate), lines);
    return {
      edit,
      definition: after,
      gates: [gate],
      cost: ONE_LINE + search.moved(lines) + blocksIn(search.before, lines),
    };
  });
}

/** All that are tried are one line away. */
const ONE_LINE = 1;

/** The gates that bear on an element: those around it, of its doors, and of what holds these open. */
function gatesAbout(access: Access, element: AppElement): ReadonlySet<Id> {
  const { handles, tree } = access.compiled;
  const found = new Set<Id>();
  const around = (one: AppElement): void => {
    for (let gate: AppElement | undefined = one; gate; gate = gate.container) found.add(gate.id);
  };
  for (const { element: id } of explain(access, element.id).steps) {
    const step = access.element(id);
    around(step);
    if (!isDataDoor(step)) continue;
    // Where records cannot be written, fields are for reading.
    const entity = step.kind === 'data-field' ? tree.entityOf(step.id) : undefined;
    if (entity) around(access.element(tree.action(entity, 'update').id));
    for (const handle of handles.handlesOf(step).map((one) => access.element(one))) {
      around(handle);
      if (handle.kind === 'button' && 'list' in handle.node.effect)
        around(access.element(handle.node.effect.list));
      if (handle.kind === 'field' && handle.screen) handles.savesOn(handle.screen).forEach(around);
    }
  }
  return found;
}

const together = (edits: readonly Edit[]): Edit =>
  edits.length === 1 ? (edits[0] as Edit) : { do: 'together', edits };

/** The gate whose lines keep the answer low. For a door that follows the screens, that of a handle of it. */
function gateInTheWay(
  access: Access,
  element: Id,
  decided: Decided,
  record: RecordFacts | undefined,
): Id | undefined {
  if ('gate' in decided) return decided.gate;
  const { tree, handles } = access.compiled;
  const door = access.element(decided.door);
  const asked = access.element(element);
  // The door itself is asked for, or never follows: it gets lines of its own.
  if (door.id === element || (door.kind === 'data-field' && door.node.neverFollows)) return door.id;
  const candidates =
    door.kind === 'data-field'
      ? // The field is open for reading: what is missing is a button that saves.
        handles.savesOn(asked.screen ?? NO_SCREEN).map((button) => button.id)
      : handles.handlesOf(door);
  const [handle] = candidates
    .map((id) => access.element(id))
    .sort((a, b) => Number(b.screen === asked.screen) - Number(a.screen === asked.screen));
  if (!handle || handle.id === element) return undefined;
  const why = explain(
    access,
    handle.id,
    tree.recordOf(handle)?.id === record?.entity.id ? record : undefined,
  );
  return 'gate' in why.decided ? why.decided.gate : undefined;
}

const NO_SCREEN = { id: '', name: '', address: '', sections: [] };

/** Lines weigh more than others: fewest lines first. A block is the last resort, and weighs as much as ten lines. */
const MANY = 1e6;
const blocksIn = (before: readonly Line[], after: readonly Line[]): number =>
  10 * MANY * newBlocks(before, after).length;

/** Other lines for one gate, so that it gives the viewer the level that is wanted. */
class TurnSearch {
  private readonly compiled: Compiled;
  private readonly element: AppElement;
  readonly before: readonly Line[];

  constructor(
    definition: Definition,
    private readonly access: Access,
    gate: Id,
    private readonly wanted: TargetLevel,
    private readonly everybody: readonly Viewer[],
  ) {
    this.compiled = compile(definition);
    this.element = access.element(gate);
    this.before = this.compiled.lines(gate) ?? startLines(definition, gate);
  }

  /** The lines afterwards; undefined where one line more, less or changed does not do it. */
  lines(narrower: boolean): readonly Line[] | undefined {
    const level = this.enough();
    const access = narrower ? this.access.most : this.access;
    return cheapest(candidates(this.around(), level), (lines) => {
      const has = this.levelBy(access, lines);
      if (narrower ? has !== level : has < level) return undefined;
      return {
        lines,
        cost: linesApart(this.before, lines) * MANY + this.moved(lines) + blocksIn(this.before, lines),
      };
    })?.lines;
  }

  /** Whatever is one line more, less or changed. */
  *oneLineAway(): Generator<readonly Line[]> {
    for (const level of [NONE, SEE, EDIT] as const)
      for (const lines of candidates(this.around(), level))
        if (Math.floor(linesApart(this.before, lines)) === 1) yield lines;
  }

  private around(): CandidateContext {
    return { held: this.access.held, lines: this.before, names: this.names() };
  }

  /** What the gate has to give: a container that leads to what is read need not give more than see. */
  private enough(): Level {
    const { level } = this.wanted;
    // For what only leads somewhere or reads, see is enough all the way.
    const { tree } = this.compiled;
    if (level > NONE && leadsOrReads(tree, this.access.element(this.wanted.element))) return SEE;
    const saves = this.element.kind === 'button' || this.element.kind === 'action';
    return saves && level > NONE && this.element.id !== this.wanted.element ? EDIT : level;
  }

  private levelBy(access: Access, lines: readonly Line[]): Level {
    const rule = access.held.given(lines, this.compiled.scope(this.element));
    return this.levelOf(rule);
  }

  private levelOf(rule: Rule): Level {
    const { record } = this.wanted;
    const same = record && this.compiled.tree.recordOf(this.element)?.id === record.entity.id;
    return same ? levelOn(rule, record) : answerOf(rule).most;
  }

  /** How many others get another level here than before. Those who are alike are decided once. */
  moved(lines: readonly Line[]): number {
    const scope = this.compiled.scope(this.element);
    const known = new Map<Access, boolean>();
    const container = (access: Access): Rule =>
      this.element.container ? access.gateRule(this.element.container) : ALWAYS[EDIT];
    let count = 0;
    for (const viewer of this.everybody) {
      const access = accessOf(this.compiled, viewer, this.wanted.at);
      let moves = known.get(access);
      if (moves === undefined) {
        const limit = isDataDoor(this.element) ? ALWAYS[EDIT] : container(access);
        const [was, is] = [this.before, lines].map((some) =>
          answerOf(intersectRules(limit, access.held.given(some, scope))),
        );
        moves = was?.least !== is?.least || was?.most !== is?.most;
        known.set(access, moves);
      }
      if (moves) count++;
    }
    return count;
  }

  /** The ways in which a line can speak of the viewer. */
  private names(): Who[] {
    const { viewer } = this.wanted;
    if (viewer.kind === 'signed-out') return [{ kind: 'signed-out' }];
    const { definition } = this.compiled;
    const assigned = [...this.access.held.assigned.keys()];
    const held = [...withIncluded(definition, assigned)];
    const groups = definition.groups.filter(
      ({ id }) => this.access.held.isSpokenOf({ kind: 'group', group: id })('be true') === true,
    );
    const names: Who[] = [
      ...held.map((role): Who => ({ kind: 'role', role })),
      ...assigned.map((role): Who => ({ kind: 'role', role, exactly: true })),
      ...groups.map(({ id }): Who => ({ kind: 'group', group: id })),
    ];
    if (viewer.person !== undefined && this.wanted.naming === 'anybody')
      names.push({ kind: 'person', person: viewer.person });
    return names.length > 0 ? names : [{ kind: 'signed-in' }];
  }
}
