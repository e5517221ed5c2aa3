import { operandsOf, type Condition } from '../condition/condition';
import { print } from '../condition/print';
import { typeOf } from '../condition/type';
import { conditionsIn, questionsOf, type PlacedCondition } from './conditions';
import type { Check } from './finding';

/**
 * A condition compares a text with the name of a role: it says nothing of who has the role, breaks once the role is
 * renamed, and lets in whoever can write the text.
 *
 * Has it: `user.name = "Registrar"`, where there is a role Registrar.
 * Has it not: `user has role "Registrar"`.
 */
export const comparedWithRoleName: Check = {
  kind: 'compared-with-role-name',
  rank: 'not-meant',
  title: 'A text compared with the name of a role',
  *find(context) {
    const { roles } = context.definition;
    for (const placed of conditionsIn(context))
      for (const question of questionsOf(placed.condition)) {
        const role = roles.find(({ id, name }) => comparesText(placed, question, [id, name]));
        if (!role) continue;
        yield {
          reason: `${placed.name} asks “${print(placed.scope, question)}”, which compares a text with the name of the role ${role.name}. Use the role itself: user has role "${role.name}".`,
          places: [placed.place, role.id],
          whom: [],
          mends: [],
        };
      }
  },
};

function comparesText({ scope }: PlacedCondition, question: Condition, names: readonly string[]): boolean {
  const isNamed = (value: unknown): boolean =>
    typeof value === 'string' && names.some((name) => name.toLowerCase() === value.trim().toLowerCase());
  const operands = operandsOf(question);
  const constants =
    'oneOf' in question ? question.values : operands.map((one) => ('value' in one ? one.value : ''));
  return (
    constants.some(isNamed) &&
    operands.some((one) => !('value' in one) && typeOf(scope, one)?.kind === 'text')
  );
}
