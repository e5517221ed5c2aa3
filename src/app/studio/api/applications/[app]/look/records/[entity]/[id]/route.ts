import { lookRecords } from '@/contract/studio/look';
import { inLookRecords } from '@/server/look/answering';

export const GET = inLookRecords(lookRecords.read, (api, { params: { entity, id } }) => api.read(entity, id));

export const PATCH = inLookRecords(lookRecords.update, (api, { request, params: { entity, id }, body }) =>
  api.update(entity, id, request, body.values),
);

export const DELETE = inLookRecords(lookRecords.delete, (api, { request, params: { entity, id } }) =>
  api.delete(entity, id, request),
);
