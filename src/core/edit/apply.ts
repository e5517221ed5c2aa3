import type { Area, Definition, Screen } from '../model/definition';
import { findFaults } from '../model/faults';
import { sameLine, sameLines, type Gate, type Line } from '../model/gate';
import type { Id } from '../model/id';
import { failed, ok, type Problem, type Result } from '../model/problem';
import { Tree } from '../model/tree';
import type { Edit } from './edit';

/**
 * The definition with the edit made in it. Refused, with the reason, where the definition is not as the
 * edit expects (`changed-meanwhile`) or would not be sound afterwards.
 */
export function applyEdit(definition: Definition, edit: Edit): Result<Definition> {
  const made = make(definition, edit);
  if (!made.ok) return made;
  const faults = findFaults(made.value);
  return faults.length > 0 ? failed(...faults) : made;
}

function make(definition: Definition, edit: Edit): Result<Definition> {
  switch (edit.do) {
    case 'together':
      return edit.edits.reduce<Result<Definition>>(
        (done, one) => (done.ok ? make(done.value, one) : done),
        ok(definition),
      );
    case 'changeRole':
      return changeRole(definition, edit);
    case 'addScreen':
    case 'removeScreen':
      return changeScreens(definition, edit);
    default:
      return changeGate(definition, edit);
  }
}

type GateEdit = Extract<Edit, { gate: Id }>;

function changeGate(definition: Definition, edit: GateEdit): Result<Definition> {
  const gate = Object.hasOwn(definition.gates, edit.gate) ? definition.gates[edit.gate] : undefined;
  const meanwhile = (message: string): Result<never> =>
    failed(changedMeanwhile(nameOf(definition, edit.gate), message));
  const withLines = (lines: readonly Line[] | undefined): Result<Definition> =>
    ok({ ...definition, gates: withGate(definition.gates, edit.gate, lines && { lines }) });
  if (edit.do === 'startLines')
    return gate ? meanwhile('It has lines of its own by now.') : withLines(edit.lines);
  if (!gate) return meanwhile('It follows by now.');
  const { lines } = gate;
  const holds = (line: Line): number => lines.findIndex((one) => sameLine(one, line));
  switch (edit.do) {
    case 'follow':
      return sameLines(lines, edit.lines) ? withLines(undefined) : meanwhile('Its lines are others by now.');
    case 'addLine':
      return lines.some((one) => one.id === edit.line.id)
        ? meanwhile('It has that line already.')
        : withLines(lines.toSpliced(edit.at, 0, edit.line));
    case 'removeLine': {
      const at = holds(edit.line);
      return at < 0 ? meanwhile('That line is another one by now.') : withLines(lines.toSpliced(at, 1));
    }
    case 'changeLine': {
      const at = holds(edit.from);
      return at < 0 ? meanwhile('That line is another one by now.') : withLines(lines.with(at, edit.to));
    }
  }
}

function withGate(gates: Definition['gates'], id: Id, gate: Gate | undefined): Definition['gates'] {
  const others = Object.entries(gates).filter(([one]) => one !== id);
  return Object.fromEntries(gate ? [...others, [id, gate]] : others);
}

function changeRole(
  definition: Definition,
  { from, to }: Extract<Edit, { do: 'changeRole' }>,
): Result<Definition> {
  const at = definition.roles.findIndex((role) => sameJson(role, from));
  if (at < 0) return failed(changedMeanwhile(from.name, 'That role is another one by now.'));
  if (from.id !== to.id)
    return failed({
      code: 'role-id',
      place: from.name,
      message: "A role's id never changes.",
      mend: 'Keep its id.',
    });
  return ok({ ...definition, roles: definition.roles.with(at, to) });
}

type ScreenEdit = Extract<Edit, { screen: Screen }>;

function changeScreens(definition: Definition, edit: ScreenEdit): Result<Definition> {
  const { area: id, at, screen, lines } = edit;
  const area = definition.areas.find((one) => one.id === id);
  if (!area) return failed(changedMeanwhile(screen.name, 'Its area is gone by now.'));
  const withScreens = (screens: Area['screens']): Area[] =>
    definition.areas.map((one) => (one === area ? { ...one, screens } : one));
  if (edit.do === 'addScreen')
    return ok({
      ...definition,
      areas: withScreens(area.screens.toSpliced(at, 0, screen)),
      gates: withGate(definition.gates, screen.id, { lines }),
    });
  const there = area.screens.findIndex((one) => sameJson(one, screen));
  const tree = new Tree(definition);
  const inside = there < 0 ? [] : tree.within(tree.need(screen.id, 'screen')).slice(1);
  const own = definition.gates[screen.id];
  if (!own || !sameLines(own.lines, lines) || inside.some((one) => Object.hasOwn(definition.gates, one.id)))
    return failed(changedMeanwhile(screen.name, 'It, or a gate in it, is another one by now.'));
  return ok({
    ...definition,
    areas: withScreens(area.screens.toSpliced(there, 1)),
    gates: withGate(definition.gates, screen.id, undefined),
  });
}

const nameOf = (definition: Definition, id: Id): string => new Tree(definition).get(id)?.name ?? id;

const changedMeanwhile = (place: string, message: string): Problem => ({
  code: 'changed-meanwhile',
  place,
  message,
  mend: 'Look at it as it is now, and make your change again if it is still needed.',
});

/** Are the two plain values the same, whatever the order of their keys? */
export function sameJson(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const keys = Object.keys(a);
  return (
    keys.length === Object.keys(b).length &&
    keys.every(
      (key) =>
        Object.hasOwn(b, key) &&
        sameJson((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]),
    )
  );
}
