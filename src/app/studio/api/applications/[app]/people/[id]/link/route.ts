import { sendPersonLink } from '@/contract/studio/people';
import { sendNewLink } from '@/server/people/write';
import { inApplication } from '@/server/studio/answering';

export const POST = inApplication(sendPersonLink, ({ applicationId, builder }, { params }) =>
  sendNewLink(applicationId, { builderId: builder.id }, params.id),
);
