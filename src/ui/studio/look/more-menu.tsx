'use client';

import { Ellipsis } from 'lucide-react';
import { Popover } from 'radix-ui';
import { send } from '@/ui/client/send';
import { keepPane } from '@/contract/studio/look';
import { useLook } from './context';
import { panesToQuery, type PaneState } from './pane-state';
import { idInKey } from '@/core/access';
import { Select } from '@/ui/parts/select';

/** What else there is to a pane: what it looks at, its changes, where its viewer starts, and a link to its state. */
export function MoreMenu({
  letter,
  state,
  id,
  changes,
  onState,
  onThrowAway,
  onKept,
}: {
  letter: string;
  state: PaneState;
  id: string;
  changes: number;
  onState: (state: PaneState) => void;
  onThrowAway: () => void;
  onKept: () => void;
}) {
  const { app, draft, releases, kept, forget, live, giveLive, mayChange, tell } = useLook();
  const keptViewer = kept.find((one) => one.id === idInKey('kept', state.viewer));
  const copy = async (): Promise<void> => {
    // The draft goes on; the link stays at the revision, and a moment of its own, that were looked at.
    const on = state.on === 'draft' ? `draft:${draft.revision}` : state.on;
    const query = panesToQuery([{ ...state, on, moment: state.moment ?? Date.now() }]);
    const link = `${window.location.origin}${window.location.pathname}?${query}`;
    await navigator.clipboard.writeText(link).then(
      () => tell('Link copied. It opens exactly this view for any builder of the application.'),
      () => window.prompt('Copy this link:', link),
    );
  };
  const keep = (): void =>
    void send(keepPane, { app, id }).then((answer) => {
      tell(answer.ok ? 'Saved for everyone who uses these records.' : answer.detail);
      if (answer.ok) onKept();
    });
  const option =
    'block min-h-[26px] w-full rounded-sm px-2 py-1 text-left hover:bg-open-soft disabled:text-quiet';
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={`More options for pane ${letter}`}
        className="grid size-[24px] place-items-center hover:bg-sheet"
      >
        <Ellipsis size={16} aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="end" sideOffset={4} className="popover grid w-80 gap-1 p-3">
          <label className="grid grid-cols-[6rem_1fr] items-center">
            Version
            <Select
              value={state.on}
              onChoose={(chosen) => onState({ ...state, on: chosen })}
              options={[
                { id: 'draft', name: 'current draft' },
                ...(state.on.startsWith('draft:')
                  ? [{ id: state.on, name: `draft revision ${state.on.slice('draft:'.length)}` }]
                  : []),
                ...releases.map((number) => ({ id: `release:${number}`, name: `release ${number}` })),
              ]}
            />
          </label>
          <label className="grid grid-cols-[6rem_1fr] items-center">
            Records
            <Select
              value={state.records}
              onChoose={(chosen) =>
                onState({ ...state, records: chosen === 'live' ? 'live' : 'sample', address: '' })
              }
              options={[
                { id: 'sample', name: 'sample records' },
                { id: 'live', name: LIVE[live], disabled: live === 'none' },
              ]}
            />
          </label>
          {giveLive && (
            <Popover.Close asChild>
              <button type="button" className={option} onClick={giveLive}>
                Manage access to live records…
              </button>
            </Popover.Close>
          )}
          <hr className="my-1 border-rule" />
          <Popover.Close asChild>
            <button
              type="button"
              className={option}
              onClick={() => onState({ ...state, address: '', query: '' })}
            >
              Go to this viewer’s start screen
            </button>
          </Popover.Close>
          <Popover.Close asChild>
            <button type="button" className={option} onClick={() => void copy()}>
              Copy link to this view
            </button>
          </Popover.Close>
          {mayChange && keptViewer && (
            <Popover.Close asChild>
              <button type="button" className={option} onClick={() => forget(keptViewer)}>
                Delete saved viewer {keptViewer.name} (for all builders)
              </button>
            </Popover.Close>
          )}
          <Popover.Close asChild>
            <button type="button" className={option} disabled={changes === 0} onClick={onThrowAway}>
              Discard changes made in this pane
            </button>
          </Popover.Close>
          {mayChange && (
            <Popover.Close asChild>
              <button
                type="button"
                className={option}
                disabled={changes === 0 || (state.records === 'live' && live !== 'change')}
                onClick={keep}
              >
                Save changes made in this pane for everyone
              </button>
            </Popover.Close>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const LIVE = {
  none: 'live records (only the owner can give access)',
  read: 'live records, read-only',
  change: 'live records',
} as const;
