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
      ? 'never released'
      : `${countedOr('no change', waiting, 'change')} since release ${released}`;
  const saved = {
    saved: mayChange ? 'Saved' : 'For reading only',
    saving: 'Saving …',
    unreachable: 'Not saved: the server cannot be reached. Trying again …',
    'signed-out': 'Not saved: you are signed out. Sign in in another window, and it is saved.',
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
