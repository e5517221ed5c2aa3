import { lookRecords } from '@/contract/studio/look';
import { inLookRecords } from '@/server/look/answering';

export const GET = inLookRecords(lookRecords.list, (api, { params, query }) =>
  api.list(params.entity, query),
);

export const POST = inLookRecords(lookRecords.create, (api, { params, body }) =>
  api.create(params.entity, body.values),
);
