'use client';

import { useEffect, useRef } from 'react';
import { useAsked } from '@/ui/client/queries';
import { type ProofCounts, proofCounts } from '@/contract/studio/proving';
import { useTell } from '../../parts/toasts';

/** The counts, as news bring them; who breaks an expectation is told so at once. */
export function useProofCounts(app: string): ProofCounts | undefined {
  const { data } = useAsked(proofCounts, { app }, { keepsLast: true });
  const tell = useTell();
  const told = useRef<number | undefined>(undefined);
  useEffect(() => {
    if (!data) return;
    const before = told.current;
    told.current = data.revision;
    if (before === undefined) return;
    const fresh = data.lately.filter(({ revision, mine }) => mine && revision > before);
    const [first] = fresh;
    if (!first) return;
    const more = fresh.length > 1 ? ` and ${fresh.length - 1} more` : '';
    tell(
      `Your change breaks an expectation: “${first.name}”${more}. See the Prove bench for details, or press Ctrl+Z to undo.`,
    );
  }, [data, tell]);
  return data ?? undefined;
}
