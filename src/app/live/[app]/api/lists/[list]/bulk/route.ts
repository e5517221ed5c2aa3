import { liveBulk, liveChoices } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { ownerOfVisit, scopeOf, writerOf } from '@/server/live/visit';
import { WholeList } from '@/server/records/lists';
import { answerWhole } from '@/server/work/run';

export const GET = inLive(liveChoices, (now, { request, params: { app: slug, list }, query }) => {
  const input = { slug, token: now.token, list, query: query.toString() };
  return answerWhole(request, 'list-choices', input, ownerOfVisit(now, request));
});

export const POST = inLive(liveBulk, async (now, { params, body: { record, records, values } }) => {
  const list = await WholeList.find(scopeOf(now), params.list, 'bulk', record);
  const changed = await list.change(writerOf(now), records, values);
  return { changed: changed.length };
});
