'use client';

import { ask } from '../../live/host';
import { useTell } from '../../parts/toasts';

/** Ends the builder's session, and loads the page to sign in anew: nothing of it stays. */
export function useSignOut(): () => void {
  const tell = useTell();
  return () =>
    void ask('/studio/api/session', { method: 'DELETE' }).then((answer) =>
      answer.ok ? window.location.assign('/studio/sign-in') : tell(answer.detail),
    );
}
