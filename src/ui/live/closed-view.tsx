'use client';

import { Info, Lock } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { useForm } from 'react-hook-form';
import { FieldMessage, TextField } from '../parts/fields';
import type { ShownClosed } from '@/core/access';
import { useHost } from './host';
import { ShouldSee } from './should-see';
import { Window } from '../parts/window';

interface Props {
  readonly id: string;
  readonly name: string;
  readonly closed: ShownClosed;
  /** The record that it is about, where there is one. */
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
            <Info size={14} aria-label="locked: show why" />
          </button>
        }
      >
        <p className="whitespace-pre-wrap">{closed.text}</p>
        {host.unlock && record !== undefined && <UnlockWindow id={id} name={name} record={record} />}
        <ShouldSee element={id} name={name} />
      </Window>
    );
  return (
    <span data-element={id} className={`inline-flex items-center gap-1.5 text-quiet ${className}`}>
      <Lock size={14} aria-label="Locked" />
      {name}
      {host.unlock && record !== undefined && <UnlockWindow id={id} name={name} record={record} />}
      <ShouldSee element={id} name={name} />
    </span>
  );
}

/** What stands in a list's cell that is closed: a lock, and behind it the way to unlock it on that row. */
export function ClosedCell({ id, name, record }: { id: string; name: string; record: string }) {
  const host = useHost();
  const lock = <Lock size={13} aria-hidden className="inline" />;
  if (!host.unlock) return <Lock size={13} aria-label="Locked" className="inline text-quiet" />;
  return <UnlockWindow id={id} name={name} record={record} trigger={lock} />;
}

/** Somebody who may opens it here for a while, by signing in over it. Their session does not begin. */
function UnlockWindow({
  id,
  name,
  record,
  trigger = 'Unlock',
}: {
  id: string;
  name: string;
  record: string;
  trigger?: ReactNode;
}) {
  const host = useHost();
  const [open, setOpen] = useState(false);
  const [problem, setProblem] = useState('');
  const { register, handleSubmit } = useForm({ defaultValues: { email: '', password: '' } });
  const submit = handleSubmit(async (credentials) => {
    const answer = await host.unlock?.({ element: id, record, ...credentials });
    if (!answer?.ok) return setProblem(answer?.detail ?? '');
    setOpen(false);
    host.tell(`${name} is unlocked for ${answer.value.minutes} minutes.`);
    host.refresh();
  });
  return (
    <Window
      title={`Unlock ${name}`}
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" className="link min-h-[24px]" aria-label={`Unlock ${name}`}>
          {trigger}
        </button>
      }
    >
      <p className="mb-3">
        Someone with access to this can unlock it here for a limited time by signing in below. This is
        recorded in the audit trail under both names.
      </p>
      <form
        onSubmit={(event) => {
          // The form of the page around the window is another one.
          event.stopPropagation();
          void submit(event);
        }}
        className="grid gap-3"
      >
        <TextField
          label="Email address of that person"
          type="email"
          autoComplete="off"
          {...register('email')}
        />
        <TextField
          label="Password of that person"
          type="password"
          autoComplete="off"
          {...register('password')}
        />
        <FieldMessage text={problem} />
        <button type="submit" className="button button-main justify-self-start">
          Unlock
        </button>
      </form>
    </Window>
  );
}
