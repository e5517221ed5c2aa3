import { type UsedPersonData, askedOfPeople, type PeopleKnown } from '@/core/access';
import type { Id } from '@/core/model';
import { draftOf } from '../drafts/draft';
import { peopleKnown } from './people-known';

/** What a bench knows of people when it is opened, and what was asked of them. */
export async function firstPeople(
  applicationId: string,
  pins: readonly Id[],
): Promise<{ asked: UsedPersonData; known: PeopleKnown }> {
  const { definition } = await draftOf(applicationId);
  const asked = askedOfPeople(definition, pins);
  return { asked, known: await peopleKnown(applicationId, definition, asked) };
}
