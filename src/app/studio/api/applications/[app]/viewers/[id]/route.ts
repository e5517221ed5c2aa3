import { forgetViewer as contract } from '@/contract/studio/look';
import { isUuid } from '@/server/database/uuid';
import { notThere } from '@/server/http/problem';
import { forgetViewer } from '@/server/look/viewers';
import { inApplication } from '@/server/studio/answering';

export const DELETE = inApplication(contract, async ({ applicationId }, { params: { id } }) => {
  if (!isUuid(id)) throw notThere();
  await forgetViewer(applicationId, id);
});
