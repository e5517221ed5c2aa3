import * as yup from 'yup';
import { alike } from '@/core';
import { type AskedOfPeople, type PeopleKnown, rightNow } from '@/core/access';
import type { Condition } from '@/core/condition';
import { conditionSchema, type Definition, exactly, listOf } from '@/core/model';
import { peopleOf } from './read';

const MOST_ASKED = 5000;
const ids = listOf(yup.string().max(60).required(), MOST_ASKED);

/** What is asked of people, as it is sent. */
export const askedBody = exactly({
  people: ids,
  questions: listOf(conditionSchema as unknown as yup.Schema<Condition>, MOST_ASKED),
  values: ids,
  compared: ids,
}) as unknown as yup.Schema<AskedOfPeople>;

/** An application's people by what is asked of them at this moment, and those whom it asks for by name. */
export async function peopleKnown(
  applicationId: string,
  definition: Definition,
  asked: AskedOfPeople,
): Promise<PeopleKnown> {
  const people = await peopleOf(applicationId);
  const named = new Set(asked.people);
  return {
    alike: alike(definition, people, rightNow(), asked),
    named: people.filter(({ id }) => named.has(id)),
  };
}
