import type { PersonChange, PersonInput } from '@/contract/people-input';
import { database } from '../database/client';
import { draftOf } from '../drafts/draft';
import { createPerson, type PeopleManager, updatePerson } from '../people/write';

/** Makes a person, as the draft's roles and attributes have it. Returns their id. */
export async function addPerson(
  applicationId: string,
  by: PeopleManager,
  input: PersonInput,
): Promise<string> {
  const { definition } = await draftOf(applicationId);
  return database().transaction((tx) => createPerson(tx, applicationId, definition, by, input));
}

/** Changes a person, as the draft's roles and attributes have it. */
export async function changePerson(
  applicationId: string,
  by: PeopleManager,
  id: string,
  change: PersonChange,
): Promise<void> {
  const { definition } = await draftOf(applicationId);
  await database().transaction((tx) => updatePerson(tx, applicationId, definition, by, id, change));
}
