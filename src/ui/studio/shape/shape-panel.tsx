'use client';

import { Plus } from 'lucide-react';
import Link from 'next/link';
import { placeInWords } from '@/core/edit';
import { placeOf } from '@/core/model';
import { useBench } from '../frame/bench';
import { SoNow } from '../gates/panel/so-now';
import { benchHref, useCarried } from '../shell/bench-state';
import { enterRegion } from '../shell/regions';
import { useStudio } from '../shell/studio-work';
import { AddHere } from './add-here';
import { MoveButtons } from './move-buttons';
import { NewKind } from './new-kind';
import { RemoveButton } from './remove-button';
import { Settings } from './settings';

interface Props {
  /** Told the id of what is added, which is not there yet. */
  readonly onAdded: (id: string) => void;
}

/** What the selected element is by itself, where it stands, what can come beside it, and who gets it. */
export function ShapePanel({ onAdded }: Props) {
  const { selected, definition, mayChange } = useBench();
  const { app } = useStudio();
  const carried = useCarried(app);
  const place = placeOf(definition, selected.id);
  return (
    <section
      aria-label="Shape"
      data-region="gate"
      tabIndex={-1}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && !event.defaultPrevented) enterRegion('work');
      }}
      className="min-h-0 overflow-y-auto border-l border-rule bg-paper px-4 py-3"
    >
      <h2 className="text-lg leading-tight font-semibold" dir="auto">
        {selected.name}
      </h2>
      <p className="mb-3 text-quiet">{placeInWords(selected)}</p>
      <Settings key={selected.id} />
      {mayChange && place && (
        <div className="mt-3 mb-4 flex flex-wrap gap-2">
          <MoveButtons place={place} />
          <RemoveButton key={selected.id} />
        </div>
      )}
      {mayChange && (
        <div className="flex flex-wrap gap-2">
          <AddHere
            key={`add ${selected.id}`}
            onAdded={onAdded}
            trigger={
              <button type="button" className="button button-main">
                <Plus size={15} aria-hidden /> Add here
              </button>
            }
          />
          {(selected.kind === 'application' || selected.kind === 'rows') && (
            <NewKind
              onAdded={onAdded}
              trigger={
                <button type="button" className="button">
                  New entity…
                </button>
              }
            />
          )}
        </div>
      )}
      <div className="mt-4 border-t border-rule pt-3">
        <SoNow />
        <Link className="link" href={benchHref(app, 'gates', carried, { element: selected.id })}>
          Open gate
        </Link>
      </div>
    </section>
  );
}
