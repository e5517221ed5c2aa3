import { handle } from '@/server/http/handle';
import { newsStream } from '@/server/news/stream';
import { needWorkplace } from '@/server/studio/builder';

interface Context {
  params: Promise<{ app: string }>;
}

/** `GET …/news`: what happens to the application, as server-sent events. It says that, and nothing more. */
export const GET = handle<Context>(async (request, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  return newsStream(applicationId, request.signal);
});
