import { lookPress } from '@/contract/studio/look';
import { sessionButton } from '@/server/live/session-values';
import { inLook } from '@/server/look/answering';

export const POST = inLook(lookPress, ({ scope }, { body: { button, record } }) =>
  sessionButton(scope, button, record),
);
