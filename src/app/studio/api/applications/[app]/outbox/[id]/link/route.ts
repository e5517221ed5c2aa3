import { isUuid } from '@/server/database/uuid';
import { handle, json } from '@/server/http/handle';
import { notThere } from '@/server/http/problem';
import { showLink } from '@/server/people/links';
import { needPeopleRight } from '@/server/studio/builder';

/** Shows the link of one message. */
export const POST = handle<{ params: Promise<{ app: string; id: string }> }>(async (_, { params }) => {
  const { app, id } = await params;
  const { applicationId, builder } = await needPeopleRight(app);
  if (!isUuid(id)) throw notThere();
  return json({ link: await showLink(applicationId, builder.id, id) });
});
