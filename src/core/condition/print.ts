import { partsOf, type Condition, type HeldWhere, type Operand } from './condition';
import { registered } from './registered';
import { attributesOf, constantInWords, entityFor, typeOf, type Scope } from './type';
import { pathWord, quotedName } from './names';
import { privilegesOf } from '../model/privileges';

/**
 * A condition in its text form, which `parse` turns into the same condition again. Things are called by
 * their present names; where a name is gone or not unique, by `#id`.
 *
 * @example
 * print({ definition: LARKFIELD }, { hasRole: 'registrar' }) // → 'user has role "Registrar"'
 */
export function print(scope: Scope, condition: Condition): string {
  const inner = (one: Condition): string => {
    const text = print(scope, one);
    const joined = ('all' in one || 'any' in one) && partsOf(one).length > 1;
    return joined ? `(${text})` : text;
  };
  if ('all' in condition || 'any' in condition) {
    const parts = partsOf(condition);
    const word = 'all' in condition ? 'all' : 'any';
    if (parts.length < 2) return `${word}(${parts.map((one) => print(scope, one)).join(', ')})`;
    return parts.map(inner).join('all' in condition ? ' and ' : ' or ');
  }
  if ('not' in condition) {
    if ('empty' in condition.not) return `${operand(scope, condition.not.empty)} is not empty`;
    return `not ${inner(condition.not)}`;
  }
  return question(scope, condition);
}

const where = ({ held }: { readonly held?: HeldWhere }): string => (held ? ` ${held}` : '');

function question(scope: Scope, condition: Condition): string {
  const { definition } = scope;
  if ('compare' in condition) {
    const { left, right, compare, anyCase } = condition;
    const text = `${operand(scope, left, right)} ${compare} ${operand(scope, right, left)}`;
    return anyCase ? `${text} in any case` : text;
  }
  if ('between' in condition) {
    const { between, from, to } = condition;
    return `${operand(scope, between)} between ${operand(scope, from, between)} and ${operand(scope, to, between)}`;
  }
  if ('empty' in condition) return `${operand(scope, condition.empty)} is empty`;
  if ('oneOf' in condition) {
    const values = condition.values.map((value) => operand(scope, { value }, condition.oneOf));
    return `${operand(scope, condition.oneOf)} in (${values.join(', ')})`;
  }
  if ('inUnit' in condition)
    return `${operand(scope, condition.inUnit)} in unit ${operand(scope, condition.unit, condition.inUnit)}`;
  if ('hasRole' in condition)
    return `user has ${condition.exactly ? 'exactly ' : ''}role ${quotedName(definition.roles, condition.hasRole)}${where(condition)}`;
  if ('hasPrivilege' in condition)
    return `user has privilege ${quotedName(privilegesOf(definition), condition.hasPrivilege)}${where(condition)}`;
  if ('inGroup' in condition) return `user in group ${quotedName(definition.groups, condition.inGroup)}`;
  if ('meets' in condition) return `meets ${quotedName(definition.conditions, condition.meets)}`;
  if ('call' in condition) {
    const takes = registered(condition.call)?.takes ?? [];
    const given = condition.with.map((one, n) =>
      'value' in one
        ? constantInWords(definition, one.value, takes[n]?.type ?? { kind: 'text' })
        : operand(scope, one),
    );
    return `${condition.call}(${given.join(', ')})`;
  }
  return print(scope, condition);
}

/** What a comparison looks at, as it is written; `other` stands on its other side. */
export function operand(scope: Scope, one: Operand, other?: Operand): string {
  const { definition } = scope;
  if ('user' in one) return `user.${pathWord(attributesOf(definition), one.user)}`;
  if ('session' in one) return `session.${pathWord(definition.sessionValues, one.session)}`;
  if ('record' in one) {
    const step = one.through === undefined ? '' : `.${pathWord(scope.entity?.fields ?? [], one.through)}`;
    return `record${step}.${pathWord(entityFor(scope, one.through)?.fields ?? [], one.record)}`;
  }
  if ('clock' in one) {
    const days = one.plus ?? 0;
    if (days === 0) return one.clock;
    return `${one.clock} ${days < 0 ? '-' : '+'} ${Math.abs(days)} ${Math.abs(days) === 1 ? 'day' : 'days'}`;
  }
  return constantInWords(definition, one.value, (other && typeOf(scope, other)) ?? { kind: 'text' });
}
