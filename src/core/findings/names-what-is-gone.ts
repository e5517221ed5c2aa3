import { isGone } from '../model/gone';
import type { Check } from './finding';

/**
 * A line speaks of a role, privilege, group or unit that is not there any more: it gives nobody anything, and where it
 * takes something away, it does so from everybody, since in doubt it counts.
 *
 * Has it: a line for a role that a file names and that the application does not have.
 * Has it not: the same line, once there is such a role.
 */
export const namesWhatIsGone: Check = {
  kind: 'names-what-is-gone',
  rank: 'not-meant',
  title: 'It names what is gone',
  *find({ definition, tree }) {
    for (const [id, { lines }] of Object.entries(definition.gates))
      for (const [at, line] of lines.entries()) {
        if (!isGone(definition, line.who)) continue;
        const takes = line.what === 'block' || line.what === 'at-most-see';
        yield {
          reason: `A line at ${tree.get(id)?.name ?? id} names a ${line.who.kind} that is gone${takes ? ', and so takes it from everybody' : ''}.`,
          places: [id],
          whom: [],
          mends: [{ says: 'Take the line away.', edit: { do: 'removeLine', gate: id, line, at } }],
        };
      }
  },
};
