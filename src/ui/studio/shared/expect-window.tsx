'use client';

import { counted } from '@/core/edit';
import { useState } from 'react';
import type { Expectation } from '@/core/expectations';
import { send } from '@/ui/client/send';
import { addExpectations } from '@/contract/studio/proving';
import { useTell } from '../../parts/toasts';
import { Window } from '../../parts/window';
import { useStudio } from '../shell/studio-work';

/** What is to be expected: of whom, of what, and where and when if it is about one record or moment. */
export type ToExpect = Pick<Expectation, 'viewer' | 'element' | 'record' | 'moment'>;

/** Asks what an expectation protects and why, and keeps it: from then on it should be as it is now. */
export function ExpectWindow({
  name: first,
  of,
  onClose,
}: {
  name: string;
  of: readonly ToExpect[];
  onClose: () => void;
}) {
  const { app } = useStudio();
  const tell = useTell();
  const [name, setName] = useState(first);
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const keep = async (): Promise<void> => {
    setBusy(true);
    const answer = await send(addExpectations, { app, body: { name, reason, of } });
    setBusy(false);
    if (!answer.ok) return setProblem(answer.detail);
    const { added } = answer.value;
    tell(`${counted(added, 'expectation')} added. See the Prove bench.`);
    onClose();
  };
  return (
    <Window title="Add expectation" open onOpenChange={(open) => !open && onClose()}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <p className="text-quiet">
          {of.length === 1
            ? 'The current level becomes the expected level. Every later change is checked against it.'
            : `The current levels of ${of.length} cells become the expected levels. Every later change is checked against them.`}
        </p>
        <label className="grid gap-1">
          Name
          <input
            className="field-box"
            required
            maxLength={120}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <label className="grid gap-1">
          Reason
          <textarea
            className="field-box"
            rows={2}
            maxLength={500}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
        {problem && (
          <p role="alert" className="border-l-4 border-ink bg-sheet px-3 py-1">
            {problem}
          </p>
        )}
        <button
          type="submit"
          className="button button-main justify-self-start"
          disabled={busy || name.trim() === ''}
        >
          Add expectation
        </button>
      </form>
    </Window>
  );
}
