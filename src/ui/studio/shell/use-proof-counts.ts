'use client';

import { useEffect, useRef } from 'react';
import { useAsked } from '../../parts/queries';
import { useTell } from '../../parts/toasts';

/** How much there is to look at in the newest revision that was looked through. */
export interface ProofCounts {
  readonly revision: number;
  readonly lookAt: number;
  readonly letsIn: number;
  readonly broken: number;
  readonly lately: readonly { readonly name: string; readonly revision: number; readonly mine: boolean }[];
}

/** The counts, as news bring them; who breaks an expectation is told so at once. */
export function useProofCounts(api: string): ProofCounts | undefined {
  const { data } = useAsked<ProofCounts | null>(`${api}/proof/counts`, { keepsLast: true });
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
      `Your change breaks what is expected: “${first.name}”${more}. Prove tells more; Ctrl Z takes it back.`,
    );
  }, [data, tell]);
  return data ?? undefined;
}
