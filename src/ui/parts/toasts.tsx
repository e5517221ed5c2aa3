'use client';

import { X } from 'lucide-react';
import { Toast } from 'radix-ui';
import { createContext, useCallback, useContext, useState, type ReactNode } from 'react';

const TellContext = createContext<(message: string) => void>(() => undefined);

/** Says something in passing, for eyes and for screen readers. */
export const useTell = (): ((message: string) => void) => useContext(TellContext);

/** Gives what is in it a way to say something in passing. */
export function Toasts({ children }: { children: ReactNode }) {
  const [said, setSaid] = useState<readonly { readonly key: number; readonly message: string }[]>([]);
  const tell = useCallback(
    (message: string) => setSaid((now) => [...now.slice(-2), { key: (now.at(-1)?.key ?? 0) + 1, message }]),
    [],
  );
  return (
    <TellContext.Provider value={tell}>
      <Toast.Provider duration={5000} swipeDirection="right">
        {children}
        {said.map(({ key, message }) => (
          <Toast.Root
            key={key}
            onOpenChange={(open) => !open && setSaid((now) => now.filter((one) => one.key !== key))}
            className="flex items-center gap-3 border-l-4 border-open-bright bg-lead px-4 py-2 text-white shadow-lg"
          >
            <Toast.Description>{message}</Toast.Description>
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
