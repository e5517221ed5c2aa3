'use client';

import './nonce';
import { Dialog } from 'radix-ui';
import { useRef, useState, type FocusEvent, type ReactNode } from 'react';
import { AskWindow } from './ask-window';
import { useReturnFocus } from './use-return-focus';

interface Props {
  readonly title: ReactNode;
  readonly trigger?: ReactNode;
  readonly children: ReactNode;
  readonly open?: boolean;
  readonly onOpenChange?: (open: boolean) => void;
  /** As wide as the page lets it be. */
  readonly wide?: boolean;
  /** What stands before the button that closes it. */
  readonly footer?: ReactNode;
  readonly close?: string;
}

/** A window over the page, with its title. Whoever closes it is asked before what they typed there is lost. */
export function Window(props: Props) {
  const { title, trigger, children, onOpenChange, wide = false, footer, close = 'Close' } = props;
  const [opened, setOpened] = useState(false);
  const open = props.open ?? opened;
  const [asks, setAsks] = useState(false);
  const returning = useReturnFocus();
  const typed = useTyped();
  const turn = (to: boolean): void => {
    typed.forget();
    setOpened(to);
    onOpenChange?.(to);
  };
  return (
    <Dialog.Root open={open} onOpenChange={(to) => (!to && typed.isUnsaved() ? setAsks(true) : turn(to))}>
      {trigger && <Dialog.Trigger asChild>{trigger}</Dialog.Trigger>}
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-lead/40" />
        <Dialog.Content
          aria-describedby={undefined}
          {...returning}
          onFocus={typed.onFocus}
          className={`fixed left-1/2 z-40 max-w-[calc(100vw-2rem)] -translate-x-1/2 overflow-auto border-t-4 border-ink bg-paper p-5 shadow-lg ${wide ? 'top-10 max-h-[calc(100vh-5rem)] w-[64rem]' : 'top-24 max-h-[calc(100vh-8rem)] w-[30rem]'}`}
        >
          <Dialog.Title className="mb-3 text-[17px] font-semibold">{title}</Dialog.Title>
          {children}
          <div className="mt-4 flex gap-2">
            {footer}
            <Dialog.Close className="button">{close}</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
      <AskWindow
        open={asks}
        title="Discard what you have typed?"
        go="Discard"
        onAnswer={(yes) => {
          setAsks(false);
          if (yes) turn(false);
        }}
      />
    </Dialog.Root>
  );
}

const TYPED =
  'textarea, input:not([type=checkbox], [type=radio], [type=file], [type=search], [role=combobox], [cmdk-input])';

/** Knows of a window's fields what was in them when they were first entered. */
function useTyped() {
  const first = useRef(new Map<HTMLInputElement | HTMLTextAreaElement, string>());
  return {
    onFocus: ({ target }: FocusEvent<HTMLElement>): void => {
      if (!target.matches(TYPED)) return;
      const field = target as HTMLInputElement | HTMLTextAreaElement;
      if (!first.current.has(field)) first.current.set(field, field.value);
    },
    /** Is there something that nobody has saved? A field that saves itself says so. */
    isUnsaved: (): boolean =>
      [...first.current].some(
        ([field, value]) =>
          field.isConnected &&
          (field.dataset['asKept'] === undefined
            ? field.value !== value
            : field.dataset['asKept'] === 'false'),
      ),
    forget: (): void => first.current.clear(),
  };
}
