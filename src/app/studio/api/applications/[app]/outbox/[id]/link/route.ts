import { outboxLink } from '@/contract/studio/people';
import { isUuid } from '@/server/database/uuid';
import { notThere } from '@/server/http/problem';
import { showLink } from '@/server/people/links';
import { inApplication } from '@/server/studio/answering';

export const POST = inApplication(outboxLink, async ({ applicationId, builder }, { params: { id } }) => {
  if (!isUuid(id)) throw notThere();
  return { link: await showLink(applicationId, builder.id, id) };
});
