'use client';

import type { ReactNode } from 'react';
import type { WhoGetsNamed } from '@/core/access';
import { answerInWords, fullName, lineInWords } from '@/core/edit';
import type { AppElement } from '@/core/model';
import { useAsked } from '@/ui/client/queries';
import { whoGets } from '@/contract/studio/draft';
import { useDraft } from '../../shell/studio-work';
import { peopleInWords } from '../../shared/use-people';
import { useBench } from '../../frame/bench';
import { LevelMark } from '../../shared/level-mark';
import { ElementChoice } from './element-choice';

/** Who can see Y: the people of the selected element, by way in. */
export function WhoSeesIt({ forms }: { forms: ReactNode }) {
  const { app, selected } = useBench();
  const { revision } = useDraft();
  const { data: found, error } = useAsked(
    whoGets,
    { app, element: selected.id },
    { version: revision, keepsLast: true },
  );
  return (
    <section aria-label="By element" className="col-span-2 flex min-h-0 min-w-0 flex-col bg-paper">
      <div className="flex flex-wrap items-center gap-3 border-b border-rule px-3 py-2">
        {forms}
        <span className="flex items-center gap-2">
          Who has access to
          <ElementChoice />?
        </span>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto px-5 py-3">
        {error && <p role="alert">{error.message}</p>}
        {!found && !error && <p className="text-quiet">Checking everyone…</p>}
        {found && <WhoHasAccess found={found} element={selected} />}
      </div>
    </section>
  );
}

function WhoHasAccess({ found, element }: { found: WhoGetsNamed; element: AppElement }) {
  return (
    <>
      <h2 className="text-lg font-semibold">
        {found.people} of {peopleInWords(found.of)} have access to {fullName(element)}
      </h2>
      <p className="mb-3 flex items-center gap-1.5 text-quiet">
        Signed out: <LevelMark answer={found.signedOut} />
        {answerInWords(element.kind, found.signedOut)}.
        {found.ways.length > 0 &&
          ` ${found.ways.length === 1 ? 'There is one way' : `${found.ways.length} ways`} to get access; people with several are listed under each.`}
      </p>
      {found.ways.map((way) => (
        <WayView key={`${way.gate} ${way.line.id} ${way.handle ?? ''}`} way={way} />
      ))}
    </>
  );
}

/** One way in: a line, with the people whom it lets in, by the roles that bring them there. */
function WayView({ way }: { way: WhoGetsNamed['ways'][number] }) {
  const { compiled, definition, personName, select } = useBench();
  const { gate, line, handle, count, people: these } = way;
  const nameOf = (id: string): string => {
    const element = compiled.tree.get(id);
    return element ? fullName(element) : id;
  };
  const byRole = new Map<string, typeof these>();
  for (const one of these) {
    const roles = one.roles
      .map((id) => definition.roles.find((role) => role.id === id)?.name ?? 'a deleted role')
      .join(' and ');
    byRole.set(roles, [...(byRole.get(roles) ?? []), one]);
  }
  return (
    <section className="mb-3 border-t border-rule pt-2">
      <h3 className="font-semibold">
        {lineInWords(line, gate, definition, personName)}{' '}
        <span className="font-normal text-quiet">· {peopleInWords(count)}</span>
      </h3>
      <p className="text-quiet">
        Given by a line of{' '}
        <button type="button" className="link" onClick={() => select(gate)}>
          {nameOf(gate)}
        </button>
        {handle !== undefined && <>, which opens the data through {nameOf(handle)}</>}
      </p>
      <dl className="mt-1 grid grid-cols-[11rem_1fr] gap-x-3">
        {[...byRole].map(([role, some]) => (
          <div key={role} className="contents">
            <dt className="text-quiet">{role ? `through the role ${role}` : 'directly, without a role'}</dt>
            <dd>
              {some
                .map((one) => {
                  const depends = one.answer.least !== one.answer.most;
                  return `${one.name}${depends ? ' (depends)' : ''}`;
                })
                .join(', ')}
            </dd>
          </div>
        ))}
      </dl>
      {count > these.length && <p className="text-quiet">and {peopleInWords(count - these.length)} more</p>}
    </section>
  );
}
