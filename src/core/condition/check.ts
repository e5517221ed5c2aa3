import type { Definition } from '../model/definition';
import type { Id } from '../model/id';
import { privilegesOf } from '../model/privileges';
import type { Problem } from '../model/problem';
import { allWithin, operandsOf, partsOf, type Condition, type Operand } from './condition';
import { registered } from './registered';
import {
  canBeBetween,
  canBeOneOf,
  comparable,
  exampleOf,
  operatorsFor,
  pointsNotText,
  readConstant,
  typeInWords,
  typeOf,
  type Scope,
  type Type,
} from './type';

type Wrong = Pick<Problem, 'message' | 'mend'>;

const wrong = (message: string, mend: string): Wrong => ({ message, mend });

/**
 * What is wrong with a condition, its parts included; undefined where its types fit. That a role, a
 * privilege or a group is gone is no fault: it is in doubt, and `goneIn` tells of it.
 *
 * @example
 * whatIsWrong({ definition: LARKFIELD }, { hasRole: 'registrar' }) // → undefined
 * whatIsWrong({ definition: LARKFIELD }, { empty: { user: 'shoe_size' } })?.message // → 'There is no attribute shoe_size.'
 */
export function whatIsWrong(scope: Scope, condition: Condition): Wrong | undefined {
  for (const part of partsOf(condition)) {
    const inside = whatIsWrong(scope, part);
    if (inside) return inside;
  }
  for (const operand of operandsOf(condition)) {
    const fault = operandFault(scope, operand);
    if (fault) return fault;
  }
  if ('compare' in condition) return comparisonFault(scope, condition);
  if ('empty' in condition)
    return 'value' in condition.empty || 'clock' in condition.empty
      ? wrong('This value can never be empty.', 'Use “is empty” with a field or an attribute.')
      : undefined;
  if ('between' in condition) return betweenFault(scope, condition);
  if ('oneOf' in condition) return oneOfFault(scope, condition);
  if ('inUnit' in condition)
    return [condition.inUnit, condition.unit].some((one) => !fits(scope, one, { kind: 'unit' }))
      ? wrong('Both sides of “in unit” must be units.', 'Choose a field of type Unit.')
      : 'record' in condition.unit
        ? wrong(
            'A field of the record cannot be on the right-hand side of “in unit”.',
            'Choose a unit or user.home_unit.',
          )
        : undefined;
  if ('meets' in condition) return namedFault(scope, condition.meets);
  return 'call' in condition ? callFault(scope, condition) : undefined;
}

function operandFault(scope: Scope, operand: Operand): Wrong | undefined {
  if ('value' in operand) return undefined;
  if ('clock' in operand && operand.plus !== undefined && operand.clock !== 'today')
    return wrong('Days can only be added to “today”.', 'Remove the number of days.');
  if (typeOf(scope, operand)) return undefined;
  if ('record' in operand && !scope.entity)
    return wrong('No record is available here.', 'Use the viewer, the session or the time instead.');
  const [what, id] =
    'record' in operand
      ? ['field', operand.record]
      : 'user' in operand
        ? ['attribute', operand.user]
        : ['session value', 'session' in operand ? operand.session : ''];
  return wrong(`There is no ${what} ${id}.`, `Choose an existing ${what}.`);
}

/** Is the operand one of this type, or a constant that the type can hold in just this form? */
function fits(scope: Scope, operand: Operand, type: Type): boolean {
  if ('value' in operand) return readConstant(scope.definition, type, operand.value) === operand.value;
  const own = typeOf(scope, operand);
  return own !== undefined && comparable(own, type);
}

function comparisonFault(
  scope: Scope,
  { compare, left, right, anyCase }: Extract<Condition, { compare: unknown }>,
): Wrong | undefined {
  const { definition } = scope;
  const [a, b] = [typeOf(scope, left), typeOf(scope, right)];
  const type = a ?? b;
  if (!type)
    return wrong('A comparison of two constants always gives the same result.', 'Use a field on one side.');
  const text = [left, right].find((one) => 'value' in one && !fits(scope, one, type));
  if (type.kind === 'record' && text && 'value' in text)
    return wrong(...pointsNotText(definition, type, String(text.value)));
  if (!fits(scope, left, type) || !fits(scope, right, type))
    return wrong(
      `${typeInWords(definition, type)} cannot be compared with this value.`,
      `Compare it with ${typeInWords(definition, type)}, such as ${exampleOf(definition, type)}.`,
    );
  if (!operatorsFor(type).includes(compare))
    return wrong(
      `“${compare}” cannot be used with ${typeInWords(definition, type)}.`,
      `Use ${operatorsFor(type).join(', ')}.`,
    );
  return anyCase && type.kind !== 'text'
    ? wrong('“in any case” can only be used with text.', 'Remove “in any case”.')
    : undefined;
}

