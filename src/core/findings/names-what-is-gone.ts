import { goneIn } from '../condition/check';
import { idInKey } from '../access/deciding/viewer-key';
import { isDangling } from '../model/dangling-references';
import { conditionsIn } from './conditions';
import type { Check } from './finding';
import { removingLine } from './mends';
import { called } from './words';

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
  title: 'Reference to a deleted item',
  *find(context) {
    const { definition, tree, people } = context;
    const ids = new Set(people.map(({ key }) => idInKey('person', key)));
    for (const [id, { lines }] of Object.entries(definition.gates))
      for (const [at, line] of lines.entries()) {
        const element = tree.get(id);
        if (!element) continue;
        const lacks = line.who.kind === 'person' && people.length > 0 && !ids.has(line.who.person);
        if (!lacks && !isDangling(definition, line.who)) continue;
        const takes = line.what === 'block' || line.what === 'at-most-see';
        yield {
          reason: `Line ${at + 1} of ${called(element)} refers to a ${line.who.kind} that no longer exists${takes && !lacks ? ', and in doubt it takes access from everyone' : lacks ? ' or cannot sign in' : ''}.`,
          places: [id],
          whom: [],
          mends: [removingLine(context, { element, line, at })],
        };
      }
    for (const { place, name, condition } of conditionsIn(context))
      for (const what of goneIn(definition, condition))
        yield {
          reason: `${name} refers to ${what}, which no longer exists.`,
          places: [place],
          whom: [],
          mends: [],
        };
  },
};
