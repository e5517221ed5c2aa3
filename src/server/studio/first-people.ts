import { type AskedOfPeople, askedOfPeople, type PeopleKnown } from '@/core/access';
import { draftOf } from '../drafts/draft';
import { peopleKnown } from '../people/known';
import type { Workplace } from './builder';

/** What a bench knows of people when it is opened, and what was asked of them. */
export async function firstPeople({
  applicationId,
  pins,
}: Workplace): Promise<{ asked: AskedOfPeople; known: PeopleKnown }> {
  const { definition } = await draftOf(applicationId);
  const asked = askedOfPeople(definition, pins);
  return { asked, known: await peopleKnown(applicationId, definition, asked) };
}
