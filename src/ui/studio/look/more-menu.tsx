'use client';

import { Ellipsis } from 'lucide-react';
import { Popover } from 'radix-ui';
import { send } from '@/ui/client/send';
import { keepPane } from '@/contract/studio/look';
import { useLook } from './context';
import { panesToQuery, type PaneState } from './pane-state';
import { idInKey } from '@/core/access';

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
      () => tell('The link is copied. It opens this very state for any builder of the application.'),
      () => window.prompt('Copy this link:', link),
    );
  };
  const keep = (): void =>
    void send(keepPane, { app, id }).then((answer) => {
      tell(answer.ok ? 'Kept, for everybody who looks at these records.' : answer.detail);
      if (answer.ok) onKept();
    });
  const option =
    'block min-h-[26px] w-full rounded-sm px-2 py-1 text-left hover:bg-open-soft disabled:text-quiet';
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={`More of pane ${letter}`}
        className="grid size-[24px] place-items-center hover:bg-sheet"
      >
        <Ellipsis size={16} aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="end" sideOffset={4} className="popover grid w-80 gap-1 p-3">
          <label className="grid grid-cols-[6rem_1fr] items-center">
            Looks at
            <select
              className="field-box"
              value={state.on}
              onChange={(event) => onState({ ...state, on: event.target.value })}
            >
              <option value="draft">the draft, as it is now</option>
              {state.on.startsWith('draft:') && (
                <option value={state.on}>the draft at revision {state.on.slice('draft:'.length)}</option>
              )}
              {releases.map((number) => (
                <option key={number} value={`release:${number}`}>
                  release {number}
                </option>
              ))}
            </select>
          </label>
          <label className="grid grid-cols-[6rem_1fr] items-center">
            Records
            <select
              className="field-box"
              value={state.records}
              onChange={(event) =>
                onState({ ...state, records: event.target.value === 'live' ? 'live' : 'sample', address: '' })
              }
            >
              <option value="sample">sample records</option>
              <option value="live" disabled={live === 'none'}>
                {live === 'none'
                  ? 'live ones: the owner gives that right'
                  : live === 'read'
                    ? 'live records, to read'
                    : 'live records'}
              </option>
            </select>
          </label>
          {giveLive && (
            <Popover.Close asChild>
              <button type="button" className={option} onClick={giveLive}>
                Who may look at live records …
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
              Their start: where they land after signing in
            </button>
          </Popover.Close>
          <Popover.Close asChild>
            <button type="button" className={option} onClick={() => void copy()}>
              Copy a link to this state
            </button>
          </Popover.Close>
          {mayChange && keptViewer && (
            <Popover.Close asChild>
              <button type="button" className={option} onClick={() => forget(keptViewer)}>
                Forget {keptViewer.name}, for all builders
              </button>
            </Popover.Close>
          )}
          <Popover.Close asChild>
            <button type="button" className={option} disabled={changes === 0} onClick={onThrowAway}>
              Throw away what was changed here
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
                Keep what was changed here, for everybody
              </button>
            </Popover.Close>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
