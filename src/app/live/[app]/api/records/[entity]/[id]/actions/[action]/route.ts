import { liveRecords } from '@/contract/live';
import { inLiveRecords } from '@/server/live/answering';

export const POST = inLiveRecords(liveRecords.act, (api, { request, params: { entity, id, action } }) =>
  api.act(entity, id, action, request),
);
