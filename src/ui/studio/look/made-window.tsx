'use client';

import { useState, type FormEvent } from 'react';
import { viewerKey } from '@/core';
import type { Assignment, MadeViewer } from '@/core/access';
import { attributesOf } from '@/core/condition';
import { type Definition, unitsOf } from '@/core/model';
import { send } from '@/ui/client/send';
import { keepViewer } from '@/contract/studio/look';
import { Window } from '../../parts/window';
import { type CustomViewerValues, known, GivenValues, Day } from './given-values';
import { Select } from '@/ui/parts/select';
import { Checkbox } from '@/ui/parts/checkbox';

/** Puts a viewer together: any mix of roles with units and periods, groups, attributes and session values. It can be kept. */
export function MadeWindow({
  app,
  definition,
  mayKeep,
  onClose,
  onMade,
}: {
  app: string;
  definition: Definition;
  mayKeep: boolean;
  onClose: () => void;
  /** It was put together, and perhaps kept under a name. */
  onMade: (key: string, viewer: MadeViewer, kept: boolean) => void;
}) {
  const [assignments, setAssignments] = useState<readonly Assignment[]>([]);
  const [groups, setGroups] = useState<readonly string[]>([]);
  const [attributes, setAttributes] = useState<CustomViewerValues>({});
  const [session, setSession] = useState<CustomViewerValues>({});
  const [name, setName] = useState('');
  const [problem, setProblem] = useState('');
  const change = (n: number, to: Assignment | undefined): void =>
    setAssignments((now) => (to ? now.with(n, to) : now.toSpliced(n, 1)));
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const viewer: MadeViewer = {
      assignments,
      attributes: known(attributes),
      ...(groups.length > 0 && { groups }),
      session: known(session),
    };
    if (name.trim() === '') return onMade(viewerKey('made', JSON.stringify(viewer)), viewer, false);
    const answer = await send(keepViewer, { app, body: { name: name.trim(), viewer } });
    if (answer.ok) onMade(viewerKey('kept', answer.value.id), viewer, true);
    else setProblem(answer.detail);
  };
  return (
    <Window title="Custom viewer" open onOpenChange={(open) => !open && onClose()}>
      <form onSubmit={(event) => void submit(event)} className="grid grid-cols-[minmax(0,1fr)] gap-3">
        <fieldset className="min-w-0">
          <legend className="font-semibold">Roles</legend>
          {assignments.map((one, n) => (
            <div key={n} className="mt-1 grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto] gap-2">
              <Select
                aria-label="Role"
                value={one.role}
                onChoose={(chosen) => change(n, { ...one, role: chosen })}
                options={definition.roles}
              />
              <Select
                aria-label="Unit"
                value={one.unit ?? ''}
                onChoose={(chosen) => change(n, { ...one, unit: chosen || undefined })}
                none="in all units"
                options={unitsOf(definition).map((unit) => ({ id: unit.id, name: `in ${unit.name}` }))}
              />
              <button type="button" className="link whitespace-nowrap" onClick={() => change(n, undefined)}>
                Remove
              </button>
              <div className="col-span-3 grid grid-cols-2 gap-2">
                {(['from', 'until'] as const).map((end) => (
                  <Day
                    key={end}
                    label={end === 'from' ? 'From' : 'Until'}
                    language={definition.language}
                    timeZone={definition.timeZone}
                    value={one[end]}
                    onChange={(moment) => change(n, { ...one, [end]: moment })}
                  />
                ))}
              </div>
            </div>
          ))}
          <button
            type="button"
            className="link"
            disabled={definition.roles.length === 0}
            onClick={() => setAssignments((now) => [...now, { role: definition.roles[0]?.id ?? '' }])}
          >
            Add role
          </button>
        </fieldset>
        {definition.groups.length > 0 && (
          <fieldset className="min-w-0">
            <legend className="font-semibold">Groups (regardless of their conditions)</legend>
            {definition.groups.map(({ id, name: group }) => (
              <Checkbox
                key={id}
                checked={groups.includes(id)}
                onTurn={(on) => setGroups((now) => (on ? [...now, id] : now.filter((one) => one !== id)))}
              >
                {group}
              </Checkbox>
            ))}
          </fieldset>
        )}
        <GivenValues
          legend="Attributes"
          definition={definition}
          declared={attributesOf(definition)}
          given={attributes}
          onChange={setAttributes}
        />
        <GivenValues
          legend="Session values"
          definition={definition}
          declared={definition.sessionValues}
          given={session}
          onChange={setSession}
        />
        {mayKeep && (
          <label>
            <span className="text-quiet">Name, to save this viewer for all builders (optional)</span>
            <input
              className="field-box"
              value={name}
              onChange={(event) => setName(event.target.value)}
              maxLength={80}
            />
          </label>
        )}
        {problem && <p role="alert">{problem}</p>}
        <button type="submit" className="button button-main justify-self-start">
          {name.trim() ? 'Save and view' : 'View'}
        </button>
      </form>
    </Window>
  );
}
