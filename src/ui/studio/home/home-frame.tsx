'use client';

import type { ReactNode } from 'react';
import { Queries } from '@/ui/client/queries';
import { Toasts } from '../../parts/toasts';
import { Mark } from '../shell/mark';
import { useSignOut } from '../shell/sign-out';

interface Props {
  readonly builder: string;
  readonly children: ReactNode;
}

/** The studio outside any application: its bar, with who is working. */
export function HomeFrame({ builder, children }: Props) {
  return (
    <Queries>
      <Toasts>
        <div className="grid min-h-screen min-w-[1000px] grid-rows-[46px_minmax(0,1fr)]">
          <header className="flex items-center gap-5 border-b border-edge bg-paper px-4">
            <a href="/studio" className="flex items-center gap-2 font-semibold">
              <Mark />
              Zinc Gate
            </a>
            <a className="link ml-auto" href="/studio/account" title="Your account">
              {builder}
            </a>
            <SignOut />
          </header>
          <main className="mx-auto w-full max-w-6xl min-w-0 px-6 py-6">{children}</main>
        </div>
      </Toasts>
    </Queries>
  );
}

function SignOut() {
  const signOut = useSignOut();
  return (
    <button type="button" className="link" onClick={signOut}>
      Sign out
    </button>
  );
}
