import { proofSettings, setProofSettings as setContract } from '@/contract/studio/proving';
import { proofSettingsOf, setProofSettings } from '@/server/proving/settings';
import { inApplication } from '@/server/studio/answering';

export const GET = inApplication(proofSettings, ({ applicationId }) => proofSettingsOf(applicationId));

export const PATCH = inApplication(setContract, ({ applicationId, builder }, { body }) =>
  setProofSettings(applicationId, builder.id, body),
);
