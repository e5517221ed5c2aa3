'use client';

import { useQueries } from '@tanstack/react-query';
import { type Definition, unitAndBelow, unitsOf } from '@/core/model';
import { asked } from '@/ui/client/queries';
import { peoplePage, type PersonRow } from '@/contract/studio/people';

/** Somebody whom the server has found. */
export type PersonSummary = Pick<PersonRow, 'id' | 'name' | 'active' | 'assignments'>;

const MOST_QUERIES = 4;
const MOST_PEOPLE = 60;

/**
 * People by name, by a role that has those words in its name, or by a unit; found on the server. Nobody is asked for
 * while there are no words at all. `none` says why there is nobody.
 */
export function useFoundPeople(
  app: string,
  definition: Definition,
  words: string | undefined,
): { readonly people: readonly PersonSummary[]; readonly none: string; readonly asking: boolean } {
  const wanted = (words ?? '').trim().toLowerCase();
  const has = (name: string): boolean => wanted.length > 1 && name.toLowerCase().includes(wanted);
  const queries = [
    { q: wanted },
    ...definition.roles.filter(({ name }) => has(name)).map(({ id }) => ({ role: id })),
    ...unitsOf(definition)
      .filter(({ name }) => has(name))
      .map(({ id }) => ({ units: [...(unitAndBelow(definition, id) ?? [])].join(',') })),
  ].slice(0, MOST_QUERIES);
  return useQueries({
    queries: queries.map((query) => ({
      ...asked(peoplePage, { app, query }),
      enabled: words !== undefined,
    })),
    combine: (answers) => {
      const all = answers.flatMap(({ data }) => data?.people ?? []);
      const people = [...new Map(all.map((one) => [one.id, one])).values()].slice(0, MOST_PEOPLE);
      const asking = answers.some(({ isLoading }) => isLoading);
      return { people, asking, none: asking ? 'Searching…' : 'No people match this search.' };
    },
  });
}

/** What somebody holds, in words. */
export function rolesOf(definition: Definition, { assignments, active }: PersonSummary): string {
  const named = assignments.map(({ role, unit }) => {
    const name = definition.roles.find((one) => one.id === role)?.name ?? 'a deleted role';
    const place = unitsOf(definition).find((one) => one.id === unit)?.name;
    return place ? `${name} in ${place}` : name;
  });
  return [...(active ? [] : ['account disabled']), ...named].join(', ') || 'no role';
}
