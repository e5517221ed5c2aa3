'use client';

import { X } from 'lucide-react';
import { Toast } from 'radix-ui';
import { Asking } from './asking';
import { createContext, useCallback, useContext, useState, type ReactNode } from 'react';

/** Says something in passing; with `undo`, what was done can be taken back beside it. */
export type Tell = (message: string, undo?: () => void) => void;

const TellContext = createContext<Tell>(() => undefined);

/** Says something in passing, for eyes and for screen readers. */
export const useTell = (): Tell => useContext(TellContext);

interface Said {
  readonly key: number;
  readonly message: string;
  readonly undo: (() => void) | undefined;
}

/** Gives what is in it a way to say something in passing, and to ask before what cannot be taken back. */
export function Toasts({ children }: { children: ReactNode }) {
  const [said, setSaid] = useState<readonly Said[]>([]);
  const tell = useCallback<Tell>(
    (message, undo) =>
      setSaid((now) => {
        // Only what was done last can be taken back: an earlier offer goes.
        const still = undo ? now.filter((one) => !one.undo) : now;
        return [...still.slice(-2), { key: (now.at(-1)?.key ?? 0) + 1, message, undo }];
      }),
    [],
  );
  return (
    <TellContext.Provider value={tell}>
      <Toast.Provider duration={5000} swipeDirection="right">
        <Asking>{children}</Asking>
        {said.map(({ key, message, undo }) => (
          <Toast.Root
            key={key}
            onOpenChange={(open) => !open && setSaid((now) => now.filter((one) => one.key !== key))}
            className="flex items-center gap-3 border-l-4 border-open-bright bg-lead px-4 py-2 text-white shadow-lg"
          >
            <Toast.Description>{message}</Toast.Description>
            {undo && (
              <Toast.Action
                altText="Undo (Ctrl+Z)"
                className="ml-auto font-semibold underline"
                onClick={undo}
              >
                Undo
              </Toast.Action>
            )}
            <Toast.Close aria-label="Close" className="text-lead-text hover:text-white">
              <X size={15} aria-hidden />
            </Toast.Close>
          </Toast.Root>
        ))}
        <Toast.Viewport className="fixed right-5 bottom-5 z-50 flex w-96 max-w-full flex-col gap-2" />
      </Toast.Provider>
    </TellContext.Provider>
  );
}
