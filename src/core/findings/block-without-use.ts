import { operandsOf, type Condition } from '../condition/condition';
import { reachable } from '../condition/reachable';
import { gives, type Line } from '../model/gate';
import { sameJson } from '../model/same-json';
import type { AppElement } from '../model/tree';
import type { Context } from './context';
import { canBeBoth, covers } from './covering';
import type { Check } from './finding';
import { linesIn } from './lines-in';
import { lineCalled, removingLine } from './mends';
import { called, sentence } from './words';

/**
 * A line that takes away hits nobody who was given something by its gate, or everybody: then it only seems to set some
 * apart.
 *
 * Has it: "Signed out: edit" with "Curator: block"; "Curator: edit" with "Signed in: block", or with "Keeper: block" where
 * nobody is both.
 * Has it not: "Signed in: edit" with "Curator: block".
 */
export const blockWithoutUse: Check = {
  kind: 'block-without-use',
  rank: 'not-meant',
  title: 'Block that affects nobody or everyone',
  *find(context) {
    const { definition } = context;
    for (const { element, line, at, lines } of linesIn(context)) {
      if (gives(line)) continue;
      const what = line.what === 'block' ? 'the element' : 'editing';
      const given = lines.filter((one) => gives(one) && (line.what === 'block' || one.what === 'edit'));
      const placed = { element, line, at };
      const everybody =
        !line.when && given.length > 0 && given.every((one) => covers(definition, line.who, one.who));
      if (!everybody && given.some((one) => canMeet(context, element, one, line))) continue;
      yield {
        reason: sentence(
          everybody
            ? `${lineCalled(context, placed)} of ${called(element)} removes ${what} from everyone who is given it by other lines.`
            : `${lineCalled(context, placed)} of ${called(element)} has no effect: no other line gives ${what} to the people it applies to.`,
        ),
        places: [element.id],
        whom: [],
        mends: [removingLine(context, placed)],
      };
    }
  },
};

function canMeet(context: Context, element: AppElement, giving: Line, taking: Line): boolean {
  const { compiled } = context;
  if (!canBeBoth(giving.who, taking.who)) return false;
  // Of two roles neither need include the other: then it takes somebody who holds both.
  const roles = giving.who.kind === 'role' && taking.who.kind === 'role';
  if (roles && !context.isSomebodyBoth(giving.who, taking.who)) return false;
  if (!giving.when || !taking.when || !looksAtTheSame(giving.when, taking.when)) return true;
  return reachable(compiled.scope(element), { all: [giving.when, taking.when] })?.isTrue !== false;
}

/** Are both one question about one value? Then where the one is true, the other is not in doubt. */
function looksAtTheSame(one: Condition, other: Condition): boolean {
  const [a, b] = [one, other].map((each) => operandsOf(each).filter((operand) => !('value' in operand)));
  return a?.length === 1 && b?.length === 1 && sameJson(a, b);
}
