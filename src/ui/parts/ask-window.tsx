'use client';

import './nonce';
import { AlertDialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { useReturnFocus } from './use-return-focus';

interface Props {
  readonly open: boolean;
  readonly title: string;
  readonly text?: ReactNode;
  /** What the button says that goes on. */
  readonly go: string;
  /** May one go on already? */
  readonly ready?: boolean;
  /** Whether one goes on; not, where it is closed. */
  readonly onAnswer: (yes: boolean) => void;
}

/** Asks before something is done. There need be no button that opened it: the focus goes back to where it was. */
export function AskWindow({ open, title, text, go, ready = true, onAnswer }: Props) {
  const returning = useReturnFocus();
  return (
    <AlertDialog.Root open={open} onOpenChange={(to) => !to && onAnswer(false)}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <AlertDialog.Content
          {...(text === undefined && { 'aria-describedby': undefined })}
          {...returning}
          className="fixed top-1/2 left-1/2 z-50 w-[29rem] max-w-[calc(100vw-2rem)] -translate-x-1/2 -translate-y-1/2 border-t-4 border-ink bg-paper p-5 shadow-xl"
        >
          <AlertDialog.Title className="text-lg font-semibold">{title}</AlertDialog.Title>
          {text !== undefined && (
            <AlertDialog.Description asChild>
              <div className="mt-2 grid max-h-72 gap-1 overflow-y-auto" aria-live="polite">
                {text}
              </div>
            </AlertDialog.Description>
          )}
          <div className="mt-4 flex justify-end gap-2">
            <AlertDialog.Cancel className="button">Cancel</AlertDialog.Cancel>
            <AlertDialog.Action
              className="button button-main"
              disabled={!ready}
              onClick={() => onAnswer(true)}
            >
              {go}
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
