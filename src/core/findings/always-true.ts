import { print } from '../condition/print';
import { reachable } from '../condition/reachable';
import { gives } from '../model/gate';
import { conditionsIn, judgedParts } from './conditions';
import type { Check } from './finding';

/**
 * A condition, or a question in one, that is true of every value there can be from now on: it looks as if it kept somebody
 * out and keeps out only where the value is missing.
 *
 * Has it: `status in [open, closed]` of a field that has just these two; `day < 40`; from a day on that is over.
 * Has it not: `status in [open]`.
 */
export const alwaysTrue: Check = {
  kind: 'always-true',
  rank: 'not-meant',
  title: 'A condition that is always true',
  *find(context) {
    for (const { place, name, condition, scope, line, without } of conditionsIn(context)) {
      const isAlways = (one: typeof condition, from?: string): boolean => {
        const answers = reachable(scope, one, from);
        return answers !== undefined && answers.isTrue && !answers.isFalse;
      };
      const isNow = (one: typeof condition): boolean => isAlways(one, context.today);
      const whole = isNow(condition);
      const always = whole ? condition : judgedParts(condition).find(isNow);
      if (!always) continue;
      const since = isAlways(always) ? '' : ' from now on';
      // A line that takes away does so in doubt too: without its condition it is the same.
      const same = whole && without && line && !gives(line.line);
      yield {
        reason: `${name} uses “${print(scope, always)}”, which is always true${since} when there is a value.`,
        places: [place],
        whom: [],
        mends: same ? [{ says: 'Remove the condition.', does: 'closes', edit: without }] : [],
      };
    }
  },
};
