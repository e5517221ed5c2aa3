import { countedOr } from '@/core/edit';
import type { DraftState } from './draft-store';

/** Whether all is saved, and how much waits for a release. */
export function SavedState({
  draft,
  waiting,
  released,
  mayChange,
}: {
  draft: DraftState;
  waiting: number;
  released: number | undefined;
  mayChange: boolean;
}) {
  const since =
    released === undefined
      ? 'not released yet'
      : `${countedOr('no change', waiting, 'change')} since release ${released}`;
  const saved = {
    saved: mayChange ? 'Saved' : 'Read-only',
    saving: 'Saving…',
    unreachable: 'Not saved: the server cannot be reached. Trying again…',
    'signed-out':
      'Not saved: you have been signed out. Sign in in another tab and your changes will be saved.',
  }[draft.saved];
  return (
    <span
      role="status"
      className={draft.saved === 'saved' || draft.saved === 'saving' ? 'text-quiet' : 'font-semibold'}
    >
      {saved}
      {draft.saved === 'saved' && `, ${since}`}
    </span>
  );
}
