'use client';

import { useState, type FormEvent } from 'react';
import { viewerKey } from '@/core';
import type { Assignment, MadeViewer } from '@/core/access';
import { attributesOf } from '@/core/condition';
import { type Definition, unitsOf } from '@/core/model';
import { send } from '@/ui/client/send';
import { keepViewer } from '@/contract/studio/look';
import { Window } from '../../parts/window';
import { type Given, known, GivenValues, Day } from './given-values';

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
  const [attributes, setAttributes] = useState<Given>({});
  const [session, setSession] = useState<Given>({});
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
    <Window title="A made-up viewer" open onOpenChange={(open) => !open && onClose()}>
      <form onSubmit={(event) => void submit(event)} className="grid grid-cols-[minmax(0,1fr)] gap-3">
        <fieldset className="min-w-0">
          <legend className="font-semibold">Roles</legend>
          {assignments.map((one, n) => (
            <div key={n} className="mt-1 grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto] gap-2">
              <select
                aria-label="Role"
                className="field-box"
                value={one.role}
                onChange={(event) => change(n, { ...one, role: event.target.value })}
              >
                {definition.roles.map((role) => (
                  <option key={role.id} value={role.id}>
                    {role.name}
                  </option>
                ))}
              </select>
              <select
                aria-label="Where"
                className="field-box"
                value={one.unit ?? ''}
                onChange={(event) => change(n, { ...one, unit: event.target.value || undefined })}
              >
                <option value="">everywhere</option>
                {unitsOf(definition).map((unit) => (
                  <option key={unit.id} value={unit.id}>
                    in {unit.name}
                  </option>
                ))}
              </select>
              <button type="button" className="link whitespace-nowrap" onClick={() => change(n, undefined)}>
                Take away
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
            Add a role
          </button>
        </fieldset>
        {definition.groups.length > 0 && (
          <fieldset className="min-w-0">
            <legend className="font-semibold">Groups, whatever their conditions say</legend>
            {definition.groups.map(({ id, name: group }) => (
              <label key={id} className="flex min-h-[24px] items-center gap-1.5">
                <input
                  type="checkbox"
                  className="accent-open"
                  checked={groups.includes(id)}
                  onChange={(event) =>
                    setGroups((now) =>
                      event.target.checked ? [...now, id] : now.filter((one) => one !== id),
                    )
                  }
                />
                {group}
              </label>
            ))}
          </fieldset>
        )}
        <GivenValues
          legend="What is known of them"
          definition={definition}
          declared={attributesOf(definition)}
          given={attributes}
          onChange={setAttributes}
        />
        <GivenValues
          legend="Set in their session"
          definition={definition}
          declared={definition.sessionValues}
          given={session}
          onChange={setSession}
        />
        {mayKeep && (
          <label>
            <span className="text-quiet">Name, to keep this viewer for all builders (may stay empty)</span>
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
          {name.trim() ? 'Keep, and look as them' : 'Look as them'}
        </button>
      </form>
    </Window>
  );
}
