import { proof } from '@/contract/studio/proving';
import { proofOf } from '@/server/proving/proof';
import { inApplication } from '@/server/studio/answering';

export const GET = inApplication(proof, async ({ applicationId }) => (await proofOf(applicationId)) ?? null);
