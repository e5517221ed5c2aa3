'use client';

import { viewerKey } from '@/core';
import { idInKey } from '@/core/access';
import { kindInWords, placeInWords } from '@/core/edit';
import { isDataDoor } from '@/core/model';
import { useBench } from '../../frame/bench';
import { enterRegion } from '../../shell/regions';
import { SomeOfThem } from '../../shared/some-of-them';
import { DoorBox } from './door-box';
import { GateLines } from './gate-lines';
import { SoNow } from './so-now';
import { WhenClosed } from './when-closed';
import { Why } from './why';

/** The gate of the selected element: its door, its lines, and what comes of them. */
export function GatePanel() {
  const { selected, target, numbers, viewer, pin, viewers, look } = useBench();
  const pins = viewers.flatMap(({ key }) => idInKey('person', key) ?? []);
  return (
    <section
      aria-label="Gate"
      data-region="gate"
      tabIndex={-1}
      onKeyDown={(event) => {
        // Back to where one came from: what is open over it closes first.
        if (event.key !== 'Escape' || event.defaultPrevented) return;
        enterRegion('work');
      }}
      className="min-h-0 overflow-y-auto border-l border-rule bg-paper px-4 py-3"
    >
      <h2 className="text-lg leading-tight font-semibold">{selected.name}</h2>
      <p className="mb-3 text-quiet">{placeInWords(selected)}</p>
      <DoorBox key={`door ${selected.id}`} />
      {selected.kind === 'application' && (
        <p className="mb-3 text-quiet">
          Who can enter the application. Nobody can have more access anywhere than they have here.
        </p>
      )}
      <GateLines
        key={`lines ${target.id}`}
        heading={
          target === selected
            ? isDataDoor(selected)
              ? 'Who has access everywhere'
              : `Who has access to this ${kindInWords(selected.kind).toLowerCase()}`
            : 'Who has access everywhere'
        }
      />
      <WhenClosed />
      <SoNow />
      <SomeOfThem
        numbers={numbers}
        viewer={viewer.key}
        viewerName={viewer.name}
        element={selected}
        onLook={(id) => (pins.includes(id) ? look(viewerKey('person', id)) : pin([...pins, id]))}
      />
      <Why />
    </section>
  );
}
