import {
  attributesOf,
  CLOCK_READINGS,
  type Condition,
  entityFor,
  type Operand,
  REGISTERED,
  type Scope,
  typeOf,
  firstConstant,
} from '@/core/condition';
import { privilegesOf, sameJson } from '@/core/model';

/** Something that a row can look at, with the condition that it starts with. */
export interface Question {
  readonly key: string;
  readonly heading: string;
  readonly name: string;
  readonly start: Condition;
  is(condition: Condition): boolean;
}

const CLOCK_NAMES = {
  now: 'Current date and time',
  today: 'Today',
  time: 'Time of day',
  weekday: 'Day of the week',
  day: 'Day of the month',
} as const;

/** The operands that there are, each with its heading and name. */
export function operandsOfScope(scope: Scope): { heading: string; name: string; operand: Operand }[] {
  const { definition, entity } = scope;
  const steps = (entity?.fields ?? []).flatMap((field) =>
    field.type.kind === 'record'
      ? (entityFor(scope, field.id)?.fields ?? []).map((target) => ({
          heading: `${field.name} of the ${entity?.name.toLowerCase() ?? 'record'}`,
          name: `${field.name}: ${target.name}`,
          operand: { record: target.id, through: field.id },
        }))
      : [],
  );
  return [
    ...(entity?.fields ?? []).map((field) => ({
      heading: `The ${entity?.name.toLowerCase() ?? 'record'}`,
      name: field.name,
      operand: { record: field.id },
    })),
    ...attributesOf(definition).map((one) => ({
      heading: 'Viewer',
      name: `${one.name} of the viewer`,
      operand: { user: one.id },
    })),
    ...definition.sessionValues.map((one) => ({
      heading: 'Session',
      name: one.name,
      operand: { session: one.id },
    })),
    ...CLOCK_READINGS.map((clock) => ({
      heading: 'Date and time',
      name: CLOCK_NAMES[clock],
      operand: { clock },
    })),
    ...steps,
  ];
}

const leftOf = (condition: Condition): Operand | undefined => {
  if ('compare' in condition) return condition.left;
  if ('oneOf' in condition) return condition.oneOf;
  if ('inUnit' in condition) return condition.inUnit;
  if ('empty' in condition) return condition.empty;
  return 'not' in condition && 'empty' in condition.not ? condition.not.empty : undefined;
};

export function questionsFor(scope: Scope): Question[] {
  const { definition } = scope;
  const compared = operandsOfScope(scope).flatMap(({ heading, name, operand }): Question[] => {
    const type = typeOf(scope, operand);
    if (!type) return [];
    const plain = (one: Operand): unknown => ('clock' in one ? { clock: one.clock } : one);
    return [
      {
        key: JSON.stringify(operand),
        heading,
        name,
        start: { compare: '=', left: operand, right: { value: firstConstant(scope.definition, type) } },
        is: (condition) => {
          const left = leftOf(condition);
          return left !== undefined && sameJson(plain(left), plain(operand));
        },
      },
    ];
  });
  const held: Question[] = [
    {
      key: 'hasRole',
      heading: 'Viewer',
      name: 'Has the role',
      start: { hasRole: definition.roles[0]?.id ?? '' },
      is: (condition) => 'hasRole' in condition,
    },
  ];
  const [privilege] = privilegesOf(definition);
  if (privilege)
    held.push({
      key: 'hasPrivilege',
      heading: 'Viewer',
      name: 'Has the privilege',
      start: { hasPrivilege: privilege.id },
      is: (condition) => 'hasPrivilege' in condition,
    });
  const [group] = definition.groups;
  if (group)
    held.push({
      key: 'inGroup',
      heading: 'Viewer',
      name: 'Is in the group',
      start: { inGroup: group.id },
      is: (condition) => 'inGroup' in condition,
    });
  const named = definition.conditions.find(
    (one) => one.entity === undefined || one.entity === scope.entity?.id,
  );
  const others: Question[] = named
    ? [
        {
          key: 'meets',
          heading: 'Named conditions',
          name: 'Named condition',
          start: { meets: named.id },
          is: (condition) => 'meets' in condition,
        },
      ]
    : [];
  for (const one of REGISTERED)
    others.push({
      key: `call ${one.name}`,
      heading: 'Named conditions',
      name: one.about,
      start: { call: one.name, with: one.takes.map(() => ({ clock: 'today' })) },
      is: (condition) => 'call' in condition && condition.call === one.name,
    });
  return [...compared, ...held, ...others];
}
