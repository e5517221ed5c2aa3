'use client';

import { useAsked } from '@/ui/client/queries';
import { send } from '@/ui/client/send';
import { type ProofSettings, proofSettings, setProofSettings } from '@/contract/studio/proving';
import { useTell } from '../../parts/toasts';
import { useStudio } from '../shell/studio-work';

/** What owners set for proving, and how to set it. */
export function useProofSettings(): {
  settings: ProofSettings | undefined;
  set: (change: Partial<ProofSettings>) => Promise<void>;
} {
  const { app } = useStudio();
  const tell = useTell();
  const { data, refetch } = useAsked(proofSettings, { app });
  return {
    settings: data,
    set: async (change) => {
      const answer = await send(setProofSettings, { app, body: change });
      if (!answer.ok) tell(answer.detail);
      await refetch();
    },
  };
}
