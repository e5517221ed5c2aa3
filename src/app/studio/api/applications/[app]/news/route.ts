import { handle } from '@/server/http/handle';
import { newsStream } from '@/server/news/stream';
import { noteSeen } from '@/server/studio/home';
import { isStillBuilder, needWorkplace } from '@/server/studio/builder';

interface Context {
  params: Promise<{ app: string }>;
}

/** `GET …/news`: what happens to the application, as server-sent events. It says that, and nothing more. */
export const GET = handle<Context>(async (request, { params }) => {
  const { applicationId, builder } = await needWorkplace((await params).app, 'read');
  return newsStream(applicationId, request.signal, {
    id: builder.id,
    may: () => isStillBuilder(applicationId, builder),
    here: () => void noteSeen(applicationId, builder.id).catch(() => undefined),
  });
});
