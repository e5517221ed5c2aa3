import { setFindingAside as contract } from '@/contract/studio/proving';
import { setFindingAside } from '@/server/proving/proof';
import { inApplication } from '@/server/studio/answering';

export const PUT = inApplication(contract, ({ applicationId, builder }, { body: { key, reason } }) =>
  setFindingAside(applicationId, builder.id, key, reason),
);
