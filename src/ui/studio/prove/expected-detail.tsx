'use client';

import Link from 'next/link';
import { useState } from 'react';
import { compile } from '@/core';
import { answerInWords } from '@/core/edit';
import { send, type Reply } from '@/ui/client/send';
import {
  expectWhatIs,
  type ListedExpectation,
  type Proof,
  removeExpectations,
} from '@/contract/studio/proving';
import { useTell } from '../../parts/toasts';
import { benchHref, useCarried } from '../shell/carry';
import { useDraft, useStudio } from '../shell/studio-work';
import { PlaceLink } from './place-link';
import { sinceInWords, whenInWords } from './since-in-words';

/** One expectation: what should be, what is, why, and what can be done about it. */
export function ExpectedDetail({
  proof,
  all,
  chosen,
}: {
  proof: Proof | null;
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
  if (!one) return <p className="text-quiet">An expectation says who should get what, and why.</p>;
  const element = compile(definition).tree.get(one.element);
  const broken = proof?.broken.find(({ id }) => id === one.id);
  const alike = all.filter(({ name }) => name === one.name);
  return (
    <>
      <h2 className="text-[16px] font-semibold">{one.name}</h2>
      <p className="text-[13px] text-quiet">
        {one.by ? `Expected by ${one.by}, ` : 'Expected since '}
        {whenInWords(definition, one.at)}
      </p>
      {one.reason && <p className="mt-2">{one.reason}</p>}
      <dl className="mt-3 grid grid-cols-[100px_minmax(0,1fr)] gap-y-1 border-l-4 border-ink bg-plate px-3 py-2">
        <dt className="text-quiet">Who</dt>
        <dd>{one.viewerName ?? 'somebody who is gone'}</dd>
        <dt className="text-quiet">What</dt>
        <dd>
          <PlaceLink id={one.element} kind />
        </dd>
        <dt className="text-quiet">Record</dt>
        <dd>{one.record ? `the sample ${one.record.id}` : 'any'}</dd>
        <dt className="text-quiet">When</dt>
        <dd>
          {one.moment === undefined
            ? 'at any time'
            : whenInWords(definition, new Date(one.moment).toISOString())}
        </dd>
        <dt className="text-quiet">Should be</dt>
        <dd className="font-semibold">{element ? answerInWords(element.kind, one.expect) : '–'}</dd>
        <dt className="text-quiet">Is now</dt>
        <dd className={broken ? 'font-semibold text-amber' : ''}>
          {!broken
            ? 'just so'
            : broken.is && element
              ? answerInWords(element.kind, broken.is)
              : 'gone: its viewer, element or record is not there'}
        </dd>
      </dl>
      {broken && (
        <p className="mt-2">
          {broken.since
            ? sinceInWords(definition, 'Broken', broken.since)
            : 'Broken by the people there are now, or from its start.'}
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
          Why, at its gate
        </Link>
      )}
      {mayChange && <Doing key={one.id} one={one} broken={broken !== undefined} alike={alike} />}
    </>
  );
}

function Doing({
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
            Why it may be as it is now
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
              void act(send(expectWhatIs, { app, body: { ids, reason } }), 'From now on this is expected.')
            }
          >
            Expect what is now
          </button>
        </>
      )}
      <span className="flex flex-wrap gap-2">
        <button type="button" className="button" onClick={() => remove(ids, 'Taken away.')}>
          Take it away
        </button>
        {alike.length > 1 && (
          <button type="button" className="button" onClick={() => remove(more, `${more.length} taken away.`)}>
            Take all {alike.length} of this name away
          </button>
        )}
      </span>
    </div>
  );
}
