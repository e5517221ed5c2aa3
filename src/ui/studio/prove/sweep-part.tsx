'use client';

import type { Surprise } from '@/core/sweep';
import { compile } from '@/core';
import type { Definition } from '@/core/model';
import { useState } from 'react';
import { send, type Reply } from '@/ui/client/send';
import { type ShownSweep, startSweep, stopSweep } from '@/contract/studio/proving';
import { counted } from '@/core/edit';
import { useTell } from '../../parts/toasts';
import { EmptyState } from '@/ui/parts/empty-state';
import { Progress } from '../shared/progress';
import { useDraft, useStudio } from '../shell/studio-work';
import { PlaceLink } from './place-link';
import { whenInWords } from './since-in-words';
import { Checkbox } from '@/ui/parts/checkbox';

export const isUnderWay = ({ state }: ShownSweep): boolean =>
  ['waiting', 'running', 'stopping'].includes(state);

/** What was really asked of the server, as everybody, and what came otherwise than it should. */
export function SweepPart({
  sweeps,
  chosen,
  onChoose,
}: {
  sweeps: readonly ShownSweep[];
  chosen: ShownSweep | undefined;
  onChoose: (id: string) => void;
}) {
  const { app, mayChange } = useStudio();
  const { definition } = useDraft();
  const tell = useTell();
  const [whole, setWhole] = useState(false);
  const now = sweeps.find(isUnderWay);
  const ask = async (answering: Promise<Reply<unknown>>): Promise<void> => {
    const answer = await answering;
    if (!answer.ok) tell(answer.detail);
  };
  const start = (released: boolean): void => void ask(send(startSweep, { app, body: { released, whole } }));
  return (
    <section aria-label="Sweep" className="mt-2 border-t-2 border-ink bg-paper">
      <div className="flex flex-wrap items-center gap-3 border-b border-rule px-3 py-2">
        {now ? (
          <div className="w-full">
            <Progress
              says={
                now.state === 'stopping'
                  ? 'Stopping…'
                  : `Sending requests as viewer ${now.viewers + 1} of ${now.ofViewers || '…'}${remaining(now)}`
              }
              done={now.asked}
              of={Math.max(now.toAsk, 1)}
              onStop={() => void ask(send(stopSweep, { app }))}
            />
          </div>
        ) : (
          <>
            {mayChange && (
              <>
                <button type="button" className="button button-main" onClick={() => start(false)}>
                  Sweep draft
                </button>
                <button type="button" className="button" onClick={() => start(true)}>
                  Sweep release
                </button>
                <Checkbox className="text-[13px]" checked={whole} onTurn={setWhole}>
                  Leave nothing out
                </Checkbox>
              </>
            )}
            <span className="text-[13px] text-quiet">
              A sweep requests every screen, list, record and change from the running server as every viewer,
              in a copy of the application with marked records. Any response that differs from the decided
              access is a mismatch.
            </span>
          </>
        )}
      </div>
      {sweeps.length === 0 && (
        <EmptyState title="No sweeps yet">
          <p>
            After a sweep, its mismatches are listed here: what a response shows too much or too little, which
            viewer received it, and by which request.
          </p>
          {mayChange && (
            <p className="text-quiet">
              Sweep the draft to test it before you release it, or the release to test what people use now.
              Nobody’s records are changed.
            </p>
          )}
        </EmptyState>
      )}
      {chosen && <Surprises sweep={chosen} />}
      {sweeps.length > 1 && (
        <details className="border-t border-rule">
          <summary className="px-3 py-1 text-[13px]">Previous sweeps</summary>
          <ul>
            {sweeps.map((one) => (
              <li key={one.id}>
                <button
                  type="button"
                  aria-pressed={one.id === chosen?.id}
                  className="w-full border-t border-sheet px-3 py-1 text-left text-[13px] hover:bg-plate aria-pressed:bg-open-soft"
                  onClick={() => onChoose(one.id)}
                >
                  {whenInWords(definition, one.at)}: {ofWhat(one)}, {resultInWords(one)}
                </button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

const WHATS: Readonly<Record<Surprise['what'], string>> = {
  shows: 'Shows too much',
  lacks: 'Shows too little',
  answers: 'Unexpected response',
  counts: 'Wrong count',
  did: 'Unexpected change',
};

function Surprises({ sweep }: { sweep: ShownSweep }) {
  if (sweep.surprises.length === 0)
    return (
      <p className="px-4 py-5">
        {sweep.state === 'done'
          ? 'All responses were as expected.'
          : sweep.state === 'failed'
            ? `The sweep failed. ${sweep.failure ?? ''}`
            : 'No mismatches so far.'}
      </p>
    );
  const more = sweep.surpriseCount - sweep.surprises.reduce((sum, { times = 1 }) => sum + times, 0);
  return (
    <table aria-label="Mismatches" className="w-full table-fixed text-left">
      <thead>
        <tr className="border-b border-rule">
          <th className="w-[150px] px-3 py-1 font-semibold">Mismatch</th>
          <th className="py-1 font-semibold">Where</th>
          <th className="w-[170px] py-1 font-semibold">Viewer</th>
        </tr>
      </thead>
      <tbody>
        {sweep.surprises.map((one, n) => (
          <tr key={n} data-surprise={one.what} className="border-b border-rule align-top">
            <td className="px-3 py-1.5 font-medium text-amber">{WHATS[one.what]}</td>
            <td className="py-1.5 pr-3 break-words">
              {one.said} {one.element !== undefined && <PlaceLink id={one.element} kind />}
              {(one.times ?? 1) > 1 && <span className="text-quiet"> {one.times} times; the first was:</span>}
              <span className="block font-mono text-[12px] text-quiet">{one.request}</span>
            </td>
            <td className="py-1.5 pr-2 break-words">
              {one.viewer}
              {(one.viewers ?? 1) > 1 && (
                <span className="block text-quiet">and {(one.viewers ?? 1) - 1} more viewers</span>
              )}
            </td>
          </tr>
        ))}
        {more > 0 && (
          <tr>
            <td colSpan={3} className="px-3 py-1.5 text-quiet">
              and {more} more
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

/** What a sweep covered, and what no case has tried. */
export function SweepDetail({
  sweep,
  definition,
}: {
  sweep: ShownSweep | undefined;
  definition: Definition;
}) {
  if (!sweep)
    return (
      <p className="text-quiet">
        A sweep checks on the running server, with the same requests that people’s browsers send, that it
        enforces the access shown elsewhere.
      </p>
    );
  const { covered } = sweep;
  return (
    <>
      <h2 className="text-[16px] font-semibold">
        {counted(sweep.surpriseCount, 'mismatch', 'mismatches')} in {sweep.asked.toLocaleString('en-GB')}{' '}
        requests
      </h2>
      <p className="text-[13px] text-quiet">
        {ofWhat(sweep)}, {whenInWords(definition, sweep.at)}
        {sweep.by && `, by ${sweep.by}`}
        {sweep.worked > 0 && `, in ${Math.max(1, Math.round(sweep.worked / 1000))} seconds`}
      </p>
      {covered && (
        <>
          <dl className="mt-3 grid grid-cols-[110px_minmax(0,1fr)] gap-y-1 border-l-4 border-ink bg-plate px-3 py-2">
            <dt className="text-quiet">Viewers</dt>
            <dd>{covered.viewers}</dd>
            <dt className="text-quiet">Elements</dt>
            <dd>{covered.elements}</dd>
            <dt className="text-quiet">Records</dt>
            <dd>{covered.records}, each value marked</dd>
            <dt className="text-quiet">Lines</dt>
            <dd>
              {covered.lines - covered.neverCounted.length} of {covered.lines} decided at least one answer
            </dd>
            {(covered.leftOut ?? 0) > 0 && (
              <>
                <dt className="text-quiet">Left out</dt>
                <dd>
                  {(covered.leftOut ?? 0).toLocaleString('en-GB')} requests, each like one that was made: the
                  same lines decide it at the same doors
                </dd>
              </>
            )}
            {(covered.askedAgain ?? 0) > 0 && (
              <>
                <dt className="text-quiet">Asked again</dt>
                <dd>{covered.askedAgain}, since a connection broke or the server was away</dd>
              </>
            )}
          </dl>
          <Untried
            title="Lines that decided no answer"
            none="Every line decided at least one answer."
            definition={definition}
            all={covered.neverCounted.map((one) => ({ ...one, said: '' }))}
          />
          <Untried
            title="Conditions not tested as both true and false"
            none="Every condition was tested as true and as false."
            definition={definition}
            all={covered.oneSided.map(({ seen, ...one }) => ({
              ...one,
              said: seen === 'neither' ? 'neither true nor false' : `only as ${seen}`,
            }))}
          />
        </>
      )}
    </>
  );
}

function Untried({
  title,
  none,
  definition,
  all,
}: {
  title: string;
  none: string;
  definition: Definition;
  all: readonly { readonly gate: string; readonly line: string; readonly said: string }[];
}) {
  return (
    <>
      <h3 className="mt-4 font-semibold">{title}</h3>
      {all.length === 0 ? (
        <p className="text-[13px] text-quiet">{none}</p>
      ) : (
        <ul className="text-[13px]">
          {all.slice(0, 20).map(({ gate, line, said }) => (
            <li key={line}>
              <PlaceLink id={gate} /> {lineNumber(definition, gate, line)}
              {said && `, ${said}`}
            </li>
          ))}
          {all.length > 20 && <li className="text-quiet">and {all.length - 20} more</li>}
        </ul>
      )}
    </>
  );
}

function lineNumber(definition: Definition, gate: string, line: string): string {
  const at =
    compile(definition)
      .lines(gate)
      ?.findIndex(({ id }) => id === line) ?? -1;
  return at < 0 ? '' : `line ${at + 1}`;
}

const ofWhat = ({ release, revision }: ShownSweep): string =>
  release === null ? `the draft, revision ${revision}` : `release ${release}`;

function resultInWords({ state, surpriseCount }: ShownSweep): string {
  const found = counted(surpriseCount, 'mismatch', 'mismatches');
  return state === 'done' ? found : `${state}, ${found}`;
}

/** ", about 2 minutes left", once that can be told. */
function remaining({ asked, toAsk, worked }: ShownSweep): string {
  if (asked < 200 || worked === 0) return '';
  const seconds = Math.round(((toAsk - asked) * worked) / asked / 1000);
  if (seconds < 60) return `, about ${Math.max(1, seconds)} seconds left`;
  return `, about ${Math.round(seconds / 60)} minutes left`;
}
