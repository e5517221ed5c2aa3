'use client';

import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { type Review, counted, countedOr } from '@/core/edit';
import type { Breaking } from '@/contract/studio/releasing';
import { Window } from '../../parts/window';

export function summary({ gaining, losing, others, power }: Review): string {
  const said = [
    ...(gaining + losing === 0
      ? ['Nobody gains or loses access to a screen, field or button']
      : [
          `${people(gaining)} ${gaining > 1 ? 'gain' : 'gains'} access`,
          `${people(losing).toLowerCase()} ${losing > 1 ? 'lose' : 'loses'} access`,
        ]),
    ...(others > 0
      ? [`${people(others).toLowerCase()} only ${others > 1 ? 'see' : 'sees'} different records`]
      : []),
  ];
  const places = counted(power.length, 'place');
  return `${said.join(', ')}.${power.length > 0 ? ` It gives people powers in ${places}.` : ''}`;
}

/** Releasing asks once: what it does cannot be taken back, only followed by another release. */
export function ReleaseWindow({
  number,
  review,
  busy,
  current,
  breaking,
  onRelease,
}: {
  number: number;
  review: Review;
  busy: boolean;
  /** Is it a review of the draft as it is now? */
  current: boolean;
  breaking: Breaking;
  onRelease: (said: { note: string; despite: string }) => void;
}) {
  const [open, setOpen] = useState(false);
  const broken = breaking.broken.length;
  const { register, handleSubmit } = useForm({
    defaultValues: { note: '', despite: '' },
  });
  const submit = handleSubmit((said) => {
    setOpen(false);
    onRelease(said);
  });
  return (
    <Window
      title={`Release ${number}`}
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button
          type="button"
          className="button button-main"
          disabled={busy || !current || (broken > 0 && !breaking.mayBreak)}
        >
          {busy ? 'Releasing…' : `Release ${number}…`}
        </button>
      }
    >
      <form onSubmit={(event) => void submit(event)}>
        <p>The release goes live immediately, including for people who are signed in. {summary(review)}</p>
        <label className="mt-3 block">
          Release note
          <textarea className="field-box mt-1 h-20" maxLength={1000} {...register('note')} />
        </label>
        {broken > 0 && (
          <label className="mt-3 block">
            This release breaks {counted(broken, 'expectation')}. Reason
            <textarea className="field-box mt-1 h-20" required maxLength={1000} {...register('despite')} />
          </label>
        )}
        <button type="submit" className="button button-main mt-3">
          Release
        </button>
      </form>
    </Window>
  );
}

const people = (n: number): string => countedOr('Nobody', n, 'viewer');
