import {
  changePassword as passwordContract,
  endOtherSessions as sessionsContract,
  rename,
} from '@/contract/studio/account';
import { studioClientOf } from '@/server/security/client';
import { changePassword, endOtherSessions, renameBuilder } from '@/server/studio/account';
import { asBuilder } from '@/server/studio/answering';

export const PATCH = asBuilder(rename, (builder, { body }) => renameBuilder(builder, body.name));

export const PUT = asBuilder(passwordContract, async (builder, { request, body: { now, password } }) => {
  await changePassword(builder, now, password, await studioClientOf(request));
});

export const DELETE = asBuilder(sessionsContract, (builder) => endOtherSessions(builder));
