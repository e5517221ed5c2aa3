import { and, eq } from 'drizzle-orm';
import * as yup from 'yup';
import { alike } from '@/core';
import { type AskedOfPeople, type PeopleKnown, rightNow } from '@/core/access';
import type { Condition } from '@/core/condition';
import { conditionSchema, type Definition, exactly, listOf } from '@/core/model';
import { database } from '../database/client';
import { people as table } from '../database/schema';
import { draftOf } from '../drafts/draft';
import { parseBody } from '../http/body';
import { peopleCounted } from './read';

const MOST_ASKED = 5000;
const ids = listOf(yup.string().max(60).required(), MOST_ASKED);

/** What is asked of people, as it is sent. */
const askedBody = exactly({
  people: ids,
  questions: listOf(conditionSchema as unknown as yup.Schema<Condition>, MOST_ASKED),
  values: ids,
  compared: ids,
}) as unknown as yup.Schema<AskedOfPeople>;

/** The application's people by what a bench asks of them, as it was sent. */
export async function peopleKnownAsSent(applicationId: string, body: string): Promise<PeopleKnown> {
  const { definition } = await draftOf(applicationId);
  return peopleKnown(applicationId, definition, parseBody(body, askedBody));
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
  asked: AskedOfPeople,
): Promise<PeopleKnown> {
  const [people, waiting] = await Promise.all([peopleCounted(applicationId), waitingIn(applicationId)]);
  const named = new Set(asked.people);
  return {
    alike: alike(definition, people, rightNow(), asked),
    named: people.filter(({ id }) => named.has(id)),
    waiting,
  };
}
