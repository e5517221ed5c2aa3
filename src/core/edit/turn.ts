import type { Access } from '../access/access';
import { compile, type Compiled } from '../access/compile';
import { explain, type Decided } from '../access/explain';
import { EDIT, NONE, SEE, type Level } from '../access/level';
import { answerOf, levelOn, lower, ALWAYS, type Rule } from '../access/rule';
import type { Circumstances, Viewer } from '../access/viewer';
import type { RecordFacts } from '../condition/atom';
import type { Definition } from '../model/definition';
import { gives, type Line, type What, type Who } from '../model/gate';
import type { Id } from '../model/id';
import { isDataDoor, leadsOrReads, withIncluded, type Element } from '../model/tree';
import type { Edit } from './edit';
import { editLines, newLine } from './make';
import { aimAt, type Aim } from './aim';
import { startLines } from './start';

/** What somebody wants turned: this viewer's level on this element, on this record where one is known. */
export interface Wanted {
  readonly element: Id;
  readonly viewer: Viewer;
  readonly level: Level;
  readonly at: Circumstances;
  readonly record?: RecordFacts | undefined;
  /** May a line name the person? `roles`: only what they hold. */
  readonly naming: 'anybody' | 'roles';
}

/** A change that turns an answer. */
export interface Turn {
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
 */
export function smallestTurn(
  definition: Definition,
  wanted: Wanted,
  everybody: readonly Viewer[],
): Turn | undefined {
  const access = compile(definition).unshared(wanted.viewer, wanted.at);
  const aim = aimAt(access, access.element(wanted.element), wanted.level, wanted.record);
  const mended = mendWhatDecides(definition, wanted, everybody, aim);
  if (mended?.changed === 1) return mended;
  return oneLine(definition, wanted, everybody, aim) ?? mended;
}

function mendWhatDecides(
  definition: Definition,
  wanted: Wanted,
  everybody: readonly Viewer[],
  aim: Aim,
): (Turn & { readonly changed: number }) | undefined {
  const { at, viewer, element, level, record } = wanted;
  const edits: Edit[] = [];
  const gates: Id[] = [];
  let now = definition;
  let changed = 0;
  while (gates.length < MOST_GATES) {
    const access = compile(now).unshared(viewer, at);
    const { decided } = explain(access, element, record, access.most === access ? 'most' : 'least');
    const has = aim(access, access.element(element), record);
    if (has === level) return { edit: together(edits), definition: now, gates, changed };
    const gate = has > level ? element : gateInTheWay(access, element, decided, record);
    if (gate === undefined || gates.includes(gate)) return undefined;
    const turning = new Turning(now, access, gate, wanted, everybody);
    const after = turning.lines(has > level);
    if (!after) return undefined;
    changed += distance(turning.before, after);
    edits.push(editLines(gate, compile(now).lines(gate), after));
    gates.push(gate);
    now = { ...now, gates: { ...now.gates, [gate]: { lines: after } } };
  }
  return undefined;
}

/** The single line, at any gate that bears on the element, that turns the answer and moves fewest others. */
function oneLine(
  definition: Definition,
  wanted: Wanted,
  everybody: readonly Viewer[],
  aim: Aim,
): Turn | undefined {
  const { at, viewer, element, level, record } = wanted;
  const access = compile(definition).unshared(viewer, at);
  let best: (Turn & { readonly moved: number }) | undefined;
  for (const gate of gatesAbout(access, access.element(element))) {
    const turning = new Turning(definition, access, gate, wanted, everybody);
    for (const lines of turning.oneLineAway()) {
      const after = { ...definition, gates: { ...definition.gates, [gate]: { lines } } };
      const then = compile(after).unshared(viewer, at);
      if (aim(then, then.element(element), record) !== level) continue;
      const moved = turning.moved(lines);
      if (best && moved >= best.moved) continue;
      const edit = editLines(gate, compile(definition).lines(gate), lines);
      best = { edit, definition: after, gates: [gate], moved };
    }
  }
  return best;
}

/** The gates that bear on an element: those around it, of its doors, and of what holds these open. */
function gatesAbout(access: Access, element: Element): ReadonlySet<Id> {
  const { handles } = access.compiled;
  const found = new Set<Id>();
  const around = (one: Element): void => {
    for (let gate: Element | undefined = one; gate; gate = gate.container) found.add(gate.id);
  };
  for (const { element: id } of explain(access, element.id).steps) {
    const step = access.element(id);
    around(step);
    if (!isDataDoor(step)) continue;
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

/** By level, what gives it and what limits to it. */
const GIVES: Readonly<Record<Level, What | undefined>> = [undefined, 'see', 'edit'];
const LIMITS: Readonly<Record<Level, What | undefined>> = ['block', 'at-most-see', undefined];

/** Other lines for one gate, so that it gives the viewer the level that is wanted. */
class Turning {
  private readonly compiled: Compiled;
  private readonly element: Element;
  readonly before: readonly Line[];

  constructor(
    definition: Definition,
    private readonly access: Access,
    gate: Id,
    private readonly wanted: Wanted,
    private readonly everybody: readonly Viewer[],
  ) {
    this.compiled = compile(definition);
    this.element = access.element(gate);
    this.before = this.compiled.lines(gate) ?? startLines(definition, gate);
  }

  /** The lines afterwards; undefined where one line more, less or changed does not do it. */
  lines(narrower: boolean): readonly Line[] | undefined {
    const level = this.enough();
    let best: { lines: readonly Line[]; cost: number } | undefined;
    for (const lines of narrower ? this.narrower(level) : this.wider(level)) {
      const has = this.levelBy(narrower ? this.access.most : this.access, lines);
      if (narrower ? has !== level : has < level) continue;
      const cost = distance(this.before, lines) * 1e6 + this.moved(lines);
      if (!best || cost < best.cost) best = { lines, cost };
    }
    return best?.lines;
  }

  /** Whatever is one line more, less or changed. */
  *oneLineAway(): Generator<readonly Line[]> {
    const all = [this.wider(SEE), this.wider(EDIT), this.narrower(NONE), this.narrower(SEE)];
    for (const some of all) for (const lines of some) if (distance(this.before, lines) === 1) yield lines;
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
      const access = this.compiled.access(viewer, this.wanted.at);
      let moves = known.get(access);
      if (moves === undefined) {
        const limit = isDataDoor(this.element) ? ALWAYS[EDIT] : container(access);
        const [was, is] = [this.before, lines].map((some) =>
          answerOf(lower(limit, access.held.given(some, scope))),
        );
        moves = was?.least !== is?.least || was?.most !== is?.most;
        known.set(access, moves);
      }
      if (moves) count++;
    }
    return count;
  }

  /** One line more, changed or taken away, so that more is given. */
  private *wider(level: Level): Generator<readonly Line[]> {
    const give = GIVES[level] ?? 'see';
    const { held } = this.access;
    const speaks = (line: Line): boolean => held.isSpokenOf(line.who)('be false') !== true;
    const free = this.before.filter((line) => gives(line) || !speaks(line));
    for (const base of free.length === this.before.length ? [this.before] : [this.before, free]) {
      if (base !== this.before) yield base;
      for (const who of this.names()) yield [...base, newLine(who, give)];
      for (const line of base.filter(speaks)) {
        if (!gives(line)) yield base.filter((one) => one !== line);
        if (gives(line) && line.what !== give && !line.when)
          yield base.map((one) => (one === line ? { ...line, what: give } : one));
        if (line.when) yield base.map((one) => (one === line ? withoutWhen(line, level) : one));
      }
    }
  }

  private *narrower(level: Level): Generator<readonly Line[]> {
    const limit = LIMITS[level];
    for (const line of this.before.filter(gives)) {
      yield this.before.filter((one) => one !== line);
      if (level === SEE && line.what === 'edit')
        yield this.before.map((one) => (one === line ? { ...line, what: 'see' as const } : one));
    }
    for (const line of this.before) {
      if (limit && gives(line))
        yield this.before.map((one) => (one === line ? { ...line, what: limit } : one));
      if (!gives(line) && line.when)
        yield this.before.map((one) =>
          one === line ? { id: line.id, who: line.who, what: line.what } : one,
        );
    }
    if (limit) for (const who of this.names()) yield [...this.before, newLine(who, limit)];
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

const withoutWhen = ({ id, who, what }: Line, level: Level): Line => ({
  id,
  who,
  what: what === 'see' && level === EDIT ? 'edit' : what,
});

/** How many lines are added, taken away or changed. */
function distance(before: readonly Line[], after: readonly Line[]): number {
  const lost = before.filter((line) => !after.some((one) => one.id === line.id)).length;
  const changed = after.filter((line) => before.some((one) => one.id === line.id && one !== line)).length;
  const added = after.filter((line) => !before.some((one) => one.id === line.id)).length;
  return lost + changed + added;
}
