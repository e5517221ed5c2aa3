'use client';

import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { FieldMessage } from '../parts/fields';
import { Window } from '../parts/window';
import { useHost } from './host';

/** Lets somebody tell the builders that they should see this; `element` is what is locked here. */
export function ShouldSee({ element, name }: { element?: string; name?: string }) {
  const host = useHost();
  const [open, setOpen] = useState(false);
  const [problem, setProblem] = useState('');
  const { register, handleSubmit } = useForm({ defaultValues: { text: '' } });
  const submit = handleSubmit(async ({ text }) => {
    const answer = await host.note?.({ text, ...(element !== undefined && { element }) });
    if (!answer?.ok) return setProblem(answer?.detail ?? '');
    setOpen(false);
    host.tell('Request sent. The people who build this application will review it.');
  });
  if (!host.note) return null;
  return (
    <Window
      title={name === undefined ? 'Request access…' : `Request access to “${name}”`}
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button
          type="button"
          className={element === undefined ? 'button mt-4' : 'link min-h-[24px]'}
          {...(name !== undefined && { 'aria-label': `Request access to ${name}` })}
        >
          {element === undefined ? 'Request access…' : 'Request access'}
        </button>
      }
    >
      <p className="mb-3">
        Your request is sent to the people who build this application, with your name, this address and the
        time.
      </p>
      <form
        onSubmit={(event) => {
          // The form of the page around the window is another one.
          event.stopPropagation();
          void submit(event);
        }}
        className="grid gap-3"
      >
        <label>
          <span className="text-quiet">Why do you need it? (optional)</span>
          <textarea rows={3} maxLength={2000} className="field-box" {...register('text')} />
        </label>
        <FieldMessage text={problem} />
        <button type="submit" className="button button-main justify-self-start">
          Send request
        </button>
      </form>
    </Window>
  );
}
