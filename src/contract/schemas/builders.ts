import * as yup from 'yup';
import { listOf } from '@/core/model';
import { BUILDER_ROLES, LIVE_RIGHTS } from '../builder-roles';

export const inviteBuilderSchema = yup
  .object({
    email: yup.string().max(300).default(''),
    name: yup.string().max(300).default(''),
    role: yup.string().oneOf(BUILDER_ROLES).required(),
  })
  .noUnknown();

export const giveRightsSchema = yup
  .object({
    builder: yup.string().uuid().required(),
    live: yup.string().oneOf(LIVE_RIGHTS),
    people: yup.boolean(),
    releases: yup.boolean(),
    /** Lift what makes them wait to sign in, after wrong tries. */
    lift: yup.boolean(),
  })
  .noUnknown();

export const changeBuilderSchema = yup
  .object({ role: yup.string().oneOf(BUILDER_ROLES).required() })
  .noUnknown();

export const keepPinsSchema = yup.object({ people: listOf(yup.string().uuid().required(), 40) }).noUnknown();

export const joinSchema = yup
  .object({ token: yup.string().max(200).required(), password: yup.string().max(1000) })
  .noUnknown();
