'use client';

import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { explain } from '@/core';
import type { Access } from '@/core/access';
import type { AppElement } from '@/core/model';
import { useBench, type RailViewer } from '../frame/bench';
import { WhyView } from '../shared/why-view';

/** A cell of the grid. */
export interface Place {
  readonly row: number;
  readonly column: number;
}

/** Why a cell is as it is, beside the cell: on hovering, or on Enter. */
export function WhyCard({
  element,
  viewer,
  access,
  among,
  place: of,
  anchor,
}: {
  element: AppElement;
  viewer: RailViewer;
  access: Access;
  /** How many of a kind's people get it, in words. */
  among: string | undefined;
  /** Which cell it is about, and where that is in the page. */
  place: Place;
  anchor: (place: Place) => HTMLElement | null | undefined;
}) {
  const { compiled, personName, select } = useBench();
  const explanation = useMemo(() => explain(access, element.id), [access, element]);
  const ref = useRef<HTMLDivElement>(null);
  const [place, setPlace] = useState<{ left: number; top: number }>();
  useLayoutEffect(() => {
    const at = anchor(of)?.getBoundingClientRect();
    const mine = ref.current?.getBoundingClientRect();
    if (!at || !mine) return;
    const below = at.bottom + mine.height + 8 < window.innerHeight;
    setPlace({
      left: Math.max(8, Math.min(at.left, window.innerWidth - mine.width - 8)),
      top: below ? at.bottom + 4 : Math.max(8, at.top - mine.height - 4),
    });
  }, [anchor, of, explanation]);
  return (
    <div
      ref={ref}
      role="note"
      aria-live="polite"
      className="popover pointer-events-none fixed w-80 p-3"
      style={{ ...(place ?? { left: 0, top: 0 }), visibility: place ? 'visible' : 'hidden' }}
    >
      <WhyView
        compiled={compiled}
        explanation={explanation}
        element={element}
        viewerName={viewer.name}
        personName={personName}
        onGate={select}
      />
      {among && (
        <p className="mt-2">
          Among people with {viewer.name}: {among}.
        </p>
      )}
    </div>
  );
}
