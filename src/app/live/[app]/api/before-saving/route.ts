import { readBody } from '@/server/http/body';
import { handle, json } from '@/server/http/handle';
import { apiVisit } from '@/server/live/api';
import { beforeSavingBody, sectionsBeforeSaving } from '@/server/live/before-saving';
import { scopeOf } from '@/server/live/visit';

/** `POST …/before-saving`: how a screen would be with the values as they are written. */
export const POST = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const now = await apiVisit((await params).app, request);
  const asked = await readBody(request, beforeSavingBody);
  return json({ sections: await sectionsBeforeSaving(scopeOf(now), asked) });
});
