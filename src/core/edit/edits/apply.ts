import type { Closed, Definition } from '../../model/definition';
import { findFaults } from '../../model/faults';
import { sameLine, sameLines, type Gate, type Line } from '../../model/gate';
import type { Id } from '../../model/id';
import { failed, ok, type Result } from '../../model/problem';
import { sameJson } from '../../model/same-json';
import { treeOf } from '../../model/tree';
import { changedMeanwhile } from './changed-meanwhile';
import type { Edit } from './edit';
import { changeElements } from './elements';

/**
 * The definition with the edit made in it; the one that was given stays as it is. Refused, with the reason, where the
 * definition is not as the edit expects (`changed-meanwhile`) or would not be sound afterwards. It does not throw.
 *
 * @example
 * const line = { id: 'l1', who: { kind: 'role', role: 'lender' }, what: 'see' };
 * const made = applyEdit(LARKFIELD, { do: 'addLine', gate: 's_stores', line, at: 0 });
 * made.ok && made.value.gates.s_stores.lines[0].id // → 'l1'
 * applyEdit(LARKFIELD, { do: 'removeLine', gate: 's_stores', line, at: 0 }).ok // → false
 */
export function applyEdit(definition: Definition, edit: Edit): Result<Definition> {
  const made = applyUnchecked(definition, edit);
  if (!made.ok) return made;
  const faults = findFaults(made.value);
  return faults.length > 0 ? failed(...faults) : made;
}

/** The definition with the edit made in it, sound or not: for the steps of one that is sound in the end. */
export function applyUnchecked(definition: Definition, edit: Edit): Result<Definition> {
  switch (edit.do) {
    case 'together':
      return edit.edits.reduce<Result<Definition>>(
        (done, one) => (done.ok ? applyUnchecked(done.value, one) : done),
        ok(definition),
      );
    case 'addItem':
    case 'removeItem':
    case 'changeItem':
    case 'moveItem':
      return changeList(definition, edit);
    case 'changeClosed':
      return changeClosed(definition, edit);
    case 'changeSettings':
      return changeSettings(definition, edit);
    case 'replace':
      return sameJson(definition, edit.from) && edit.from.id === edit.to.id
        ? ok(edit.to)
        : failed(
            changedMeanwhile(definition.name, 'The application’s settings have changed in the meantime.'),
          );
    case 'addElement':
    case 'removeElement':
    case 'moveElement':
    case 'changeElement':
      return changeElements(definition, edit);
    case 'addLine':
    case 'changeLine':
    case 'follow':
    case 'removeLine':
    case 'startLines':
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
  if (edit.do === 'startLines') return gate ? meanwhile('It now has its own lines.') : withLines(edit.lines);
  if (!gate) return meanwhile('It now follows its container.');
  const { lines } = gate;
  const holds = (line: Line): number => lines.findIndex((one) => sameLine(one, line));
  switch (edit.do) {
    case 'follow':
      return sameLines(lines, edit.lines)
        ? withLines(undefined)
        : meanwhile('Its lines have changed in the meantime.');
    case 'addLine':
      return lines.some((one) => one.id === edit.line.id)
        ? meanwhile('This line already exists.')
        : withLines(lines.toSpliced(edit.at, 0, edit.line));
    case 'removeLine': {
      const at = holds(edit.line);
      return at < 0 ? meanwhile('This line has changed in the meantime.') : withLines(lines.toSpliced(at, 1));
    }
    case 'changeLine': {
      const at = holds(edit.from);
      return at < 0
        ? meanwhile('This line has changed in the meantime.')
        : withLines(lines.with(at, edit.to));
    }
  }
}

function withGate(gates: Definition['gates'], id: Id, gate: Gate | undefined): Definition['gates'] {
  if (gate) return { ...gates, [id]: gate };
  const { [id]: _, ...others } = gates;
  return others;
}

interface Item {
  readonly id: Id;
  readonly name: string;
}

function changeList(definition: Definition, edit: Extract<Edit, { list: string }>): Result<Definition> {
  const items: readonly Item[] = definition[edit.list];
  const withItems = (now: readonly Item[]): Result<Definition> => ok({ ...definition, [edit.list]: now });
  const meanwhile = (item: Item, message: string): Result<never> =>
    failed(changedMeanwhile(item.name, message));
  const holds = (item: Item): number => items.findIndex((one) => sameJson(one, item));
  switch (edit.do) {
    case 'addItem':
      return items.some((one) => one.id === edit.item.id)
        ? meanwhile(edit.item, 'It already exists.')
        : withItems(items.toSpliced(edit.at, 0, edit.item));
    case 'removeItem': {
      const at = holds(edit.item);
      return at < 0
        ? meanwhile(edit.item, 'It has changed in the meantime.')
        : withItems(items.toSpliced(at, 1));
    }
    case 'changeItem': {
      const at = holds(edit.from);
      if (at < 0) return meanwhile(edit.from, 'It has changed in the meantime.');
      if (edit.from.id === edit.to.id) return withItems(items.with(at, edit.to));
      return failed({
        code: 'id-changed',
        place: edit.from.name,
        message: 'The id of an item cannot be changed.',
        mend: 'Keep the original id.',
      });
    }
    case 'moveItem': {
      const item = items[edit.from];
      if (item?.id !== edit.id)
        return failed(changedMeanwhile(edit.id, 'It has been moved in the meantime.'));
      return withItems(items.toSpliced(edit.from, 1).toSpliced(edit.to, 0, item));
    }
  }
}

function changeClosed(
  definition: Definition,
  { element, from, to }: Extract<Edit, { do: 'changeClosed' }>,
): Result<Definition> {
  const now: Closed | undefined = Object.hasOwn(definition.closed, element)
    ? definition.closed[element]
    : undefined;
  if (!sameJson(now, from))
    return failed(
      changedMeanwhile(
        nameOf(definition, element),
        'What people without access see has changed in the meantime.',
      ),
    );
  const others = Object.entries(definition.closed).filter(([id]) => id !== element);
  return ok({ ...definition, closed: Object.fromEntries(to ? [...others, [element, to]] : others) });
}

function changeSettings(
  definition: Definition,
  { from, to }: Extract<Edit, { do: 'changeSettings' }>,
): Result<Definition> {
  const now = definition as unknown as Record<string, unknown>;
  for (const [key, value] of Object.entries(from))
    if (!sameJson(now[key] ?? null, value))
      return failed(changedMeanwhile(definition.name, 'Its settings have changed in the meantime.'));
  const made = Object.entries({ ...now, ...to }).filter(([, value]) => value !== null);
  return ok(Object.fromEntries(made) as unknown as Definition);
}

const nameOf = (definition: Definition, id: Id): string => treeOf(definition).get(id)?.name ?? id;
