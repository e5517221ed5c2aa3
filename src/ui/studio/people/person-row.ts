import type { Assignment, Person } from '@/core/access';
import { unitsOf } from '@/core/model';

export interface PersonRow extends Person {
  readonly confirmed: boolean;
  readonly startScreen: string | null;
}

export interface FoundPeople {
  readonly people: readonly PersonRow[];
  readonly total: number;
}

type Names = Parameters<typeof unitsOf>[0] & {
  readonly language: string;
  readonly timeZone: string;
  readonly roles: readonly { readonly id: string; readonly name: string }[];
};

/** "Assistant in Mill Annexe, until 1 Dec 2026" */
export function assignmentInWords(definition: Names, { role, unit, from, until }: Assignment): string {
  const name = definition.roles.find((one) => one.id === role)?.name ?? 'A role that is gone';
  const place =
    unit === undefined
      ? ''
      : ` in ${unitsOf(definition).find((one) => one.id === unit)?.name ?? 'a unit that is gone'}`;
  const day = (text: string): string =>
    new Intl.DateTimeFormat(definition.language, {
      dateStyle: 'medium',
      timeZone: definition.timeZone,
    }).format(new Date(text));
  return `${name}${place}${from ? `, from ${day(from)}` : ''}${until ? `, until ${day(until)}` : ''}`;
}
