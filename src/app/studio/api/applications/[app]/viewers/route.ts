import { keepViewer as keepContract, keptViewers as keptContract } from '@/contract/studio/look';
import { keepViewer, keptViewers } from '@/server/look/viewers';
import { inApplication } from '@/server/studio/answering';

export const GET = inApplication(keptContract, async ({ applicationId }) => ({
  viewers: await keptViewers(applicationId),
}));

export const POST = inApplication(keepContract, async ({ applicationId }, { body: { name, viewer } }) => ({
  id: await keepViewer(applicationId, name.trim(), viewer),
}));
