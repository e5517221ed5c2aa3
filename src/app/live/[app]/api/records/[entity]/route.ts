import { liveRecords } from '@/contract/live';
import { inLiveRecords } from '@/server/live/answering';

export const GET = inLiveRecords(liveRecords.list, (api, { params, query }) =>
  api.list(params.entity, query),
);

export const POST = inLiveRecords(liveRecords.create, (api, { params, body }) =>
  api.create(params.entity, body.values),
);
