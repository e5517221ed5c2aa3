'use client';

import { send } from '../../live/host';
import { useAsked } from '../../parts/queries';
import { useTell } from '../../parts/toasts';
import { useStudio } from '../shell/studio-work';

interface ProofSettings {
  /** May a release break an expectation, with a reason? */
  readonly mayBreak: boolean;
  /** After how many days one is reminded of an old sign-off. */
  readonly remindDays: number | null;
}

/** What owners set for proving, and how to set it. */
export function useProofSettings(): {
  settings: ProofSettings | undefined;
  set: (change: Partial<ProofSettings>) => Promise<void>;
} {
  const { api } = useStudio();
  const tell = useTell();
  const { data, refetch } = useAsked<ProofSettings>(`${api}/proof/settings`);
  return {
    settings: data,
    set: async (change) => {
      const answer = await send('PATCH', `${api}/proof/settings`, change);
      if (!answer.ok) tell(answer.detail);
      await refetch();
    },
  };
}
