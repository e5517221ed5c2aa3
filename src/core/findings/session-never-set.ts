import { operandsOf } from '../condition/condition';
import { questionsOf, conditionsIn } from './conditions';
import type { Check } from './finding';

/**
 * A condition asks for a session value that no button and no screen sets: it is never there, and the condition never true.
 *
 * Has it: a screen that opens where the session says "checked", which nothing ever says.
 * Has it not: the same, with a button that sets it.
 */
export const sessionNeverSet: Check = {
  kind: 'session-never-set',
  rank: 'not-meant',
  title: 'A session value that nothing sets',
  *find(context) {
    const { tree, definition } = context;
    const set = new Set<string>();
    for (const one of tree.elements) {
      if (one.kind === 'button' && one.node.effect.do === 'set-session' && one.node.effect.to !== null)
        set.add(one.node.effect.value);
      if (one.kind === 'screen')
        for (const { value, to } of one.node.sets ?? []) if (to !== null) set.add(value);
    }
    for (const { id, name } of definition.sessionValues) {
      if (set.has(id)) continue;
      const asking = [...conditionsIn(context)].filter(({ condition }) =>
        questionsOf(condition)
          .flatMap(operandsOf)
          .some((one) => 'session' in one && one.session === id),
      );
      const [first] = asking;
      if (!first) continue;
      const more = asking.length > 1 ? ` and ${asking.length - 1} more` : '';
      yield {
        reason: `${first.name}${more} uses the session value ${name}, which no button and no screen sets.`,
        places: [id, ...new Set(asking.map(({ place }) => place))],
        whom: [],
        mends: [],
      };
    }
  },
};
