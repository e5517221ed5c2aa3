import { operandsOf, type Condition, type Operand } from '../condition/condition';
import { print } from '../condition/print';
import { conditionsIn, questionsOf } from './conditions';
import type { Check } from './finding';

/**
 * A condition compares people's email address with one that has capital letters. Addresses are kept in small letters, so
 * it is never true.
 *
 * Has it: `user.email = "Ada@larkfield.example"`.
 * Has it not: the same in small letters, or in any case.
 */
export const emailInCapitals: Check = {
  kind: 'email-in-capitals',
  rank: 'not-meant',
  title: 'An email address in capital letters',
  *find(context) {
    for (const { place, name, condition, scope } of conditionsIn(context))
      for (const question of questionsOf(condition))
        if (hasCapitals(question))
          yield {
            reason: `${name} asks “${print(scope, question)}”, but email addresses are kept in small letters: this is never true.`,
            places: [place],
            whom: [],
            mends: [],
          };
  },
};

function hasCapitals(question: Condition): boolean {
  if ('compare' in question && question.anyCase) return false;
  const operands: readonly Operand[] = operandsOf(question);
  const constants = [
    ...('oneOf' in question ? question.values : []),
    ...operands.flatMap((one) => ('value' in one ? [one.value] : [])),
  ];
  return (
    operands.some((one) => 'user' in one && one.user === 'email') &&
    constants.some((value) => typeof value === 'string' && value !== value.toLowerCase())
  );
}
