'use client';

import { send } from '@/ui/client/send';
import { signOut } from '@/contract/studio/account';
import { useTell } from '../../parts/toasts';

/** Ends the builder's session, and loads the page to sign in anew: nothing of it stays. */
export function useSignOut(): () => void {
  const tell = useTell();
  return () =>
    void send(signOut, {}).then((answer) =>
      answer.ok ? window.location.assign('/studio/sign-in') : tell(answer.detail),
    );
}
