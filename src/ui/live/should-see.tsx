'use client';

import { useState, type FormEvent } from 'react';
import { Window } from '../parts/window';
import { useHost } from './host';
import { textIn } from '../parts/form-text';

/** Lets somebody tell the builders that they should see this; `element` is what is locked here. */
export function ShouldSee({ element, name }: { element?: string; name?: string }) {
  const host = useHost();
  const [open, setOpen] = useState(false);
  const [problem, setProblem] = useState('');
  if (!host.note) return null;
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    event.stopPropagation();
    const text = textIn(new FormData(event.currentTarget), 'text');
    const answer = await host.note?.({ text, ...(element !== undefined && { element }) });
    if (!answer?.ok) return setProblem(answer?.detail ?? '');
    setOpen(false);
    host.tell('Sent. The people who build this application will look at it.');
  };
  return (
    <Window
      title={name === undefined ? 'I should be able to see this' : `I should be able to see “${name}”`}
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button
          type="button"
          className={element === undefined ? 'button mt-4' : 'link min-h-[24px]'}
          {...(name !== undefined && { 'aria-label': `I should be able to see ${name}` })}
        >
          {element === undefined ? 'I should be able to see this' : 'I should see this'}
        </button>
      }
    >
      <p className="mb-3">
        A note goes to the people who build this application, with your name, this address and the time.
      </p>
      <form onSubmit={(event) => void submit(event)} className="grid gap-3">
        <label>
          <span className="text-quiet">What do you need it for? (may stay empty)</span>
          <textarea name="text" rows={3} maxLength={2000} className="field-box" />
        </label>
        {problem && (
          <p role="alert" className="border-l-4 border-ink bg-sheet px-3 py-2">
            {problem}
          </p>
        )}
        <button type="submit" className="button button-main justify-self-start">
          Send the note
        </button>
      </form>
    </Window>
  );
}
