'use client';

import { AlertDialog } from 'radix-ui';
import { useEffect, useEffectEvent, useRef } from 'react';
import type { Edit, EditEffect } from '@/core/edit';
import { useAsked } from '../../parts/queries';
import { useTell } from '../../parts/toasts';
import { useBench } from '../gates/bench';
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
  const { api, apply } = useBench();
  const { revision } = useDraft();
  const tell = useTell();
  const { data: effect, error } = useAsked<EditEffect>(`${api}/effect`, {
    body: { edit },
    version: revision,
  });
  const before = useRef(document.activeElement);
  const done = useEffectEvent((): void => {
    apply(edit);
    onClose();
  });
  const nobody = unlessNobody && effect !== undefined && isNobody(effect);
  useEffect(() => {
    if (nobody) done();
  }, [nobody]);
  return (
    <AlertDialog.Root open onOpenChange={(open) => !open && onClose()}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <AlertDialog.Content
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            if (before.current instanceof HTMLElement) before.current.focus();
          }}
          className="fixed top-1/2 left-1/2 z-50 w-[30rem] -translate-x-1/2 -translate-y-1/2 border-t-4 border-ink bg-paper p-5 shadow-xl"
        >
          <AlertDialog.Title className="text-lg font-semibold">{title}</AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div className="mt-2 grid max-h-72 gap-1 overflow-y-auto" aria-live="polite">
              {!effect && !error && <p>Counting who gains and who loses …</p>}
              {error && <p role="alert">{error.message}</p>}
              {effect && !nobody && (
                <>
                  <Moved verb="gain" names={effect.gaining} />
                  <Moved verb="lose" names={effect.losing} />
                  {effect.signedOut.gains && <p>Those who are signed out gain.</p>}
                  {effect.signedOut.loses && <p>Those who are signed out lose.</p>}
                  <p className="text-quiet">{effect.elements.length} elements change for somebody.</p>
                </>
              )}
              {note && <p>{note}</p>}
            </div>
          </AlertDialog.Description>
          <div className="mt-4 flex justify-end gap-2">
            <AlertDialog.Cancel className="button">Leave it</AlertDialog.Cancel>
            <AlertDialog.Action
              className="button button-main"
              disabled={!effect}
              onClick={() => {
                apply(edit);
                tell('Done. Ctrl Z takes all of it back.');
              }}
            >
              Change it
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}

const isNobody = ({ gaining, losing, signedOut }: EditEffect): boolean =>
  gaining.length + losing.length === 0 && !signedOut.gains && !signedOut.loses;

function Moved({ verb, names }: { verb: 'gain' | 'lose'; names: readonly string[] }) {
  const people = names.length === 0 ? 'Nobody' : names.length === 1 ? '1 person' : `${names.length} people`;
  return (
    <p>
      <strong className="font-semibold">
        {people} {names.length < 2 ? `${verb}s` : verb}
      </strong>
      {names.length > 0 && `: ${names.join(', ')}`}
    </p>
  );
}
