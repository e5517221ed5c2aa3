'use client';

import './nonce';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

/** A window over the page, with its title. */
export function Window({
  title,
  trigger,
  children,
  open,
  onOpenChange,
}: {
  title: string;
  trigger?: ReactNode;
  children: ReactNode;
  open?: boolean;
  onOpenChange?: (open: boolean) => void;
}) {
  return (
    <Dialog.Root {...(open !== undefined && { open })} {...(onOpenChange && { onOpenChange })}>
      {trigger && <Dialog.Trigger asChild>{trigger}</Dialog.Trigger>}
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-lead/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-24 left-1/2 z-40 max-h-[calc(100vh-8rem)] w-[30rem] max-w-[calc(100vw-2rem)] -translate-x-1/2 overflow-auto border-t-4 border-ink bg-paper p-5 shadow-lg"
        >
          <Dialog.Title className="mb-3 text-[17px] font-semibold">{title}</Dialog.Title>
          {children}
          <Dialog.Close asChild>
            <button type="button" className="button mt-4">
              Close
            </button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
