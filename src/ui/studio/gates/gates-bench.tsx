'use client';

import type { Level } from '@/core/access';
import { isDataDoor } from '@/core/model';
import { BenchProvider } from '../frame/bench';
import { Canvas } from '../frame/canvas';
import { DoorView } from './door-view';
import { FormChoice, FORMS } from '../frame/form-choice';
import { GatePanel } from './panel/gate-panel';
import { Grid } from '../grid/grid';
import { Outline } from '../frame/outline';
import { Rail } from '../frame/rail';
import { WhatOneSees } from './questions/what-one-sees';
import { WhoSeesIt } from './questions/who-sees-it';
import { useBenchAt } from '../frame/use-bench-at';
import { useSetLevel } from './set-level';
import { useViewerKeys } from '../frame/use-viewer-keys';
import type { FirstPeople } from '../shared/use-people';

/** The gates bench: outline, canvas, gate panel and viewer rail over one draft. */
export function GatesBench({ first }: { first: FirstPeople }) {
  const { bench, columns, revision, address, onAddress, form, setForm } = useBenchAt(first);
  const { compiled, selected, app } = bench;
  const setLevel = useSetLevel(bench);
  const set = (level: Level): void => void setLevel(level);
  // A door of data is shown among the doors of its entity; all else on its screen.
  const entity = isDataDoor(selected) ? compiled.tree.entityOf(selected.id) : undefined;

  const onKeyDown = useViewerKeys(bench, form === 'screen', set);
  const forms = <FormChoice forms={FORMS} form={form} onChoose={setForm} />;
  return (
    <BenchProvider value={bench}>
      <div
        onKeyDown={onKeyDown}
        className="grid min-h-0 grid-cols-[252px_minmax(0,1fr)_292px] min-[1200px]:grid-cols-[292px_minmax(0,1fr)_316px] grid-rows-[minmax(0,1fr)_auto]"
      >
        {form === 'screen' && (
          <>
            <Outline forms={forms} enters="gate" />
            {entity ? (
              <DoorView entity={entity} />
            ) : (
              <Canvas app={app} revision={revision} address={address} onAddress={onAddress} />
            )}
          </>
        )}
        {form === 'grid' && <Grid columns={columns} forms={forms} onSet={set} />}
        {form === 'what' && <WhatOneSees columns={columns} forms={forms} />}
        {form === 'who' && <WhoSeesIt forms={forms} />}
        <GatePanel />
        {form !== 'grid' && <Rail sets />}
      </div>
    </BenchProvider>
  );
}
