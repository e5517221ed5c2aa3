import {
  deleteApplication as deleteContract,
  moveApplication as moveContract,
} from '@/contract/studio/draft';
import { inApplication } from '@/server/studio/answering';
import { deleteApplication, moveApplication } from '@/server/making/keep';

export const PATCH = inApplication(moveContract, (here, { body }) => moveApplication(here, body.slug));

export const DELETE = inApplication(deleteContract, (here, { body }) => deleteApplication(here, body.name));
