'use client';

import { useEffect, useRef } from 'react';
import { type ElementKind, isDataDoor } from '@/core/model';
import { useTell } from '../../parts/toasts';
import { BenchProvider } from '../frame/bench';
import { Canvas } from '../frame/canvas';
import { FormChoice } from '../frame/form-choice';
import { Outline } from '../frame/outline';
import { Row } from '../frame/outline-row';
import { Rail } from '../frame/rail';
import { useViewerKeys } from '../frame/use-viewer-keys';
import { useBenchAt } from '../frame/use-bench-at';
import { noteAdded } from '@/ui/parts/just-added';
import type { FirstPeople } from '../shared/use-people';
import { ShapingLayer } from './canvas/shaping-layer';
import { EntitySheet } from './entity-sheet';
import { MovableRow, OutlineMoving } from './outline-moving';
import { firstIn, IN_FORM, SHAPE_FORMS, shapeFormOf } from './shape-forms';
import { NoScreens } from './no-screens';
import { ShapePanel } from './shape-panel';

/** What has the name of something else, or none, or was given it when it was added. */
const NAMED_ELSEWHERE: readonly ElementKind[] = ['field', 'column', 'text', 'rows'];

/** The shape bench: what the application is made of, seen as one of its viewers, with who gets it all along. */
export function ShapeBench({ first }: { first: FirstPeople }) {
  const { bench, revision, address, onAddress } = useBenchAt(first);
  const { compiled, selected, select, app } = bench;
  const onKeyDown = useViewerKeys(bench, true);
  const tell = useTell();
  // What was just added is selected once it is there.
  const coming = useRef<string>(undefined);
  useEffect(() => {
    const id = coming.current;
    const element = compiled.tree.get(id ?? '');
    if (id === undefined || !element) return;
    coming.current = undefined;
    // A name that the builder gives is what is written next.
    if (!NAMED_ELSEWHERE.includes(element.kind)) noteAdded();
    select(id);
  }, [compiled, select]);
  const onAdded = (id: string): void => {
    coming.current = id;
  };
  const form = shapeFormOf(selected);
  const entity = isDataDoor(selected) ? compiled.tree.entityOf(selected.id) : undefined;
  return (
    <BenchProvider value={bench}>
      <div
        onKeyDown={onKeyDown}
        className="grid min-h-0 grid-cols-[252px_minmax(0,1fr)_292px] grid-rows-[minmax(0,1fr)_auto] min-[1200px]:grid-cols-[292px_minmax(0,1fr)_316px]"
      >
        <OutlineMoving>
          <Outline
            enters="settings"
            only={IN_FORM[form]}
            RowView={bench.mayChange ? MovableRow : Row}
            forms={
              <FormChoice
                forms={SHAPE_FORMS}
                form={form}
                onChoose={(next) => {
                  const first = firstIn(compiled, next);
                  if (next === 'data' && first === compiled.tree.root.id)
                    tell('No data yet. Add an entity first.');
                  if (next !== form) select(first);
                }}
              />
            }
          />
        </OutlineMoving>
        {entity ? (
          <EntitySheet entity={entity} />
        ) : compiled.tree.screens().length === 0 ? (
          <NoScreens onAdded={onAdded} />
        ) : (
          <Canvas
            app={app}
            revision={revision}
            address={address}
            onAddress={onAddress}
            over={(on) => <ShapingLayer {...on} onAdded={onAdded} />}
          />
        )}
        <ShapePanel onAdded={onAdded} />
        <Rail />
      </div>
    </BenchProvider>
  );
}
