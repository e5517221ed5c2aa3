import { reachable } from '../condition/reachable';
import type { Condition } from '../condition/condition';
import { EDIT } from '../access/deciding/level';
import { gives } from '../model/gate';
import type { Check } from './finding';

/**
 * An action sets a field to what its own gate, or the records' gate, no longer lets through: it is always refused, since
 * nobody may put a record where they could not have it.
 *
 * Has it: "Mark as returned" sets the status to returned, and the action is given while the status is out.
 * Has it not: the same action given whatever the status is.
 */
export const actionAlwaysRefused: Check = {
  kind: 'action-always-refused',
  rank: 'not-meant',
  title: 'An action that is always refused',
  *find(context) {
    const { definition, tree } = context;
    for (const action of tree.elements) {
      if (action.kind !== 'action' || action.node.kind !== 'named') continue;
      const { sets } = action.node;
      const entity = tree.recordOf(action);
      const made = Object.entries(sets).map(([field, to]): Condition =>
        to === null
          ? { empty: { record: field } }
          : { compare: '=', left: { record: field }, right: { value: to } },
      );
      if (!entity || made.length === 0) continue;
      for (const gate of [action, tree.need(entity.id, 'rows')]) {
        const lines = context.compiled.lines(gate.id)?.filter(gives) ?? [];
        const still = lines.some(
          ({ when }) =>
            !when || reachable({ definition, entity }, { all: [when, ...made] })?.isTrue !== false,
        );
        if (lines.length === 0 || still) continue;
        const whom = context.whoGets(action, EDIT);
        yield {
          reason: `${action.name} is always refused: what it sets closes ${gate === action ? 'the action itself' : `the record of ${entity.name}`}.`,
          places: [action.id, ...(gate === action ? [] : [gate.id])],
          whom,
          mends: [],
        };
        break;
      }
    }
  },
};
