import type { Assignment, Person } from '../../access/deciding/viewer';
import { attributesOf } from '../../condition/type';
import type { Definition } from '../../model/definition';
import { sameJson } from '../../model/same-json';
import { unitsOf } from '../../model/units';

type Names = Parameters<typeof unitsOf>[0] & {
  readonly language: string;
  readonly timeZone: string;
  readonly roles: readonly { readonly id: string; readonly name: string }[];
};

/** "Assistant in Mill Annexe, until 1 Dec 2026" */
export function assignmentInWords(definition: Names, { role, unit, from, until }: Assignment): string {
  const name = definition.roles.find((one) => one.id === role)?.name ?? 'A deleted role';
  const place =
    unit === undefined
      ? ''
      : ` in ${unitsOf(definition).find((one) => one.id === unit)?.name ?? 'a deleted unit'}`;
  const day = (text: string): string =>
    new Intl.DateTimeFormat(definition.language, {
      dateStyle: 'medium',
      timeZone: definition.timeZone,
    }).format(new Date(text));
  return `${name}${place}${from ? `, from ${day(from)}` : ''}${until ? `, until ${day(until)}` : ''}`;
}

/**
 * What is otherwise with a person, as what follows their name: "got Keeper, lost Volunteer". Roles and units are called as in
 * this definition.
 */
export function personChangeInWords(
  definition: Definition,
  before: Person | undefined,
  after: Person | undefined,
): string {
  const roles = (some: readonly Assignment[]): string =>
    some.map((one) => assignmentInWords(definition, one)).join(' and ');
  if (!before)
    return `was added with ${after && after.assignments.length > 0 ? roles(after.assignments) : 'no role'}`;
  if (!after) return 'was deleted';
  const besides = (one: Person, other: Person): Assignment[] =>
    one.assignments.filter((each) => !other.assignments.some((same) => sameJson(each, same)));
  const [got, lost] = [besides(after, before), besides(before, after)];
  const other = attributesOf(definition).filter(
    ({ id }) => !sameJson(before.attributes[id] ?? null, after.attributes[id] ?? null),
  );
  return [
    ...(got.length > 0 ? [`was assigned ${roles(got)}`] : []),
    ...(lost.length > 0 ? [`lost ${roles(lost)}`] : []),
    ...(before.active === after.active ? [] : [`was ${after.active ? 'enabled' : 'disabled'}`]),
    ...(other.length > 0 ? [`now has a different ${other.map(({ name }) => name).join(' and ')}`] : []),
  ].join(', ');
}
