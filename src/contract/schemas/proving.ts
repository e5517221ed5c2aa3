import * as yup from 'yup';
import { readLevels } from '@/core/expectations';
import { MOST_NUMBER } from '../body';
import type { Expectation } from '@/core/expectations';

/** So many may be made at once. */
const MOST_AT_ONCE = 6000;
const text = (most: number) => yup.string().max(most);
const level = yup
  .string()
  .test('levels', 'must be none, see or edit, or a range such as see..edit', (one) =>
    one === undefined ? true : readLevels(one) !== undefined,
  );

/** Expectations under one name. Without a level, each is as it is in the draft now. */
export interface NewExpectation {
  readonly name: string;
  readonly reason: string;
  readonly of: readonly (Pick<Expectation, 'viewer' | 'element' | 'record' | 'moment'> & {
    readonly expect?: string | undefined;
  })[];
}

export const wantedSchema = yup
  .object({
    name: text(120).matches(/\S/, 'must not be empty').required(),
    reason: text(500).default(''),
    of: yup
      .array(
        yup
          .object({
            viewer: text(4000).required(),
            element: text(60).required(),
            record: yup.object({ entity: text(60).required(), id: text(60).required() }).default(undefined),
            moment: yup.number().integer().max(8.64e15).min(-8.64e15),
            expect: level,
          })
          .noUnknown()
          .required(),
      )
      .min(1)
      .max(MOST_AT_ONCE)
      .required(),
  })
  .noUnknown() as unknown as yup.Schema<NewExpectation>;

const ids = yup.array(yup.string().uuid().required()).min(1).max(MOST_AT_ONCE).required();
export const againSchema = yup.object({ ids, reason: yup.string().max(500) }).noUnknown();

export const setFindingAsideSchema = yup
  .object({
    key: yup.string().max(2000).required(),
    reason: yup.string().matches(/\S/, 'must not be empty').max(500).nullable().defined(),
  })
  .noUnknown();

export const setProofSettingsSchema = yup
  .object({
    mayBreak: yup.boolean(),
    remindDays: yup.number().integer().min(1).max(3650).nullable(),
  })
  .noUnknown();

export const removeExpectationsSchema = yup.object({ ids }).noUnknown();

export const startSweepSchema = yup
  .object({ released: yup.boolean().required(), whole: yup.boolean().default(false) })
  .noUnknown();

export const signOffSchema = yup
  .object({
    title: yup.string().trim().matches(/\S/, 'must not be empty').max(120).required(),
    revision: yup.number().integer().min(0).max(MOST_NUMBER).required(),
  })
  .noUnknown();
