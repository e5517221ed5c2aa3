import { lookBulk, lookChoices } from '@/contract/studio/look';
import { inLook } from '@/server/look/answering';
import { WholeList } from '@/server/records/lists';
import { inApplication } from '@/server/studio/answering';
import { answerWhole } from '@/server/work/run';

export const GET = inApplication(lookChoices, (workplace, { request, params: { list }, query }) => {
  const look = { workplace, query: query.toString(), path: new URL(request.url).pathname };
  return answerWhole(request, 'list-choices-of-look', { ...look, list }, workplace.builder.id);
});

export const POST = inLook(lookBulk, async (look, { params, body: { record, records, values } }) => {
  const list = await WholeList.find(look.scope, params.list, 'bulk', record);
  const changed = await list.change(look.writer, records, values);
  return { changed: changed.length };
});
