'use client';

import { removeNamed } from '@/core/edit';
import { type Role } from '@/core/model';
import { useState } from 'react';
import { useAsked } from '@/ui/client/queries';
import { effectOfEdit } from '@/contract/studio/draft';
import { useDraft } from '../shell/studio-work';
import { Window } from '../../parts/window';
import { usePeopleWork } from './use-people-work';

/** Deleting a role says first what it will change. */
export function DeleteRole({ role }: { role: Role }) {
  const { definition, app, apply } = usePeopleWork();
  const { revision } = useDraft();
  const [asks, setAsks] = useState(false);
  const edit = removeNamed(definition, 'roles', role.id);
  const { data: effect, error } = useAsked(effectOfEdit, asks ? { app, body: { edit } } : undefined, {
    version: revision,
  });
  return (
    <>
      <button type="button" className="button" onClick={() => setAsks(true)}>
        Delete…
      </button>
      <Window title={`Delete ${role.name}?`} open={asks} onOpenChange={setAsks}>
        {!effect && !error && <p>Working out who gains and who loses access…</p>}
        {error && <p role="alert">{error.message}</p>}
        {effect && (
          <>
            <p>
              {effect.losing.length === 0
                ? 'Nobody loses access.'
                : `Lose access (${effect.losing.length}): ${short(effect.losing)}.`}
            </p>
            <p>
              {effect.gaining.length === 0
                ? 'Nobody gains access.'
                : `Gain access (${effect.gaining.length}): ${short(effect.gaining)}.`}
            </p>
            {effect.elements.length > 0 && (
              <p className="mt-1 text-quiet">Affected elements: {short(effect.elements)}.</p>
            )}
            <p className="mt-2 text-quiet">
              Its lines are deleted too, and other roles no longer include it. People who have this role see
              it listed as a deleted role that gives no access.
            </p>
            <button
              type="button"
              className="button button-main mt-3"
              onClick={() => {
                if (edit) apply(edit);
                setAsks(false);
              }}
            >
              Delete role
            </button>
          </>
        )}
      </Window>
    </>
  );
}

const short = (names: readonly string[]): string =>
  names.length > 6 ? `${names.slice(0, 6).join(', ')} and ${names.length - 6} more` : names.join(', ');
