'use client';

import { explain } from '@/core';
import { unsharedAccessOf } from '@/core/access';
import { useMemo } from 'react';
import { useBench } from '../../frame/bench';
import { useDraft } from '../../shell/studio-work';
import { SuggestedChangePart } from '../../shared/suggested-change';
import { ExpectIt } from '../../shared/expect-it';
import { WhyView } from '../../shared/why-view';

/** Why the viewer in the rail has this level here, and what would turn it. */
export function Why() {
  const { revision } = useDraft();
  const { compiled, viewer, selected, select, circumstances, personName, app, mayChange, apply } = useBench();
  const explanation = useMemo(
    () => explain(unsharedAccessOf(compiled, viewer.viewer, circumstances), selected.id),
    [compiled, viewer, circumstances, selected],
  );
  const asked = new URLSearchParams({ viewer: viewer.key, element: selected.id });
  return (
    <>
      <WhyView
        compiled={compiled}
        explanation={explanation}
        element={selected}
        viewerName={viewer.name}
        personName={personName}
        onGate={select}
      />
      <SuggestedChangePart
        key={`${asked} ${revision}`}
        compiled={compiled}
        element={selected}
        answer={explanation.answer}
        viewerName={viewer.name}
        personName={personName}
        app={app}
        looks={asked.toString()}
        mayChange={mayChange}
        apply={apply}
        onGate={select}
      />
      {mayChange && (
        <ExpectIt
          key={`expect ${asked}`}
          name={`${selected.name} for ${viewer.name}`}
          of={{ viewer: viewer.key, element: selected.id }}
        />
      )}
    </>
  );
}
