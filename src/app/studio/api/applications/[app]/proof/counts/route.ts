import { proofCounts } from '@/contract/studio/proving';
import { countsOf } from '@/server/proving/proof';
import { inApplication } from '@/server/studio/answering';

export const GET = inApplication(
  proofCounts,
  async ({ applicationId, builder }) => (await countsOf(applicationId, builder.id)) ?? null,
);
