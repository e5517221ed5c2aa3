'use client';

import { useState } from 'react';
import { type Compiled } from '@/core/access';
import { type Edit, newLine, startLines } from '@/core/edit';
import { type AppElement, gives, isDataDoor, type What } from '@/core/model';
import { useBench } from '../../frame/bench';
import { EffectDialog } from '../../grid/effect-dialog';
import { WhoPicker } from './who-picker';
import { LineRow } from './line-row';

/** The lines of the gate that is being edited; or whom it follows, and the way to lines of its own. */
export function GateLines({ heading }: { heading: string }) {
  const { compiled, target, apply, mayChange, definition } = useBench();
  const [starting, setStarting] = useState<Edit>();
  const lines = compiled.lines(target.id);
  const isRoot = target.id === definition.id;
  const give = (): void => {
    const edit: Edit = { do: 'startLines', gate: target.id, lines: startLines(definition, target.id) };
    // Only what is being made can change by it: that is counted before.
    if (isAboutMaking(compiled, target)) setStarting(edit);
    else apply(edit);
  };
  return (
    <div className="mb-4">
      <div className="mb-1.5 flex items-center justify-between gap-2">
        <h3 className="font-semibold">{heading}</h3>
        {lines && mayChange && (
          <WhoPicker
            taken={lines.map((line) => line.who)}
            onPick={(who) =>
              apply({
                do: 'addLine',
                gate: target.id,
                line: newLine(who, startsWith(target.kind)),
                at: lines.length,
              })
            }
          />
        )}
      </div>
      {starting && (
        <EffectDialog
          title={`Lines of ${target.name}`}
          edit={starting}
          note="Lines on data also apply to new records, so they cannot express this difference between screens."
          unlessNobody
          onClose={() => setStarting(undefined)}
        />
      )}
      {lines ? (
        <>
          <ul className="grid gap-1.5">
            {lines.map((line) => (
              <LineRow key={line.id} line={line} at={lines.indexOf(line)} />
            ))}
          </ul>
          <p className="mt-1.5 text-quiet">
            {lines.some(gives)
              ? 'Everyone else has no access.'
              : 'No line grants access, so nobody has access.'}
            {mayChange && !isRoot && (
              <>
                {' '}
                <button
                  type="button"
                  className="link"
                  onClick={() => apply({ do: 'follow', gate: target.id, lines })}
                >
                  Remove these lines and follow {follows(isDataDoor(target), target.container?.name)}
                </button>
              </>
            )}
          </p>
        </>
      ) : (
        <>
          <p>
            It follows{' '}
            <strong className="font-semibold">{follows(isDataDoor(target), target.container?.name)}</strong>:{' '}
            {isDataDoor(target)
              ? 'access is exactly what the screens give.'
              : 'people with access to that also have access to this.'}
          </p>
          {mayChange && (
            <button type="button" className="button mt-2" onClick={give}>
              Add its own lines
            </button>
          )}
        </>
      )}
    </div>
  );
}

/** Can records be made where the door counts? Then its lines may say of new ones what the screens did not. */
function isAboutMaking({ tree, handles }: Compiled, door: AppElement): boolean {
  if (door.kind === 'data-field') return handles.fieldsOf(door.id, 'new').length > 0;
  const entity = tree.entityOf(door.id);
  if (!isDataDoor(door) || !entity) return false;
  const makes = tree.screens().some(({ binds }) => binds?.record === 'new' && binds.entity === entity.id);
  return makes && (door.kind === 'rows' || (door.kind === 'action' && door.node.kind === 'create'));
}

const follows = (isData: boolean, container: string | undefined): string =>
  isData ? 'the screens' : (container ?? '');

/** A new line gives what is most often meant: a screen or a button to use, data to see. */
const startsWith = (kind: string): What =>
  ['field', 'column', 'data-field', 'section', 'list', 'chart', 'text'].includes(kind) ? 'see' : 'edit';
