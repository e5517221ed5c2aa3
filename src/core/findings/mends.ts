import { EDIT, NONE } from '../access/deciding/level';
import { idInKey, SIGNED_IN_KEY, SIGNED_OUT_KEY, viewerKey } from '../access/deciding/viewer-key';
import { lineInWords } from '../edit/comparing/words';
import type { Edit } from '../edit/edits/edit';
import { editLines, newLine } from '../edit/edits/make';
import { removalOf } from '../edit/shaping/removal';
import type { Definition } from '../model/definition';
import { gives, type Line, type What, type Who } from '../model/gate';
import { newId, type Id } from '../model/id';
import { withIncluded, type AppElement } from '../model/tree';
import type { AskedViewer, Context } from './context';
import { withoutCovered } from './covering';
import type { Fix, ProposedMend } from './finding';
import { called } from './words';

/** The mend that deletes an element with all that names it. */
export const deleting = (element: AppElement): ProposedMend => ({
  says: `Delete ${called(element)}.`,
  does: 'closes',
  removes: element.id,
});

/** A line of a gate, and its place there. */
export interface PlacedLine {
  readonly element: AppElement;
  readonly line: Line;
  readonly at: number;
}

/** "line 2 (Clerk and above: edit)". */
export function lineCalled({ definition, people }: Context, { element, line, at }: PlacedLine): string {
  const nameOf = (id: string) => people.find(({ key }) => key === viewerKey('person', id))?.name;
  return `line ${at + 1} (${lineInWords(line, element.id, definition, nameOf)})`;
}

/** The mend that removes a line: it closes where the line gives, and opens where it takes away, if it does anything at all. */
export const removingLine = (context: Context, placed: PlacedLine): ProposedMend => ({
  says: `Remove ${lineCalled(context, placed)} from ${called(placed.element)}.`,
  does: gives(placed.line) ? 'closes' : 'opens',
  edit: { do: 'removeLine', gate: placed.element.id, line: placed.line, at: placed.at },
});

/** The mend that lets something follow again what it stands in, or its door. */
export const following = (
  { compiled }: Context,
  element: AppElement,
  mend: Omit<ProposedMend, 'edit' | 'removes'>,
): ProposedMend => ({
  ...mend,
  edit: { do: 'follow', gate: element.id, lines: compiled.lines(element.id) ?? [] },
});

/**
 * These lines without what they give to these viewers: a line for a role of theirs becomes lines for the roles above it.
 * Undefined where a line speaks of others as well and cannot be narrowed so.
 */
export function narrowed(
  context: Context,
  lines: readonly Line[],
  whom: readonly AskedViewer[],
): readonly Line[] | undefined {
  const { definition } = context;
  const keys = new Set(whom.map(({ key }) => key));
  const isTheirs = (role: Id): boolean => keys.has(viewerKey('role', role));
  const left: Line[] = [];
  for (const line of lines) {
    const { who } = line;
    if (!gives(line) || !context.isSomebody(who, whom)) left.push(line);
    else if (who.kind === 'role' && isTheirs(who.role)) {
      if (who.exactly) continue;
      const above = definition.roles.filter(
        ({ id }) => id !== who.role && !isTheirs(id) && withIncluded(definition, [id]).has(who.role),
      );
      const lowest = above.filter(
        ({ id }) => !above.some((one) => one.id !== id && withIncluded(definition, [id]).has(one.id)),
      );
      left.push(
        ...lowest.map(({ id: role }) => ({ ...line, id: newId(), who: { kind: 'role', role } as const })),
      );
    } else if (!context.allOf(who, ({ key }) => keys.has(key))) return undefined;
  }
  return withoutCovered(definition, left);
}

/** Lines for these viewers and nobody else, as far as lines can say that; undefined where they cannot. */
function linesFor(context: Context, viewers: readonly AskedViewer[], what: What): Line[] | undefined {
  const kinds = viewers.filter(({ key }) => idInKey('person', key) === undefined);
  if (kinds.length === 0) return undefined;
  const signedIn = kinds.find(({ key }) => key === SIGNED_IN_KEY);
  const leading = context.leading(
    signedIn ? kinds.filter(({ key }) => idInKey('role', key) === undefined) : kinds,
  );
  return leading.map(({ viewer: { key }, andAbove }) => newLine(whoOf(key, andAbove), what));
}

function whoOf(key: string, andAbove: boolean): Who {
  const [role, group] = [idInKey('role', key), idInKey('group', key)];
  if (role !== undefined) return { kind: 'role', role, ...(!andAbove && { exactly: true }) };
  if (group !== undefined) return { kind: 'group', group };
  return { kind: key === SIGNED_OUT_KEY ? 'signed-out' : 'signed-in' };
}

/** The edit that adds lines for these viewers to gates; undefined where lines cannot say whom. */
export function addingLines(
  context: Context,
  gates: readonly AppElement[],
  viewers: readonly AskedViewer[],
  what: What,
): Edit | undefined {
  const edits = gates.flatMap((gate): Edit[] => {
    const more = linesFor(context, viewers, what);
    if (!more) return [];
    const lines = context.compiled.lines(gate.id);
    const before = lines ?? [newLine({ kind: 'everyone' }, 'edit')];
    return [editLines(gate.id, lines, [...before, ...more])];
  });
  return edits.length > 1 ? { do: 'together', edits } : edits[0];
}

/** The same, where the lines that it has keep it from these viewers only. */
export function followingFor(
  context: Context,
  element: AppElement,
  whom: readonly AskedViewer[],
  mend: Pick<ProposedMend, 'says' | 'does'>,
): ProposedMend[] {
  const { container } = element;
  const isKept = (viewer: AskedViewer): boolean =>
    context.leastByOwn(viewer, element) < EDIT &&
    (!container || context.mostByGate(viewer, container) > NONE);
  const isForThem = context.kinds.every((viewer) => whom.includes(viewer) || !isKept(viewer));
  return isForThem ? [following(context, element, mend)] : [];
}

/**
 * The edit that takes a door from these viewers: at the door itself where it has lines, else at all that opens it.
 */
export function closedTo(context: Context, door: AppElement, whom: readonly AskedViewer[]): Edit | undefined {
  const { compiled, tree } = context;
  const gates = compiled.lines(door.id)
    ? [door]
    : compiled.handles.handlesOf(door).flatMap((id) => tree.get(id) ?? []);
  return addingLines(context, gates, whom, 'block');
}

/** The edit of a mend; undefined where something cannot be without what it would take away. */
export function editOfMend(definition: Definition, mend: Fix): Edit | undefined {
  if ('edit' in mend) return mend.edit;
  const removal = removalOf(definition, mend.removes);
  return removal.ok ? removal.value.edit : undefined;
}
