'use client';

import './nonce';
import { AlertDialog } from 'radix-ui';
import { createContext, useCallback, useContext, useRef, useState, type ReactNode } from 'react';

/** What is asked before something is done that cannot be taken back. */
export interface Question {
  readonly title: string;
  readonly text?: string;
  /** What the button says that goes on. */
  readonly go: string;
}

type Ask = (question: Question) => Promise<boolean>;

const AskContext = createContext<Ask>(() => Promise.resolve(false));

/** Asks whether to go on; no, where it is closed. */
export const useConfirm = (): Ask => useContext(AskContext);

/** Gives what is in it a way to ask. */
export function Asking({ children }: { children: ReactNode }) {
  const [asked, setAsked] = useState<Question & { readonly answer: (yes: boolean) => void }>();
  const before = useRef<Element | null>(null);
  const ask = useCallback<Ask>((question) => {
    before.current = document.activeElement;
    return new Promise((resolve) => setAsked({ ...question, answer: resolve }));
  }, []);
  const answer = (yes: boolean): void => {
    asked?.answer(yes);
    setAsked(undefined);
  };
  return (
    <AskContext.Provider value={ask}>
      {children}
      <AlertDialog.Root open={asked !== undefined} onOpenChange={(open) => !open && answer(false)}>
        <AlertDialog.Portal>
          <AlertDialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
          <AlertDialog.Content
            {...(asked?.text === undefined && { 'aria-describedby': undefined })}
            onCloseAutoFocus={(event) => {
              event.preventDefault();
              if (before.current instanceof HTMLElement) before.current.focus();
            }}
            className="fixed top-1/2 left-1/2 z-50 w-[28rem] max-w-[calc(100vw-2rem)] -translate-x-1/2 -translate-y-1/2 border-t-4 border-ink bg-paper p-5 shadow-xl"
          >
            <AlertDialog.Title className="text-lg font-semibold">{asked?.title}</AlertDialog.Title>
            {asked?.text !== undefined && (
              <AlertDialog.Description className="mt-2">{asked.text}</AlertDialog.Description>
            )}
            <div className="mt-4 flex justify-end gap-2">
              <AlertDialog.Cancel className="button">Leave it</AlertDialog.Cancel>
              <AlertDialog.Action className="button button-main" onClick={() => answer(true)}>
                {asked?.go}
              </AlertDialog.Action>
            </div>
          </AlertDialog.Content>
        </AlertDialog.Portal>
      </AlertDialog.Root>
    </AskContext.Provider>
  );
}
