import type { Definition, NewScreens, Screen } from '../model/definition';
import { sameLine, type Line, type What, type Who } from '../model/gate';
import { newId, type Id } from '../model/id';
import type { Edit } from './edit';

export const newLine = (who: Who, what: What): Line => ({ id: newId(), who, what });

const STARTS_WITH: Readonly<Record<NewScreens, Who | undefined>> = {
  nobody: undefined,
  'signed-in': { kind: 'signed-in' },
  everyone: { kind: 'everyone' },
};

/** The edit that adds a screen at the end of an area, gated as the application's setting for new screens says. */
export function addScreen(definition: Definition, area: Id, screen: Screen): Edit {
  const who = STARTS_WITH[definition.newScreens];
  const at = definition.areas.find((one) => one.id === area)?.screens.length ?? 0;
  return { do: 'addScreen', area, at, screen, lines: who ? [newLine(who, 'edit')] : [] };
}

/**
 * The edit that gives a gate the lines `after`, where it has `before` (undefined: it follows): as few
 * and as small changes as there can be. Lines are the same by their id.
 */
export function editLines(gate: Id, before: readonly Line[] | undefined, after: readonly Line[]): Edit {
  if (!before) return { do: 'startLines', gate, lines: after };
  const edits: Edit[] = [];
  before.forEach((line, at) => {
    const to = after.find((one) => one.id === line.id);
    if (!to) edits.unshift({ do: 'removeLine', gate, line, at });
    else if (!sameLine(line, to)) edits.unshift({ do: 'changeLine', gate, from: line, to });
  });
  after.forEach((line, at) => {
    if (!before.some((one) => one.id === line.id)) edits.push({ do: 'addLine', gate, line, at });
  });
  return edits.length === 1 ? (edits[0] as Edit) : { do: 'together', edits };
}
