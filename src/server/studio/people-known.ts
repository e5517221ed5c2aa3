import { and, eq } from 'drizzle-orm';
import { groupSimilarPeople } from '@/core';
import { type UsedPersonData, type PeopleKnown, rightNow } from '@/core/access';
import type { Definition } from '@/core/model';
import { askedOfPeopleSchema } from '@/contract/schemas/people';
import { database } from '../database/client';
import { people as table } from '../database/schema';
import { draftOf } from '../drafts/draft';
import { parseBody } from '../http/body';
import { peopleCounted } from '../people/read';

/** The application's people by what a bench asks of them, as it was sent. */
export async function peopleKnownAsSent(applicationId: string, body: string): Promise<PeopleKnown> {
  const { definition } = await draftOf(applicationId);
  return peopleKnown(applicationId, definition, parseBody(body, askedOfPeopleSchema));
}

const waitingIn = (applicationId: string): Promise<number> =>
  database().$count(
    table,
    and(eq(table.applicationId, applicationId), eq(table.active, true), eq(table.confirmed, false)),
  );

/** An application's people by what is asked of them at this moment, and those whom it asks for by name. */
export async function peopleKnown(
  applicationId: string,
  definition: Definition,
  asked: UsedPersonData,
): Promise<PeopleKnown> {
  const [people, waiting] = await Promise.all([peopleCounted(applicationId), waitingIn(applicationId)]);
  const named = new Set(asked.people);
  return {
    alike: groupSimilarPeople(definition, people, rightNow(), asked),
    named: people.filter(({ id }) => named.has(id)),
    waiting,
  };
}
