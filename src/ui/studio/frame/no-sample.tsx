'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { addressOf } from '@/core/access';
import type { Entity, Screen } from '@/core/model';
import { send, urlOf } from '@/ui/client/send';
import { makeUpRecords } from '@/contract/studio/data';
import { samples } from '@/contract/studio/look';
import { keysUnder } from '@/ui/client/queries';
import { useTell } from '../../parts/toasts';
import { useFirstSample } from '../shared/samples';
import { useBench } from './bench';

interface Props {
  readonly screen: Screen;
  readonly entity: Entity;
  readonly onAddress: (address: string) => void;
}

const HOW_MANY = 20;

/** In the place of a screen that shows a record, where there is none to show: some can be made up at once. */
export function NoSample({ screen, entity, onAddress }: Props) {
  const { app, mayChange } = useBench();
  const client = useQueryClient();
  const firstSample = useFirstSample(app);
  const tell = useTell();
  const [busy, setBusy] = useState(false);
  const make = async (): Promise<void> => {
    setBusy(true);
    const answer = await send(makeUpRecords, {
      ...{ app, entity: entity.id, query: { records: 'sample' } },
      body: { count: HOW_MANY, seed: 1 },
    });
    setBusy(false);
    if (!answer.ok) return tell(answer.detail);
    client.removeQueries(keysUnder(urlOf(samples, { app })));
    const sample = await firstSample(entity.id);
    if (sample) onAddress(addressOf(screen, sample.id));
  };
  return (
    // It looks after its own clicks, as what lies over the canvas does.
    <div data-shaping className="m-3 border-l-4 border-ink bg-plate px-3 py-2">
      <p>
        This screen cannot be shown because {entity.plural} has no sample records yet. You can still see and
        change access in the outline and the gate panel.
      </p>
      {mayChange && (
        <button type="button" className="button mt-2" disabled={busy} onClick={() => void make()}>
          Generate {HOW_MANY} sample records
        </button>
      )}
    </div>
  );
}
