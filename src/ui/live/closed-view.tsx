'use client';

import '../parts/nonce';
import { Info, Lock } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useState, type FormEvent, type ReactNode } from 'react';
import type { ShownClosed } from '@/core/access/shown';
import { useHost } from './host';

interface Props {
  readonly id: string;
  readonly name: string;
  readonly closed: ShownClosed;
  /** The record of its screen, where that shows one. */
  readonly record?: string | undefined;
  readonly className?: string;
}

/** Something closed that is shown all the same: its name with a lock, or with the builder's words on use. */
export function ClosedView({ id, name, closed, record, className = '' }: Props) {
  const host = useHost();
  if (closed.text !== undefined)
    return (
      <Window
        title={name}
        trigger={
          <button
            type="button"
            data-element={id}
            className={`inline-flex items-center gap-1.5 text-left text-quiet hover:text-ink ${className}`}
          >
            {name}
            <Info size={14} aria-label="not open to you: why" />
          </button>
        }
      >
        <p className="whitespace-pre-wrap">{closed.text}</p>
      </Window>
    );
  return (
    <span data-element={id} className={`inline-flex items-center gap-1.5 text-quiet ${className}`}>
      <Lock size={14} aria-label="locked" />
      {name}
      {host.unlock && <UnlockWindow id={id} name={name} record={record} />}
    </span>
  );
}

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

/** Somebody who may opens it here for a while, by signing in over it. Their session does not begin. */
function UnlockWindow({ id, name, record }: { id: string; name: string; record?: string | undefined }) {
  const host = useHost();
  const [open, setOpen] = useState(false);
  const [problem, setProblem] = useState('');
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    event.stopPropagation();
    const form = new FormData(event.currentTarget);
    const answer = await host.unlock?.({
      element: id,
      ...(record !== undefined && { record }),
      email: String(form.get('email')),
      password: String(form.get('password')),
    });
    if (!answer?.ok) return setProblem(answer?.detail ?? '');
    setOpen(false);
    host.tell(`${name} is open for ${answer.value.minutes} minutes.`);
    host.refresh();
  };
  return (
    <Window
      title={`Unlock ${name}`}
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" className="link min-h-[24px]" aria-label={`Unlock ${name}`}>
          Unlock
        </button>
      }
    >
      <p className="mb-3">
        Somebody who may see this can open it here, for a while. They sign in below; it is recorded under both
        names.
      </p>
      <form onSubmit={(event) => void submit(event)} className="grid gap-3">
        <label>
          <span className="text-quiet">Their email address</span>
          <input name="email" type="email" autoComplete="off" className="field-box" />
        </label>
        <label>
          <span className="text-quiet">Their password</span>
          <input name="password" type="password" autoComplete="off" className="field-box" />
        </label>
        {problem && (
          <p role="alert" className="border-l-4 border-ink bg-sheet px-3 py-2">
            {problem}
          </p>
        )}
        <button type="submit" className="button button-main justify-self-start">
          Unlock
        </button>
      </form>
    </Window>
  );
}
