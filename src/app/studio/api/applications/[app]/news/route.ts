import { news } from '@/contract/studio/draft';
import { noteSeen } from '@/server/studio/home';
import { newsStream } from '@/server/notifications/stream';
import { inApplication } from '@/server/studio/answering';
import { isStillBuilder } from '@/server/studio/builder';

export const GET = inApplication(news, ({ applicationId, builder }, { request }) =>
  newsStream(applicationId, request.signal, {
    id: builder.id,
    may: () => isStillBuilder(applicationId, builder),
    here: () => void noteSeen(applicationId, builder.id).catch(() => undefined),
  }),
);
