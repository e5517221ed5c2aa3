import { lookRecords } from '@/contract/studio/look';
import { inLookRecords } from '@/server/look/answering';

export const POST = inLookRecords(lookRecords.act, (api, { request, params: { entity, id, action } }) =>
  api.act(entity, id, action, request),
);
