import { NONE } from '../access/deciding/level';
import { gives, type Who } from '../model/gate';
import type { AppElement } from '../model/tree';
import type { Context } from './context';
import type { Check } from './finding';

/**
 * A line gives something to people for whom what it stands in, or its door, is closed: it helps none of them.
 *
 * Has it: "Lender: see" at a menu item beside a line for registrars, where its screen is closed to lenders.
 * Has it not: the same line where lenders can open the screen.
 */
export const lineNeverHelps: Check = {
  kind: 'line-never-helps',
  rank: 'not-meant',
  title: 'A line behind a closed door',
  *find(context) {
    const { definition, tree } = context;
    for (const [id, { lines }] of Object.entries(definition.gates)) {
      const element = tree.get(id);
      // Where nobody gets it at all, that is told by itself.
      if (!element || lines.length < 2 || context.nobodyGets(element)) continue;
      for (const [at, line] of lines.entries()) {
        if (!gives(line)) continue;
        const closed = closedTo(context, element, line.who);
        const whom = closed ? context.spokenOf(line.who) : [];
        if (!closed || whom.length === 0) continue;
        yield {
          reason: `Line ${at + 1} of ${element.name} gives ${context.names(whom)} nothing: ${closed.name} is closed to them.`,
          places: [id, closed.id],
          whom,
          mends: [{ says: `Take line ${at + 1} away.`, edit: { do: 'removeLine', gate: id, line, at } }],
        };
      }
    }
  },
};

/** What it stands in, or its door, where that is closed to all of them. */
function closedTo(context: Context, element: AppElement, who: Who): AppElement | undefined {
  const { container } = element;
  const door = context.element(context.compiled.handles.doorOf(element)?.id ?? '');
  if (container && context.allOf(who, (viewer) => context.mostByGate(viewer, container) === NONE))
    return container;
  return door && context.allOf(who, (viewer) => context.most(viewer, door) === NONE) ? door : undefined;
}
