import { print } from '../condition/print';
import { reachable } from '../condition/reachable';
import { gives } from '../model/gate';
import type { Context } from './context';
import { conditionsIn, judgedParts, type PlacedCondition } from './conditions';
import type { Check, ProposedMend } from './finding';
import { removingLine } from './mends';

/**
 * A condition, or a question in one, that no record, person or time to come makes true: the line never counts, the list is
 * always empty, nobody is in the group.
 *
 * Has it: `day > 40`; `weekday = monday and weekday = friday`; a time that a clock change leaves out on its only day; a day
 * that is over.
 * Has it not: `day = 31`, which is true in some months.
 */
export const neverTrue: Check = {
  kind: 'never-true',
  rank: 'not-meant',
  title: 'A condition that is never true',
  *find(context) {
    for (const placed of conditionsIn(context)) {
      const { place, name, condition, scope } = placed;
      const whole = reachable(scope, condition, context.today);
      const never =
        whole && !whole.isTrue
          ? condition
          : judgedParts(condition).find((one) => reachable(scope, one, context.today)?.isTrue === false);
      if (!never) continue;
      const was = reachable(scope, never)?.isTrue === true;
      yield {
        reason: `${name} uses “${print(scope, never)}”, which can ${was ? 'no longer' : 'never'} be true.`,
        places: [place],
        whom: [],
        mends: never === condition ? mendsFor(context, placed) : [],
      };
    }
  },
};

/** A line that never counts can go; where it takes something away, what is in doubt would be let in by that. */
function mendsFor(context: Context, { place, line }: PlacedCondition): ProposedMend[] {
  const element = context.element(place);
  if (!line || !element || !gives(line.line)) return [];
  return [removingLine(context, { element, ...line })];
}
