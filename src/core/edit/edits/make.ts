import type { Condition } from '../../condition/condition';
import type { Definition, NewScreens, Screen } from '../../model/definition';
import { sameLine, type Gate, type Line, type What, type Who } from '../../model/gate';
import { newId, type Id } from '../../model/id';
import type { ElementNode } from '../../model/slots';
import { treeOf } from '../../model/tree';
import type { Edit } from './edit';

export const newLine = (who: Who, what: What, when?: Condition): Line => ({
  id: newId(),
  who,
  what,
  ...(when && { when }),
});

const STARTS_WITH: Readonly<Record<NewScreens, Who | undefined>> = {
  nobody: undefined,
  'signed-in': { kind: 'signed-in' },
  everyone: { kind: 'everyone' },
};

/** The gate that a new screen starts with. */
export function newGate({ newScreens }: Pick<Definition, 'newScreens'>): Gate {
  const who = STARTS_WITH[newScreens];
  return { lines: who ? [newLine(who, 'edit')] : [] };
}

/** The definition with a gate for every screen: one that a file says nothing of is gated as new screens are. */
export function withScreensGated(definition: Definition): Definition {
  const without = treeOf(definition)
    .screens()
    .filter(({ id }) => !Object.hasOwn(definition.gates, id));
  if (without.length === 0) return definition;
  const added = without.map(({ id }) => [id, newGate(definition)] as const);
  return { ...definition, gates: { ...definition.gates, ...Object.fromEntries(added) } };
}

/** The edit that adds a screen at the end of an area, gated as the application's setting for new screens says. */
export function addScreen(definition: Definition, area: Id, screen: Screen): Edit {
  const at = definition.areas.find((one) => one.id === area)?.screens.length ?? 0;
  const gates = { [screen.id]: newGate(definition) };
  const node = screen as unknown as ElementNode;
  return { do: 'addElement', into: { in: area, list: 'screens' }, at, node, gates, closed: {} };
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

/**
 * The edit that takes a role, a privilege or a group away, with all that speaks of it: lines, inclusions,
 * what roles hold and hand out. Conditions that ask of it stay, and are in doubt.
 */
export function removeNamed(definition: Definition, list: 'roles' | 'groups', id: Id): Edit | undefined {
  const at = definition[list].findIndex((one) => one.id === id);
  const item = definition[list][at];
  if (!item) return undefined;
  const edits: Edit[] = linesOn(definition, (who) =>
    list === 'roles' ? who.kind === 'role' && who.role === id : who.kind === 'group' && who.group === id,
  );
  if (list === 'roles')
    for (const role of definition.roles) {
      const handsOut = role.handsOut?.filter((one) => one.role !== id);
      const includes = role.includes.filter((one) => one !== id);
      const same = includes.length === role.includes.length && handsOut?.length === role.handsOut?.length;
      if (role.id === id || same) continue;
      edits.push({
        do: 'changeItem',
        list: 'roles',
        from: role,
        to: { ...role, includes, ...(handsOut && { handsOut }) },
      });
    }
  edits.push({ do: 'removeItem', list, at, item } as Edit);
  return { do: 'together', edits };
}

/** The edit that takes a privilege away, with the lines that name it, and from the roles that hold it. */
export function removePrivilege(definition: Definition, id: Id): Edit | undefined {
  const group = definition.privileges.find((one) => one.privileges.some((each) => each.id === id));
  if (!group) return undefined;
  const edits = linesOn(definition, (who) => who.kind === 'privilege' && who.privilege === id);
  for (const role of definition.roles)
    if (role.privileges.includes(id))
      edits.push({
        do: 'changeItem',
        list: 'roles',
        from: role,
        to: { ...role, privileges: role.privileges.filter((one) => one !== id) },
      });
  const privileges = group.privileges.filter((one) => one.id !== id);
  edits.push({ do: 'changeItem', list: 'privileges', from: group, to: { ...group, privileges } });
  return { do: 'together', edits };
}

/** The edits that take away all lines whose who is such, from the last in each gate to the first. */
function linesOn(definition: Definition, isSuch: (who: Who) => boolean): Edit[] {
  return Object.entries(definition.gates).flatMap(([gate, { lines }]) =>
    lines
      .map((line, at): Edit => ({ do: 'removeLine', gate, line, at }))
      .filter((edit) => edit.do === 'removeLine' && isSuch(edit.line.who))
      .reverse(),
  );
}
