import { liveRecords } from '@/contract/live';
import { inLiveRecords } from '@/server/live/answering';

export const GET = inLiveRecords(liveRecords.read, (api, { params: { entity, id } }) => api.read(entity, id));

export const PATCH = inLiveRecords(liveRecords.update, (api, { request, params: { entity, id }, body }) =>
  api.update(entity, id, request, body.values),
);

export const DELETE = inLiveRecords(liveRecords.delete, (api, { request, params: { entity, id } }) =>
  api.delete(entity, id, request),
);
