'use client';

import { useCallback, useMemo, useState } from 'react';
import { type PeopleGroup, type UsedPersonData, askedOfPeople, type PeopleKnown } from '@/core/access';
import type { PersonName } from '@/core/edit';
import { useAsked } from '@/ui/client/queries';
import { peopleKnown } from '@/contract/studio/people';
import { counted } from '@/core/edit';
import { useDraft, useStudio } from '../shell/studio-work';

/** What the server knows of people, for what was asked of them. */
interface First {
  readonly asked: UsedPersonData;
  readonly known: PeopleKnown;
}

/** The same as JSON: of thousands of people that is quicker to pass on. */
export type FirstPeople = string;

/** What a bench knows of people: those whom lines name and who are pinned, and the others by how many are alike. */
export interface PeopleHere extends PeopleKnown {
  readonly personName: PersonName;
  /** Keeps somebody's name who was found elsewhere and is now to be named. */
  readonly meet: (person: { readonly id: string; readonly name: string }) => void;
}

/** The people of the application, as far as a bench has to know them; asked for anew when the draft asks for more. */
export function usePeople(json: FirstPeople): PeopleHere {
  const first = useMemo(() => JSON.parse(json) as First, [json]);
  const { app, pins } = useStudio();
  const { definition } = useDraft();
  const [met, setMet] = useState<ReadonlyMap<string, string>>(new Map());
  const asked = useMemo(() => askedOfPeople(definition, pins), [definition, pins]);
  const isFirst = useMemo(() => JSON.stringify(asked) === JSON.stringify(first.asked), [asked, first]);
  const { data = first.known } = useAsked(
    peopleKnown,
    { app, body: asked },
    {
      first: isFirst ? first.known : undefined,
      keepsLast: true,
    },
  );
  const { alike, named, waiting } = data;
  const names = useMemo(
    () =>
      new Map([
        ...met,
        ...[...alike.flatMap(({ some }) => some), ...named].map(({ id, name }) => [id, name] as const),
      ]),
    [met, alike, named],
  );
  const personName = useCallback((id: string) => names.get(id), [names]);
  const meet = useCallback(
    ({ id, name }: { readonly id: string; readonly name: string }): void =>
      setMet((now) => new Map(now).set(id, name)),
    [],
  );
  return { alike, named, waiting, personName, meet };
}

/** How many they are. */
export const countOf = (people: readonly PeopleGroup[]): number =>
  people.reduce((sum, { count }) => sum + count, 0);

export const peopleInWords = (n: number): string => counted(n, 'person', 'people');

/** Some of those who are alike by name, and how many more there are. */
export function namesOf(people: readonly PeopleGroup[], most: number): string {
  const names = people.flatMap(({ some }) => some).slice(0, most);
  const more = countOf(people) - names.length;
  const told = names.map(({ name }) => name).join(', ');
  return more > 0 ? `${told} and ${more} more` : told;
}
