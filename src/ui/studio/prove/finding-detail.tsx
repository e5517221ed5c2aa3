'use client';

import Link from 'next/link';
import { compile } from '@/core';
import { addressOf } from '@/core/access';
import { placeInWords, plural } from '@/core/edit';
import type { Definition } from '@/core/model';
import { editOfMend } from '@/core/findings';
import { useMemo, useState } from 'react';
import { useAsked } from '@/ui/client/queries';
import { send } from '@/ui/client/send';
import { effectOfEdit } from '@/contract/studio/draft';
import { setFindingAside, type ShownFinding } from '@/contract/studio/proving';
import { useTell } from '../../parts/toasts';
import { Window } from '../../parts/window';
import { firstPane, panesToQuery } from '../look/pane-state';
import { useDraft, useStudio } from '../shell/studio-work';
import { effectInWords } from './effect-in-words';
import { RankMark } from './findings-part';
import { placeOf, PlaceLink } from './place-link';
import { sinceInWords } from './since-in-words';
import { viewersInWords } from './viewers-in-words';

/** One finding: why, where, whom it touches, and what would mend it, each with what it does told before. */
export function FindingDetail({ finding, behind }: { finding: ShownFinding; behind: boolean }) {
  const { mayChange } = useStudio();
  const { definition } = useDraft();
  const { title, rank, since, reason, places, whom, mends, aside } = finding;
  return (
    <>
      <h2 className="flex items-start gap-2 text-[16px] font-semibold">
        <RankMark rank={rank} />
        {title}
      </h2>
      <p className="text-[13px] text-quiet">
        {rank === 'lets-in' ? 'Access risk. ' : 'Likely mistake. '}
        {since ? sinceInWords(definition, 'Found', since) : 'Already present before the recorded changes.'}
      </p>
      <p className="mt-2">{reason}</p>
      <dl className="mt-3 border-l-4 border-ink bg-plate px-3 py-2 text-[13px]">
        <dt className="font-semibold">Places</dt>
        <dd>
          {places.slice(0, 6).map((id) => (
            <span key={id} className="block">
              <PlaceLink id={id} /> <span className="text-quiet">{whereOf(definition, id)}</span>
            </span>
          ))}
          {places.length > 6 && `and ${places.length - 6} more`}
        </dd>
        {(whom.kinds.length > 0 || whom.people > 0) && (
          <>
            <dt className="mt-1.5 font-semibold">Who is affected</dt>
            <dd>
              {viewersInWords(definition, whom.kinds, 5)}
              {whom.kinds.length > 0 && whom.people > 0 && '; '}
              {whom.people > 0 && (
                <>
                  {whom.some.map(({ name }) => name).join(', ')}
                  {whom.people > whom.some.length && ` and ${whom.people - whom.some.length} more`}
                </>
              )}
            </dd>
            <dd className="mt-1">
              <LookLink finding={finding} definition={definition} />
            </dd>
          </>
        )}
      </dl>
      <h3 className="mt-4 font-semibold">Suggested fixes</h3>
      {mends.length === 0 && (
        <p className="mt-1 text-[13px] text-quiet">
          What to change depends on what you want: open one of the places, and change it there.
        </p>
      )}
      {mends.map((mend, n) => (
        <MendCard key={mend.says} mend={mend} main={n === 0} behind={behind} />
      ))}
      {mayChange && (
        <div className="mt-2 border border-edge px-3 py-2">
          <h4 className="font-semibold">Dismiss finding</h4>
          {aside ? (
            <p className="text-[13px]">
              Dismissed by {aside.by}: {aside.reason}
            </p>
          ) : (
            <p className="text-[13px] text-quiet">
              If this is intended, dismiss it and give a reason. It reappears if the lines or viewers it
              depends on change.
            </p>
          )}
          <Aside finding={finding} />
        </div>
      )}
    </>
  );
}

function whereOf(definition: Definition, id: string): string {
  const element = compile(definition).tree.get(id);
  return element ? placeInWords(element) : (placeOf(definition, id)?.kind ?? '');
}

function MendCard({
  mend,
  main,
  behind,
}: {
  mend: ShownFinding['mends'][number];
  main: boolean;
  behind: boolean;
}) {
  const { app, store, mayChange } = useStudio();
  const { revision, definition } = useDraft();
  const tell = useTell();
  const edit = useMemo(() => editOfMend(definition, mend), [definition, mend]);
  const { data: effect, error } = useAsked(
    effectOfEdit,
    behind || !edit ? undefined : { app, body: { edit } },
    {
      version: revision,
      goodFor: Infinity,
    },
  );
  // Something cannot be without it.
  if (!edit) return null;
  return (
    <div className={`mt-2 border px-3 py-2 ${main ? 'border-edge' : 'border-rule'}`}>
      <p className="font-medium">{mend.says}</p>
      <p className="text-[13px] text-quiet" aria-live="polite">
        {error
          ? error.message
          : effect
            ? effectInWords(effect)
            : 'Working out who gains and who loses access…'}
      </p>
      {mayChange && (
        <button
          type="button"
          className={`button mt-1.5 ${main ? 'button-main' : ''}`}
          disabled={!effect || behind}
          onClick={() => {
            store.apply(edit);
            tell('Fix applied.', () => store.turn('undo'));
          }}
        >
          Apply fix
        </button>
      )}
    </div>
  );
}

/** Looks as somebody whom it touches, at the screen that it is about. */
function LookLink({
  finding: { places, whom },
  definition,
}: {
  finding: ShownFinding;
  definition: Definition;
}) {
  const { app } = useStudio();
  const { tree } = compile(definition);
  const screen = places.map((id) => tree.get(id)).find((one) => one?.screen)?.screen;
  const one = whom.some[0]?.key ?? whom.kinds[0];
  if (one === undefined) return null;
  const address = screen && screen.binds?.record !== 'existing' ? addressOf(screen) : '';
  const other = whom.kinds.find((key) => key !== one);
  const panes = [one, ...(other === undefined ? [] : [other])].map((key) => firstPane(key, address));
  return (
    <Link className="link" href={`/studio/${app}/look?${panesToQuery(panes)}`}>
      {plural(panes.length, 'View as one of them', 'View as two of them, side by side')}
    </Link>
  );
}

function Aside({ finding: { key, aside } }: { finding: ShownFinding }) {
  const { app } = useStudio();
  const tell = useTell();
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  const put = async (said: string | null): Promise<void> => {
    const answer = await send(setFindingAside, { app, body: { key, reason: said } });
    if (!answer.ok) return tell(answer.detail);
    setOpen(false);
    tell(said === null ? 'Finding reopened.' : 'Finding dismissed.');
  };
  if (aside)
    return (
      <button type="button" className="button mt-1.5" onClick={() => void put(null)}>
        Reopen
      </button>
    );
  return (
    <Window
      title="Dismiss finding"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" className="button mt-1.5">
          Dismiss…
        </button>
      }
    >
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void put(reason.trim());
        }}
      >
        <label className="grid gap-1">
          Reason
          <textarea
            className="field-box"
            rows={3}
            required
            maxLength={500}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
        <button
          type="submit"
          className="button button-main justify-self-start"
          disabled={reason.trim() === ''}
        >
          Dismiss finding
        </button>
      </form>
    </Window>
  );
}
