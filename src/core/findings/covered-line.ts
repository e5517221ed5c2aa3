import { isCoveredBy } from './covering';
import type { Check } from './finding';
import { linesIn } from './lines-in';
import { lineCalled, removingLine } from './mends';
import { called, sentence } from './words';

/**
 * A line that another one of the same gate always covers: it gives to some what the other gives them anyhow, or takes from
 * some what the other takes from them. Without it nobody's access changes.
 *
 * Has it: "Registrar: see" beside "Assistant: edit", where Registrar includes Assistant.
 * Has it not: "Registrar: edit" beside "Assistant: see".
 */
export const coveredLine: Check = {
  kind: 'covered-line',
  rank: 'not-meant',
  title: 'Redundant line',
  *find(context) {
    const { definition } = context;
    for (const { element, line, at, lines } of linesIn(context)) {
      const other = lines.findIndex(
        (one, n) => n !== at && isCoveredBy(definition, { line, at }, { line: one, at: n }),
      );
      if (other < 0) continue;
      const placed = { element, line, at };
      yield {
        reason: sentence(
          `${lineCalled(context, placed)} of ${called(element)} has no effect, because line ${other + 1} already covers it.`,
        ),
        places: [element.id],
        whom: [],
        mends: [removingLine(context, placed)],
      };
    }
  },
};
