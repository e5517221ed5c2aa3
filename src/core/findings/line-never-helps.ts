import { closingContainers } from './container-closes';
import type { Check } from './finding';
import { lineCalled, removingLine } from './mends';
import { unhelpfulLines } from './unhelpful-lines';
import { called, sentence } from './words';

/**
 * A line gives something to people for whom what it stands in, or its door, is closed: it helps none of them.
 *
 * Has it: "Lender: see" at a menu item beside a line for registrars, where its screen is closed to lenders.
 * Has it not: the same line where lenders can open the screen.
 */
export const lineNeverHelps: Check = {
  kind: 'line-never-helps',
  rank: 'not-meant',
  title: 'Line without effect behind a closed door',
  *find(context) {
    const toldOnce = new Set([...closingContainers(context).values()].flat());
    for (const one of unhelpfulLines(context)) {
      const { element, closed, whom } = one;
      // Where nobody has access at all, that is told by itself.
      if (toldOnce.has(one) || (context.compiled.lines(element.id)?.length ?? 0) < 2) continue;
      if (context.nobodyGets(element)) continue;
      yield {
        reason: sentence(
          `${lineCalled(context, one)} of ${called(element)} has no effect: ${called(closed)} is closed to ${context.names(whom)}.`,
        ),
        places: [element.id, closed.id],
        whom,
        mends: [removingLine(context, one)],
      };
    }
  },
};
