import { goneIn } from '../condition/check';
import { idInKey } from '../access/deciding/viewer-key';
import { isGone } from '../model/gone';
import { conditionsIn } from './conditions';
import type { Check } from './finding';

/**
 * A line or a condition speaks of a role, privilege, group, unit or person that is not there any more: it gives nobody
 * anything, and where it takes something away, it does so from everybody, since in doubt it counts.
 *
 * Has it: a line for a role that a file names and that the application does not have.
 * Has it not: the same line, once there is such a role.
 */
export const namesWhatIsGone: Check = {
  kind: 'names-what-is-gone',
  rank: 'not-meant',
  title: 'It names what is gone',
  *find(context) {
    const { definition, tree, people } = context;
    const ids = new Set(people.map(({ key }) => idInKey('person', key)));
    for (const [id, { lines }] of Object.entries(definition.gates))
      for (const [at, line] of lines.entries()) {
        const lacks = line.who.kind === 'person' && people.length > 0 && !ids.has(line.who.person);
        if (!lacks && !isGone(definition, line.who)) continue;
        const takes = line.what === 'block' || line.what === 'at-most-see';
        yield {
          reason: `A line at ${tree.get(id)?.name ?? id} names a ${line.who.kind} that is gone${takes && !lacks ? ', and so takes it from everybody' : lacks ? ' or may not sign in' : ''}.`,
          places: [id],
          whom: [],
          mends: [{ says: 'Take the line away.', edit: { do: 'removeLine', gate: id, line, at } }],
        };
      }
    for (const { place, name, condition } of conditionsIn(context))
      for (const what of goneIn(definition, condition))
        yield { reason: `${name} asks for ${what}, which is gone.`, places: [place], whom: [], mends: [] };
  },
};
