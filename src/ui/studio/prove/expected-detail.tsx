'use client';

import Link from 'next/link';
import { useState } from 'react';
import { compile } from '@/core';
import { answerInWords } from '@/core/edit';
import { send, type Reply } from '@/ui/client/send';
import {
  expectWhatIs,
  type ListedExpectation,
  type ProofState,
  removeExpectations,
} from '@/contract/studio/proving';
import { useTell } from '../../parts/toasts';
import { benchHref, useCarried } from '../shell/bench-state';
import { useDraft, useStudio } from '../shell/studio-work';
import { PlaceLink } from './place-link';
import { sinceInWords, whenInWords } from './since-in-words';

/** One expectation: what should be, what is, why, and what can be done about it. */
export function ExpectedDetail({
  proof,
  all,
  chosen,
}: {
  proof: ProofState | null;
  all: readonly ListedExpectation[];
  chosen: string;
}) {
  const { app, mayChange } = useStudio();
  const { definition } = useDraft();
  const carried = useCarried(app);
  const one =
    all.find(({ id }) => id === chosen) ??
    all.find(({ id }) => proof?.broken.some((each) => each.id === id)) ??
    all[0];
  if (!one) return <p className="text-quiet">An expectation states who should have which access, and why.</p>;
  const element = compile(definition).tree.get(one.element);
  const broken = proof?.broken.find(({ id }) => id === one.id);
  const alike = all.filter(({ name }) => name === one.name);
  return (
    <>
      <h2 className="text-[16px] font-semibold">{one.name}</h2>
      <p className="text-[13px] text-quiet">
        {one.by ? `Added by ${one.by}, ` : 'Expected since '}
        {whenInWords(definition, one.at)}
      </p>
      {one.reason && <p className="mt-2">{one.reason}</p>}
      <dl className="mt-3 grid grid-cols-[100px_minmax(0,1fr)] gap-y-1 border-l-4 border-ink bg-plate px-3 py-2">
        <dt className="text-quiet">Viewer</dt>
        <dd>{one.viewerName ?? 'a deleted viewer'}</dd>
        <dt className="text-quiet">Element</dt>
        <dd>
          <PlaceLink id={one.element} kind />
        </dd>
        <dt className="text-quiet">Record</dt>
        <dd>{one.record ? `the sample ${one.record.id}` : 'any'}</dd>
        <dt className="text-quiet">When</dt>
        <dd>
          {one.moment === undefined
            ? 'any time'
            : whenInWords(definition, new Date(one.moment).toISOString())}
        </dd>
        <dt className="text-quiet">Expected</dt>
        <dd className="font-semibold">{element ? answerInWords(element.kind, one.expect) : '–'}</dd>
        <dt className="text-quiet">Actual</dt>
        <dd className={broken ? 'font-semibold text-amber' : ''}>
          {!broken
            ? 'exactly'
            : broken.is && element
              ? answerInWords(element.kind, broken.is)
              : 'not checked: its viewer, element or record no longer exists'}
        </dd>
      </dl>
      {broken && (
        <p className="mt-2">
          {broken.since
            ? sinceInWords(definition, 'Broken', broken.since)
            : 'Broken by a change to people, or from the start.'}
        </p>
      )}
      {element && (
        <Link
          className="link mt-2 inline-block"
          href={benchHref(app, 'gates', {
            ...carried,
            element: one.element,
            viewer: one.viewer,
            address: '',
            form: '',
          })}
        >
          Show why
        </Link>
      )}
      {mayChange && <ExpectationActions key={one.id} one={one} broken={broken !== undefined} alike={alike} />}
    </>
  );
}

function ExpectationActions({
  one,
  broken,
  alike,
}: {
  one: ListedExpectation;
  broken: boolean;
  alike: readonly ListedExpectation[];
}) {
  const { app } = useStudio();
  const tell = useTell();
  const [reason, setReason] = useState(one.reason);
  const act = async (answering: Promise<Reply<unknown>>, said: string): Promise<void> => {
    const answer = await answering;
    tell(answer.ok ? said : answer.detail);
  };
  const remove = (which: string[], said: string): void =>
    void act(send(removeExpectations, { app, body: { ids: which } }), said);
  const [ids, more] = [[one.id], alike.map(({ id }) => id)];
  return (
    <div className="mt-4 grid gap-2 border-t border-rule pt-3">
      {broken && (
        <>
          <label className="grid gap-1">
            Reason for accepting the current level
            <textarea
              className="field-box"
              rows={2}
              maxLength={500}
              value={reason}
              onChange={(event) => setReason(event.target.value)}
            />
          </label>
          <button
            type="button"
            className="button justify-self-start"
            onClick={() =>
              void act(send(expectWhatIs, { app, body: { ids, reason } }), 'Expectation updated.')
            }
          >
            Update to current level
          </button>
        </>
      )}
      <span className="flex flex-wrap gap-2">
        <button type="button" className="button" onClick={() => remove(ids, 'Expectation deleted.')}>
          Delete expectation
        </button>
        {alike.length > 1 && (
          <button
            type="button"
            className="button"
            onClick={() => remove(more, `Expectations deleted: ${more.length}.`)}
          >
            Delete all {alike.length} with this name
          </button>
        )}
      </span>
    </div>
  );
}
