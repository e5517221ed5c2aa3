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
      ? wrong('This is never empty.', 'Ask it of a field or an attribute.')
      : undefined;
  if ('between' in condition) return betweenFault(scope, condition);
  if ('oneOf' in condition) return oneOfFault(scope, condition);
  if ('inUnit' in condition)
    return [condition.inUnit, condition.unit].some((one) => !fits(scope, one, { kind: 'unit' }))
      ? wrong('Both sides of “in unit” must be units.', 'Choose a field that holds a unit.')
      : 'record' in condition.unit
        ? wrong("A record's field cannot be the unit to be in.", 'Choose a unit, or user.home_unit.')
        : undefined;
  if ('meets' in condition) return namedFault(scope, condition.meets);
  return 'call' in condition ? callFault(scope, condition) : undefined;
}

function operandFault(scope: Scope, operand: Operand): Wrong | undefined {
  if ('value' in operand) return undefined;
  if ('clock' in operand && operand.plus !== undefined && operand.clock !== 'today')
    return wrong('Only to today can days be added.', 'Take the days away.');
  if (typeOf(scope, operand)) return undefined;
  if ('record' in operand && !scope.entity)
    return wrong('There is no record here.', 'Ask of the viewer, the session or the time.');
  const [what, id] =
    'record' in operand
      ? ['field', operand.record]
      : 'user' in operand
        ? ['attribute', operand.user]
        : ['session value', 'session' in operand ? operand.session : ''];
  return wrong(`There is no ${what} ${id}.`, `Choose a ${what} that exists.`);
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
  if (!type) return wrong('Two constants are always the same.', 'Put a field on one side.');
  const text = [left, right].find((one) => 'value' in one && !fits(scope, one, type));
  if (type.kind === 'record' && text && 'value' in text)
    return wrong(...pointsNotText(definition, type, String(text.value)));
  if (!fits(scope, left, type) || !fits(scope, right, type))
    return wrong(
      `${typeInWords(definition, type)} cannot be compared with this.`,
      `Compare it with ${typeInWords(definition, type)}, such as ${exampleOf(definition, type)}.`,
    );
  if (!operatorsFor(type).includes(compare))
    return wrong(
      `“${compare}” does not fit ${typeInWords(definition, type)}.`,
      `Use ${operatorsFor(type).join(', ')}.`,
    );
  return anyCase && type.kind !== 'text'
    ? wrong('Only texts can be compared in any case.', 'Take “in any case” away.')
    : undefined;
}

function betweenFault(
  scope: Scope,
  { between, from, to }: Extract<Condition, { between: unknown }>,
): Wrong | undefined {
  const type = typeOf(scope, between);
  if (!type || !canBeBetween(type))
    return wrong('This cannot be between two others.', 'Use a number, a date or a time.');
  return fits(scope, from, type) && fits(scope, to, type)
    ? undefined
    : wrong(
        `It must be between two of ${typeInWords(scope.definition, type)}.`,
        `Write each as ${exampleOf(scope.definition, type)}.`,
      );
}

function oneOfFault(
  scope: Scope,
  { oneOf, values }: Extract<Condition, { oneOf: unknown }>,
): Wrong | undefined {
  const type = typeOf(scope, oneOf);
  if (!type || !canBeOneOf(type)) return wrong('This cannot be one of several.', 'Compare it with =.');
  if (values.length === 0) return wrong('The list is empty.', 'Put a value in it.');
  return values.every((value) => fits(scope, { value }, type))
    ? undefined
    : wrong(
        `The list must hold ${typeInWords(scope.definition, type)} only.`,
        `Write each as ${exampleOf(scope.definition, type)}.`,
      );
}

function namedFault({ definition, entity }: Scope, id: Id): Wrong | undefined {
  const named = definition.conditions.find((one) => one.id === id);
  if (!named) return wrong(`There is no named condition ${id}.`, 'Choose one that exists.');
  if (named.entity === undefined || named.entity === entity?.id) return undefined;
  const of = definition.entities.find((one) => one.id === named.entity)?.name ?? named.entity;
  return wrong(
    `“${named.name}” asks of a record of ${of}, and here there is none.`,
    'Use it where there is one.',
  );
}

function callFault(scope: Scope, condition: Extract<Condition, { call: unknown }>): Wrong | undefined {
  const found = registered(condition.call);
  if (!found) return wrong(`There is no condition ${condition.call}.`, 'Choose one that is registered.');
  if (found.takes.length !== condition.with.length)
    return wrong(
      `${found.name} takes ${found.takes.length} values.`,
      `Give it ${found.takes.map((one) => one.name).join(', ')}.`,
    );
  const at = found.takes.findIndex(({ type }, n) => !fits(scope, condition.with[n] as Operand, type));
  if (at < 0) return undefined;
  const type = found.takes[at]?.type as Type;
  return wrong(
    `Value ${at + 1} of ${found.name} must be ${typeInWords(scope.definition, type)}.`,
    `Such as ${exampleOf(scope.definition, type)}.`,
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
