import { outbox } from '@/contract/studio/people';
import { messagesIn } from '@/server/people/outbox';
import { inApplication } from '@/server/studio/answering';

export const GET = inApplication(outbox, async ({ applicationId }) => ({
  messages: await messagesIn(applicationId),
}));