function betweenFault(
  scope: Scope,
  { between, from, to }: Extract<Condition, { between: unknown }>,
): Wrong | undefined {
  const type = typeOf(scope, between);
  if (!type || !canBeBetween(type))
    return wrong('“between” cannot be used with this type.', 'Use it with a number, a date or a time.');
  return fits(scope, from, type) && fits(scope, to, type)
    ? undefined
    : wrong(
        `Both limits must be ${typeInWords(scope.definition, type)}.`,
        `Write each one like ${exampleOf(scope.definition, type)}.`,
      );
}

function oneOfFault(
  scope: Scope,
  { oneOf, values }: Extract<Condition, { oneOf: unknown }>,
): Wrong | undefined {
  const type = typeOf(scope, oneOf);
  if (!type || !canBeOneOf(type))
    return wrong('“is one of” cannot be used with this type.', 'Use = instead.');
  if (values.length === 0) return wrong('The list is empty.', 'Add at least one value.');
  return values.every((value) => fits(scope, { value }, type))
    ? undefined
    : wrong(
        `Every value in the list must be ${typeInWords(scope.definition, type)}.`,
        `Write each one like ${exampleOf(scope.definition, type)}.`,
      );
}

function namedFault({ definition, entity }: Scope, id: Id): Wrong | undefined {
  const named = definition.conditions.find((one) => one.id === id);
  if (!named) return wrong(`There is no named condition ${id}.`, 'Choose an existing one.');
  if (named.entity === undefined || named.entity === entity?.id) return undefined;
  const of = definition.entities.find((one) => one.id === named.entity)?.name ?? named.entity;
  return wrong(
    `“${named.name}” needs a record of ${of}, and none is available here.`,
    'Use it only where there is such a record.',
  );
}

function callFault(scope: Scope, condition: Extract<Condition, { call: unknown }>): Wrong | undefined {
  const found = registered(condition.call);
  if (!found) return wrong(`There is no condition ${condition.call}.`, 'Choose a registered condition.');
  if (found.takes.length !== condition.with.length)
    return wrong(
      `${found.name} takes ${found.takes.length} values.`,
      `Pass these values: ${found.takes.map((one) => one.name).join(', ')}.`,
    );
  const at = found.takes.findIndex(({ type }, n) => !fits(scope, condition.with[n] as Operand, type));
  if (at < 0) return undefined;
  const type = found.takes[at]?.type as Type;
  return wrong(
    `Value ${at + 1} of ${found.name} must be ${typeInWords(scope.definition, type)}.`,
    `For example: ${exampleOf(scope.definition, type)}.`,
  );
}

/** A loop of named conditions or groups that use each other, as the names along it. */
export function conditionLoop(definition: Definition): string[] | undefined {
  const byId = new Map([...definition.conditions, ...definition.groups].map((one) => [one.id, one] as const));
  const done = new Set<Id>();
  const visit = (id: Id, path: readonly Id[]): string[] | undefined => {
    const at = path.indexOf(id);
    if (at >= 0) return [...path.slice(at), id].map((one) => byId.get(one)?.name ?? one);
    const named = byId.get(id);
    if (!named || done.has(id)) return undefined;
    for (const one of allWithin(named.condition)) {
      const used = 'meets' in one ? one.meets : 'inGroup' in one ? one.inGroup : undefined;
      const loop = used === undefined ? undefined : visit(used, [...path, id]);
      if (loop) return loop;
    }
    done.add(id);
    return undefined;
  };
  for (const id of byId.keys()) {
    const loop = visit(id, []);
    if (loop) return loop;
  }
  return undefined;
}

/** What the condition names that is gone, in words: roles, privileges, groups. */
export function goneIn(definition: Definition, condition: Condition): string[] {
  return allWithin(condition).flatMap((one) => {
    const named: readonly [string, Id, readonly { id: Id }[]] | undefined =
      'hasRole' in one
        ? ['role', one.hasRole, definition.roles]
        : 'hasPrivilege' in one
          ? ['privilege', one.hasPrivilege, privilegesOf(definition)]
          : 'inGroup' in one
            ? ['group', one.inGroup, definition.groups]
            : undefined;
    return named && !named[2].some((known) => known.id === named[1]) ? [`the ${named[0]} ${named[1]}`] : [];
  });
}
