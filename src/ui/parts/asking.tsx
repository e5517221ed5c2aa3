'use client';

import { createContext, useCallback, useContext, useState, type ReactNode } from 'react';
import { AskWindow } from './ask-window';

/** What is asked before something is done that cannot be taken back, or reaches others. */
export interface Question {
  readonly title: string;
  readonly text?: ReactNode;
  /** What the button says that goes on. */
  readonly go: string;
}

type Ask = (question: Question) => Promise<boolean>;

const AskContext = createContext<Ask>(() => Promise.resolve(false));

/** Asks whether to go on; no, where it is closed. */
export const useConfirm = (): Ask => useContext(AskContext);

/** Gives what is in it a way to ask. */
export function Asking({ children }: { children: ReactNode }) {
  const [open, setOpen] = useState(false);
  // What was asked stays while its window goes.
  const [asked, setAsked] = useState<Question & { readonly answer: (yes: boolean) => void }>();
  const ask = useCallback<Ask>(
    (question) =>
      new Promise((resolve) => {
        setAsked({ ...question, answer: resolve });
        setOpen(true);
      }),
    [],
  );
  return (
    <AskContext.Provider value={ask}>
      {children}
      {asked && (
        <AskWindow
          open={open}
          title={asked.title}
          text={asked.text}
          go={asked.go}
          onAnswer={(yes) => {
            setOpen(false);
            asked.answer(yes);
          }}
        />
      )}
    </AskContext.Provider>
  );
}
