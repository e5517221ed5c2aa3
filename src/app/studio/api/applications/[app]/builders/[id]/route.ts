import { changeBuilder as changeContract, letBuilderOut } from '@/contract/studio/builders';
import { isUuid } from '@/server/database/uuid';
import { notThere } from '@/server/http/problem';
import { inApplication } from '@/server/studio/answering';
import { needOwner } from '@/server/studio/builder';
import { changeBuilder } from '@/server/studio/builders';

export const PATCH = inApplication(changeContract, async (here, { params: { id }, body: { role } }) => {
  if (!isUuid(id)) throw notThere();
  await changeBuilder(here, id, role);
});

export const DELETE = inApplication(letBuilderOut, async (here, { params: { app, id } }) => {
  if (here.builder.id !== id) await needOwner(app, 'can remove builders');
  if (!isUuid(id)) throw notThere();
  await changeBuilder(here, id, null);
});
