import { proofOverReleases } from '@/contract/studio/proving';
import { overReleases } from '@/server/proving/proof';
import { inApplication } from '@/server/studio/answering';

export const GET = inApplication(proofOverReleases, async ({ applicationId }) => ({
  releases: await overReleases(applicationId),
}));
