'use client';

import { useState } from 'react';
import { send } from '@/ui/client/send';
import { type ListedSignOff, signOff } from '@/contract/studio/proving';
import { useTell } from '../../parts/toasts';
import { Window } from '../../parts/window';
import { useDraft, useStudio } from '../shell/studio-work';
import { whenInWords } from './since-in-words';
import { useProofSettings } from './use-proof-settings';

const DAY_MS = 86_400_000;

/** So many days old, where that is more than the builder said. */
export function tooOld(
  last: ListedSignOff | undefined,
  remindDays: number | null,
  now: number,
): number | undefined {
  if (!last || remindDays === null) return undefined;
  const days = Math.floor((now - Date.parse(last.at)) / DAY_MS);
  return days > remindDays ? days : undefined;
}

/** What was signed off, and signing what there is now. */
export function SignedPart({
  all,
  chosen,
  onChoose,
}: {
  all: readonly ListedSignOff[];
  chosen: string;
  onChoose: (id: string) => void;
}) {
  const { definition } = useDraft();
  return (
    <section aria-label="Sign-offs" className="mt-2 border-t-2 border-ink bg-paper">
      <div className="flex flex-wrap items-center gap-3 border-b border-rule px-3 py-2">
        <SignWindow />
        <Remind />
      </div>
      {all.length === 0 && (
        <p className="px-4 py-6 text-quiet">
          No sign-offs yet. Sign off the current access once you have reviewed it. The sign-off is kept
          unchanged, so you can see later what has changed.
        </p>
      )}
      <ul>
        {all.map((one) => (
          <li key={one.id}>
            <button
              type="button"
              aria-pressed={one.id === chosen}
              className="w-full border-b border-rule px-3 py-1.5 text-left hover:bg-plate aria-pressed:bg-open-soft"
              onClick={() => onChoose(one.id)}
            >
              <span className="font-medium">{one.title}</span>
              <span className="block text-[13px] text-quiet">
                {one.release === null ? `Revision ${one.revision}` : `Release ${one.release}`}, by {one.by},{' '}
                {whenInWords(definition, one.at)}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function SignWindow() {
  const { app } = useStudio();
  const { revision, saved } = useDraft();
  const tell = useTell();
  const [open, setOpen] = useState(false);
  const [title, setTitle] = useState('');
  const [problem, setProblem] = useState('');
  const sign = async (): Promise<void> => {
    const answer = await send(signOff, { app, body: { title, revision } });
    if (!answer.ok) return setProblem(answer.detail);
    setOpen(false);
    setTitle('');
    tell('Access signed off.');
  };
  return (
    <Window
      title="Sign off access"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" className="button button-main" disabled={saved !== 'saved'}>
          Sign off…
        </button>
      }
    >
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void sign();
        }}
      >
        <p className="text-quiet">
          You confirm the access that revision {revision} gives, combined with the roles that people have now.
          It is kept unchanged, with your name and its SHA-256.
        </p>
        <label className="grid gap-1">
          Title
          <input
            className="field-box"
            required
            maxLength={120}
            placeholder="For example: Annual access review"
            value={title}
            onChange={(event) => setTitle(event.target.value)}
          />
        </label>
        {problem && <p role="alert">{problem}</p>}
        <button
          type="submit"
          className="button button-main justify-self-start"
          disabled={title.trim() === ''}
        >
          Sign off
        </button>
      </form>
    </Window>
  );
}

/** After how many days one is reminded: owners say so. */
function Remind() {
  const { owns } = useStudio();
  const { settings, set } = useProofSettings();
  const [text, setText] = useState<string>();
  const shown = text ?? (settings?.remindDays ? String(settings.remindDays) : '');
  return (
    <label className="flex items-center gap-2 text-[13px]">
      Show a reminder when the last sign-off is older than
      <input
        className="field-box w-16"
        inputMode="numeric"
        aria-label="Days until a reminder is shown"
        disabled={!owns || !settings}
        value={shown}
        onChange={(event) => setText(event.target.value.replace(/\D/g, '').slice(0, 4))}
        onBlur={() => {
          if (text === undefined) return;
          void set({ remindDays: text === '' || Number(text) === 0 ? null : Math.min(3650, Number(text)) });
          setText(undefined);
        }}
      />
      days
    </label>
  );
}
