import { findByName as contract } from '@/contract/studio/draft';
import { inApplication } from '@/server/studio/answering';
import { findByName } from '@/server/studio/find';

export const GET = inApplication(contract, ({ applicationId }, { query }) =>
  findByName(applicationId, (query.get('q') ?? '').slice(0, 200)),
);
