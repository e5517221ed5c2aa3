'use client';

import { ChevronDown } from 'lucide-react';
import { useState } from 'react';
import { readAddress } from '@/core';
import { addressOf, type Compiled } from '@/core/access';
import type { Sample } from '@/contract/studio/look';
import { ChooseBox, useBox } from '../../parts/choose-box';
import { useSamples } from '../shared/samples';

/** For a screen that shows a record: which one it is. */
export function RecordChoice({
  app,
  compiled,
  address,
  records,
  onAddress,
}: {
  app: string;
  compiled: Compiled;
  address: string;
  records: 'sample' | 'live';
  onAddress: (address: string) => void;
}) {
  const destination = readAddress(compiled.tree, address);
  const entity = destination?.record === undefined ? undefined : destination.screen.binds?.entity;
  const box = useBox();
  const [label, setLabel] = useState<Sample>();
  const samples = useSamples(app, entity, records, box.words);
  const found = samples.find(({ id }) => id === destination?.record);
  if (found && found !== label) setLabel(found);
  if (!destination || entity === undefined) return null;
  const shown = label?.id === destination.record ? label : undefined;
  return (
    <ChooseBox
      box={box}
      label="Record"
      placeholder="Find a record"
      none="No records match this search."
      groups={[{ choices: samples.map(({ id, label: name, more }) => ({ key: id, name, note: more })) }]}
      onChoose={(id) => {
        setLabel(samples.find((one) => one.id === id));
        onAddress(addressOf(destination.screen, id));
      }}
      trigger={
        <button
          type="button"
          aria-label={`Record: ${shown?.label ?? destination.record}`}
          className="flex max-w-52 min-w-0 items-center gap-1.5 rounded-sm border border-edge bg-paper px-2 py-0.5 hover:border-ink"
        >
          <span className="truncate">{shown?.label ?? destination.record}</span>
          {shown?.more && <span className="truncate text-quiet">{shown.more}</span>}
          <ChevronDown size={13} aria-hidden className="shrink-0" />
        </button>
      }
    />
  );
}
