import { choosePassword as contract } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { choosePassword } from '@/server/people/links';

export const POST = inLive(contract, ({ applicationId }, { body: { token, password } }) =>
  choosePassword(applicationId, token, password),
);
