import {
  deleteApplication as deleteContract,
  changeApplicationAddress as moveContract,
} from '@/contract/studio/draft';
import { inApplication } from '@/server/studio/answering';
import { deleteApplication, changeAddress } from '@/server/making/application-lifecycle';

export const PATCH = inApplication(moveContract, (here, { body }) => changeAddress(here, body.slug));

export const DELETE = inApplication(deleteContract, (here, { body }) => deleteApplication(here, body.name));
