import { NONE } from '../access/deciding/level';
import type { List } from '../model/definition';
import type { AppElement } from '../model/tree';
import type { Context } from './context';
import type { Check, ProposedMend } from './finding';
import { called, sentence } from './words';

/**
 * A list shows people every record, and the screen that it opens is open to them for some of these only: what the screen
 * keeps from them, the list tells.
 *
 * Has it: a list of all pieces, which opens a screen that is open to lenders where the piece is theirs.
 * Has it not: the same list with a filter that asks for that.
 */
export const listWithoutFilter: Check = {
  kind: 'list-without-filter',
  rank: 'lets-in',
  title: 'A list shows what its screen keeps',
  *find(context) {
    const { tree } = context;
    for (const list of tree.elements) {
      if (list.kind !== 'list' || list.node.filter || list.node.of !== undefined) continue;
      const screen = tree.get(list.node.opens ?? '');
      if (!screen) continue;
      const whom = context.viewers.filter((viewer) => {
        const opened = context.answer(viewer, screen);
        return context.answer(viewer, list).least > NONE && opened.least === NONE && opened.most > NONE;
      });
      if (whom.length === 0) continue;
      yield {
        reason: sentence(
          `${called(list)} shows every record to ${context.names(whom)}, but ${called(screen)}, which it opens, is open to them for some records only.`,
        ),
        places: [list.id, screen.id],
        whom,
        mends: mendsFor(context, list, list.node),
      };
    }
  },
};

/** The filter of another list of the same data that opens the same screen. */
function mendsFor(context: Context, list: AppElement, { entity, opens }: List): ProposedMend[] {
  for (const other of context.tree.elements) {
    if (other.kind !== 'list' || other.node.entity !== entity || other.node.opens !== opens) continue;
    const { filter } = other.node;
    if (!filter) continue;
    return [
      {
        says: `Give ${called(list)} the filter of ${called(other)}, so that it shows everyone only these records.`,
        does: 'closes',
        edit: { do: 'changeElement', id: list.id, from: { filter: null }, to: { filter } },
      },
    ];
  }
  return [];
}
