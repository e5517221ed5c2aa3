import * as yup from 'yup';
import { type UsedPersonData, assignmentsSchema } from '@/core/access';
import type { Condition } from '@/core/condition';
import { conditionSchema, exactly, listOf, optional } from '@/core/model';
import type { PersonChange, PersonInput } from '../people-input';

const about = {
  name: yup.string().max(1000),
  email: yup.string().max(1000),
  active: yup.boolean(),
  homeUnit: yup.string().max(60).nullable(),
  startScreen: yup.string().max(60).nullable(),
  attributes: optional(yup.object()),
};

/** What makes a person. */
export const personSchema = exactly({
  ...about,
  assignments: optional(assignmentsSchema),
}) as unknown as yup.Schema<PersonInput>;

/** What changes one. */
export const personChangeSchema = exactly({
  ...about,
  give: optional(assignmentsSchema),
  take: optional(assignmentsSchema),
}) as unknown as yup.Schema<PersonChange>;

const MOST_ASKED = 5000;
const ids = listOf(yup.string().max(60).required(), MOST_ASKED);

export const askedOfPeopleSchema = exactly({
  people: ids,
  questions: listOf(conditionSchema as unknown as yup.Schema<Condition>, MOST_ASKED),
  values: ids,
  compared: ids,
}) as unknown as yup.Schema<UsedPersonData>;
