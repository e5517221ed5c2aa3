import { readBody } from '@/server/http/body';
import { handle, json } from '@/server/http/handle';
import { beforeSavingBody, sectionsBeforeSaving } from '@/server/live/before-saving';
import { lookOfRequest } from '@/server/look/records';

/** How a screen would be with the values as they are written: decided as in a release, for the viewer of a pane. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { scope } = await lookOfRequest((await params).app, request);
  const asked = await readBody(request, beforeSavingBody);
  return json({ sections: await sectionsBeforeSaving(scope, asked) });
});
