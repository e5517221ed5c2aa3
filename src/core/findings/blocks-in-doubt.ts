import { operandsOf } from '../condition/condition';
import { allNamed } from '../condition/named';
import { gives } from '../model/gate';
import type { Check } from './finding';
import { linesIn } from './lines-in';
import { lineCalled } from './mends';
import { called, sentence } from './words';

/**
 * A line takes something away under a condition on people, and so from everybody who is signed out: nothing is known of
 * them, and in doubt it counts.
 *
 * Has it: "Everyone: edit" with "Everyone: block, when user.badge = …".
 * Has it not: the same with "Signed in: block, when user.badge = …".
 */
export const blocksInDoubt: Check = {
  kind: 'blocks-in-doubt',
  rank: 'not-meant',
  title: 'In doubt, it closes to everyone signed out',
  *find(context) {
    const { definition, signedOut } = context;
    for (const { element, line, at, lines } of linesIn(context)) {
      if (gives(line) || !line.when || !context.isSomebody(line.who, [signedOut])) continue;
      const asksPeople = allNamed(definition, line.when)
        .flatMap(operandsOf)
        .some((one) => 'user' in one);
      const without = lines.filter((one) => one !== line);
      const [now, then] = [lines, without].map((some) => context.givenBy(signedOut, element, some).most);
      if (!asksPeople || (then ?? 0) <= (now ?? 0)) continue;
      const to = { ...line, who: { kind: 'signed-in' } } as const;
      yield {
        reason: sentence(
          `${lineCalled(context, { element, line, at })} closes ${called(element)} to everyone who is signed out: nothing is known about them, and in doubt the line applies.`,
        ),
        places: [element.id],
        whom: [signedOut],
        mends:
          line.who.kind === 'everyone'
            ? [
                {
                  says: 'Apply the line only to people who are signed in, which opens the element to people who are signed out.',
                  does: 'opens',
                  to: [signedOut],
                  edit: { do: 'changeLine', gate: element.id, from: line, to },
                },
              ]
            : [],
      };
    }
  },
};
