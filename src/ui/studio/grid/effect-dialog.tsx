'use client';

import { useEffect, useEffectEvent } from 'react';
import type { Edit, EditEffect } from '@/core/edit';
import { effectOfEdit } from '@/contract/studio/draft';
import { counted } from '@/core/edit';
import { AskWindow } from '../../parts/ask-window';
import { useAsked } from '@/ui/client/queries';
import { useTell } from '../../parts/toasts';
import { useBench } from '../frame/bench';
import { KindsMoved } from '../shared/suggested-change';
import { useDraft } from '../shell/studio-work';

/** Says how many people gain and lose by a change before it is made; `unlessNobody`: and makes it, where nobody does. */
export function EffectDialog({
  title,
  edit,
  note,
  unlessNobody = false,
  onClose,
}: {
  title: string;
  edit: Edit;
  note: string;
  unlessNobody?: boolean;
  onClose: () => void;
}) {
  const { app, apply } = useBench();
  const { revision } = useDraft();
  const tell = useTell();
  const { data: effect, error } = useAsked(effectOfEdit, { app, body: { edit } }, { version: revision });
  const done = useEffectEvent((): void => {
    apply(edit);
    onClose();
  });
  const nobody = unlessNobody && effect !== undefined && isNobody(effect);
  useEffect(() => {
    if (nobody) done();
  }, [nobody]);
  return (
    <AskWindow
      open
      title={title}
      go="Apply change"
      ready={effect !== undefined}
      text={
        <>
          {!effect && !error && <p>Working out who gains and who loses access…</p>}
          {error && <p role="alert">{error.message}</p>}
          {effect && !nobody && (
            <>
              <AffectedPeople verb="gain" names={effect.gaining} />
              <AffectedPeople verb="lose" names={effect.losing} />
              {effect.signedOut.gains && <p>Signed-out visitors gain access.</p>}
              {effect.signedOut.loses && <p>Signed-out visitors lose access.</p>}
              <p>
                <KindsMoved kinds={effect.kinds} />
              </p>
              <p className="text-quiet">
                {counted(effect.elements.length, 'element')}{' '}
                {effect.elements.length === 1 ? 'changes' : 'change'} for at least one viewer.
              </p>
            </>
          )}
          {note && <p>{note}</p>}
        </>
      }
      onAnswer={(yes) => {
        if (yes) {
          apply(edit);
          tell('Changes applied. Press Ctrl+Z to undo them all.');
        }
        onClose();
      }}
    />
  );
}

const isNobody = ({ gaining, losing, signedOut, kinds }: EditEffect): boolean =>
  [gaining, losing, kinds.gaining, kinds.losing].every((some) => some.length === 0) &&
  !signedOut.gains &&
  !signedOut.loses;

/** So many are named; the others are counted. */
const MOST_NAMES = 30;

function AffectedPeople({ verb, names }: { verb: 'gain' | 'lose'; names: readonly string[] }) {
  const people = names.length === 0 ? 'Nobody' : names.length === 1 ? '1 person' : `${names.length} people`;
  return (
    <p>
      <strong className="font-semibold">
        {people} {names.length < 2 ? `${verb}s` : verb}
      </strong>
      {names.length > 0 && `: ${names.slice(0, MOST_NAMES).join(', ')}`}
      {names.length > MOST_NAMES && ` and ${names.length - MOST_NAMES} more`}
    </p>
  );
}
