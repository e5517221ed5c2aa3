import { attributesOf, BUILT_IN_ATTRIBUTES } from '@/core/condition';
import { accountFault, type Definition, readValue, unitAndBelow, type Value } from '@/core/model';
import type { PersonInput } from '@/contract/people-input';
import type { FieldProblem } from '../http/problem';

/** The builder's own attributes, without those that every person has. */
export const ownAttributes = (definition: Definition) =>
  attributesOf(definition).filter((one) => !BUILT_IN_ATTRIBUTES.some(({ id }) => id === one.id));

/**
 * The input with its values in their plain form, or what is wrong with it, by field: `name`, `email`,
 * `attributes.ID`, `assignments`.
 */
export function checkPerson(
  definition: Definition,
  input: PersonInput,
): { readonly value: PersonInput } | { readonly problems: readonly FieldProblem[] } {
  const problems: FieldProblem[] = [];
  const say = (field: string, detail: string): void => void problems.push({ field, detail });
  const { name, email, homeUnit, startScreen, attributes, assignments } = input;
  for (const [field, text] of [
    ['name', name],
    ['email', email],
  ] as const) {
    const fault = text === undefined ? undefined : accountFault(field, text);
    if (fault !== undefined) say(field, fault);
  }
  if (homeUnit && !unitAndBelow(definition, homeUnit)) say('homeUnit', `There is no unit ${homeUnit}.`);
  if (startScreen && !definition.areas.some((area) => area.screens.some((one) => one.id === startScreen)))
    say('startScreen', 'This screen does not exist.');
  const read: Record<string, Value | null> = {};
  for (const [id, raw] of Object.entries(attributes ?? {})) {
    const attribute = ownAttributes(definition).find((one) => one.id === id);
    const reading = attribute && readValue({ ...attribute }, raw);
    if (!reading) say(`attributes.${id}`, 'This attribute does not exist.');
    else if ('problem' in reading) say(`attributes.${id}`, reading.problem);
    else read[id] = reading.value;
  }
  for (const { role, unit, from, until } of assignments ?? []) {
    if (!definition.roles.some((one) => one.id === role)) say('assignments', `There is no role ${role}.`);
    if (unit && !unitAndBelow(definition, unit)) say('assignments', `There is no unit ${unit}.`);
    if (from && until && Date.parse(from) >= Date.parse(until))
      say('assignments', 'The start of a period must be before its end.');
  }
  if (problems.length > 0) return { problems };
  return {
    value: {
      ...input,
      ...(name !== undefined && { name: name.trim() }),
      ...(email !== undefined && { email: email.trim().toLowerCase() }),
      ...(attributes && { attributes: read }),
    },
  };
}
