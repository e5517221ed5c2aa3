'use client';

import { viewerKey } from '@/core';
import { useAsked } from '@/ui/client/queries';
import { send } from '@/ui/client/send';
import { forgetViewer, keptViewers } from '@/contract/studio/look';
import { useTell } from '../../parts/toasts';
import type { KeptViewer } from '@/core/access';

/** The made-up viewers that were kept; `first`: as they came with the bench. */
export function useKeptViewers(app: string, first: readonly KeptViewer[]) {
  const tell = useTell();
  const { data, refetch } = useAsked(keptViewers, { app }, { first: { viewers: first } });
  /** Forgets one. Panes that look as them go on with the same viewer, unnamed: `instead` is that one's key. */
  const forget = async (viewer: KeptViewer, onForgotten: (from: string, instead: string) => void) => {
    const answer = await send(forgetViewer, { app, id: viewer.id });
    if (!answer.ok) return tell(answer.detail);
    onForgotten(viewerKey('kept', viewer.id), viewerKey('made', JSON.stringify(viewer.viewer)));
    await refetch();
  };
  return { kept: data?.viewers ?? first, reload: refetch, forget };
}
