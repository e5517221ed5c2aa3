import { gives } from '../model/gate';
import { withIncluded } from '../model/tree';
import type { Check } from './finding';
import { linesIn } from './lines-in';
import { lineCalled } from './mends';
import { called, sentence } from './words';

/**
 * A line takes something from a role and, since it does not say "exactly", from the roles above it too, to whom other
 * lines give it.
 *
 * Has it: "Everyone: edit" with "Volunteer: block", where registrars are volunteers too.
 * Has it not: the same with "Volunteer, exactly: block".
 */
export const blockHitsAbove: Check = {
  kind: 'block-hits-above',
  rank: 'not-meant',
  title: 'A block that hits the roles above too',
  *find(context) {
    const { definition } = context;
    for (const { element, line, at, lines } of linesIn(context)) {
      if (gives(line) || line.who.kind !== 'role' || line.who.exactly) continue;
      const exactly = { ...line, who: { ...line.who, exactly: true } };
      const changed = lines.map((one) => (one === line ? exactly : one));
      const { role } = line.who;
      const above = definition.roles.filter(
        ({ id: other }) => other !== role && withIncluded(definition, [other]).has(role),
      );
      const whom = context.roleKinds(above).filter((viewer) => {
        const [now, then] = [lines, changed].map((some) => context.givenBy(viewer, element, some).most);
        return (then ?? 0) > (now ?? 0);
      });
      if (whom.length === 0) continue;
      const names = context.names(whom);
      yield {
        reason: sentence(
          `${lineCalled(context, { element, line, at })} of ${called(element)} also removes access from ${names}, who are given it by other lines.`,
        ),
        places: [element.id],
        whom,
        mends: [
          {
            says: `Apply the line only to people who are assigned the role directly, so that ${names} have access again.`,
            does: 'opens',
            edit: { do: 'changeLine', gate: element.id, from: line, to: exactly },
          },
        ],
      };
    }
  },
};
