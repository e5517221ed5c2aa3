import { NONE } from '../access/deciding/level';
import { gives, type Who } from '../model/gate';
import type { AppElement } from '../model/tree';
import type { AskedViewer, Context } from './context';
import type { PlacedLine } from './mends';

/** A line that gives, and what is closed to all of whom it speaks: the outermost it stands in, or its door. */
export interface UnhelpfulLine extends PlacedLine {
  readonly closed: AppElement;
  readonly isWithin: boolean;
  readonly whom: readonly AskedViewer[];
}

const known = new WeakMap<Context, readonly UnhelpfulLine[]>();

/** The lines that give something to people for whom what they stand in, or its door, is closed. */
export function unhelpfulLines(context: Context): readonly UnhelpfulLine[] {
  let found = known.get(context);
  if (!found) known.set(context, (found = [...find(context)]));
  return found;
}

function* find(context: Context): Generator<UnhelpfulLine> {
  const { definition, tree, compiled } = context;
  for (const [id, { lines }] of Object.entries(definition.gates)) {
    const element = tree.get(id);
    if (!element) continue;
    const door = context.element(compiled.handles.doorOf(element)?.id ?? '');
    for (const [at, line] of lines.entries()) {
      if (!gives(line)) continue;
      const around = closedAround(context, element, line.who);
      const isBehind =
        !around && door && context.allOf(line.who, (viewer) => context.most(viewer, door) === NONE);
      const closed = around ?? (isBehind ? door : undefined);
      const whom = closed ? context.spokenOf(line.who) : [];
      if (closed && whom.length > 0)
        yield { element, line, at, closed, isWithin: around !== undefined, whom };
    }
  }
}

/** The outermost of what it stands in that is closed to all of them. */
function closedAround(context: Context, element: AppElement, who: Who): AppElement | undefined {
  let closed: AppElement | undefined;
  for (let one = element.container; one; one = one.container) {
    const at = one;
    if (!context.allOf(who, (viewer) => context.mostByGate(viewer, at) === NONE)) break;
    closed = at;
  }
  return closed;
}
