import { NONE } from '../access/deciding/level';
import { viewerKey } from '../access/deciding/viewer-key';
import type { Role } from '../model/definition';
import type { AskedViewer } from './context';
import type { Check } from './finding';

/**
 * People have a role in a unit only, and the role opens records that have no unit: there, it gives them nothing.
 *
 * Has it: an assistant of the annexe, and tags, which belong to no unit and are open to assistants.
 * Has it not: the same, where the assistant has the role everywhere.
 */
export const heldInAUnitOnly: Check = {
  kind: 'held-in-a-unit-only',
  rank: 'not-meant',
  title: 'A role in a unit, for data without units',
  *find(context) {
    const { definition, tree } = context;
    for (const role of definition.roles) {
      const holders = context.persons.filter((one) => isInUnitsOnly(one, role));
      const kind = context.kind(viewerKey('role', role.id));
      if (holders.length === 0 || !kind) continue;
      for (const entity of definition.entities) {
        const rows = tree.need(entity.id, 'rows');
        if (entity.unitField !== undefined || context.most(kind, rows) === NONE) continue;
        const whom = holders.filter((one) => context.most(one, rows) === NONE);
        if (whom.length === 0) continue;
        yield {
          reason: `${context.names(whom)} have ${role.name} in a unit only, and ${entity.plural} have no unit: there, the role gives them nothing.`,
          places: [role.id, entity.id],
          whom,
          mends: [],
        };
      }
    }
  },
};

function isInUnitsOnly({ viewer }: AskedViewer, { id }: Role): boolean {
  const held = viewer.kind === 'signed-in' ? viewer.assignments.filter(({ role }) => role === id) : [];
  return held.length > 0 && held.every(({ unit }) => unit !== undefined);
}
