'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { type Review } from '@/core/edit';
import { useAsked } from '@/ui/client/queries';
import {
  type Breaking,
  breaking as breakingContract,
  release as releaseContract,
  review as reviewContract,
} from '@/contract/studio/releasing';
import { EmptyState } from '../../parts/empty-state';
import { useTell } from '../../parts/toasts';
import { Progress } from '../shared/progress';
import { sendProgressing } from '@/ui/client/progressing';
import { RightsWindow } from '../shared/rights-window';
import { useWorkedOut } from '@/ui/client/worked-out';
import { useDraft, useStudio } from '../shell/studio-work';
import { BrokenByIt } from './broken-by-it';
import { DataChanges } from './data-changes';
import { OpensLive } from './opens-live';
import { summary, ReleaseWindow } from './release-window';
import { Follows, Moves, Names } from './review-tables';

/** The release bench: what a release would change, in words, and who gains and who loses by each change. */
export function ReleaseBench() {
  const { app } = useStudio();
  const draft = useDraft();
  // What was changed since, here or by others, is reviewed too before it can be released.
  const version = draft.saved === 'saved' ? draft.revision : -1;
  const review = useWorkedOut(reviewContract, { app }, version);
  const breaking = useAsked(breakingContract, { app }, { version, keepsLast: true });
  return (
    <main data-region="work" tabIndex={-1} className="min-h-0 overflow-auto">
      <div className="mx-auto max-w-5xl px-6 py-6">
        {review.problem !== undefined && (
          <p role="alert" className="mb-3 border-l-4 border-ink bg-sheet px-3 py-2">
            {review.problem}{' '}
            <button type="button" className="button" onClick={review.again}>
              Review again
            </button>
          </p>
        )}
        {review.progress && (
          <div className="mb-3">
            <Progress says="Comparing the draft with the release" {...review.progress} />
          </div>
        )}
        {!review.data && !review.progress && review.problem === undefined && (
          <p className="mb-3">
            The review was stopped.{' '}
            <button type="button" className="button" onClick={review.again}>
              Review again
            </button>
          </p>
        )}
        {breaking.error && (
          <p role="alert" className="mb-3 border-l-4 border-ink bg-sheet px-3 py-2">
            {breaking.error.message}{' '}
            <button type="button" className="button" onClick={() => void breaking.refetch()}>
              Check expectations again
            </button>
          </p>
        )}
        {review.data && breaking.isLoading && <p role="status">Checking what is expected…</p>}
        {review.data && breaking.data && (
          <Reviewed
            review={review.data}
            breaking={breaking.data}
            current={
              !review.progress && review.problem === undefined && review.data.revision === draft.revision
            }
            onReleased={() => {
              review.again();
              void breaking.refetch();
            }}
          />
        )}
      </div>
    </main>
  );
}

interface ReviewedProps {
  readonly review: Review;
  readonly breaking: Breaking;
  /** Is it the review of the draft as it is now? */
  readonly current: boolean;
  readonly onReleased: () => void;
}

function Reviewed({ review, breaking, current, onReleased }: ReviewedProps) {
  const { app, mayRelease, owns } = useStudio();
  const [giving, setGiving] = useState(false);
  const router = useRouter();
  const tell = useTell();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState('');
  const [progress, setProgress] = useState<{ done: number; of: number; stop: () => void }>();
  const { changes, data, following, opens, power, number, revision } = review;
  const next = (number ?? 0) + 1;
  const release = async (said: { note: string; despite: string }): Promise<void> => {
    setBusy(true);
    setProblem('');
    const stop = new AbortController();
    const told = (done: number, of: number): void => setProgress({ done, of, stop: () => stop.abort() });
    const answer = await sendProgressing(
      releaseContract,
      { app, body: { revision, ...said } },
      told,
      stop.signal,
    );
    setBusy(false);
    setProgress(undefined);
    if (answer.ok) tell(`Release ${answer.value.number} is live.`);
    else setProblem(answer.detail);
    onReleased();
    router.refresh();
  };
  return (
    <>
      <div className="flex items-end justify-between gap-6 border-b-2 border-ink pb-3">
        <div>
          <h1 className="text-xl font-semibold">
            {changes.length === 0 ? 'No unreleased changes' : `Changes in release ${next}`}
          </h1>
          <p className="text-quiet">
            {number === undefined ? 'No releases yet. ' : `Release ${number} is live. `}
            {changes.length > 0 && summary(review)}
          </p>
        </div>
        <div className="flex shrink-0 items-center gap-3">
          {review.number !== undefined && (
            <a className="link" href={`/live/${app}`} target="_blank" rel="noreferrer">
              Open released application
            </a>
          )}
          {owns && (
            <button type="button" className="link" onClick={() => setGiving(true)}>
              Who may release
            </button>
          )}
          {!mayRelease && changes.length > 0 && (
            <span className="text-quiet">You may not release. The owner can give you the right.</span>
          )}
          {mayRelease && changes.length > 0 && (
            <ReleaseWindow
              number={next}
              review={review}
              busy={busy}
              current={current}
              breaking={breaking}
              onRelease={(said) => void release(said)}
            />
          )}
        </div>
      </div>
      {giving && <RightsWindow app={app} tell={tell} onClose={() => setGiving(false)} />}
      {problem && (
        <p role="alert" className="mt-3 border-l-4 border-ink bg-sheet px-3 py-2">
          {problem}
        </p>
      )}
      {progress && (
        <div className="mt-3">
          <Progress
            says="Converting live records"
            done={progress.done}
            of={progress.of}
            onStop={progress.stop}
          />
        </div>
      )}
      {changes.length === 0 && <NothingWaiting app={app} />}
      {opens.length > 0 && <OpensLive opens={opens} />}
      {breaking.broken.length > 0 && <BrokenByIt breaking={breaking} />}
      {data.length > 0 && <DataChanges changes={data} />}
      {power.length > 0 && (
        <section aria-labelledby="power" className="mt-4 border-l-4 border-ink bg-paper px-4 py-3">
          <h2 id="power" className="font-semibold">
            Changes that give people powers
          </h2>
          <ul className="mt-1 grid gap-1.5">
            {power.map(({ about, said, names, more }) => (
              <li key={`${about} ${said}`}>
                <strong className="font-medium">{about}</strong>: {said}
                {names && (
                  <span className="text-quiet">
                    {' '}
                    {names.length === 0 ? 'Currently nobody.' : <Names names={names} more={more ?? 0} />}
                  </span>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      {changes.map((change) => (
        <section key={`${change.about} ${change.done.join(' ')}`} className="mt-4 bg-paper px-4 py-3">
          <h2 className="font-semibold">{change.about}</h2>
          {change.done.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
          {change.effect && <Moves effect={change.effect} />}
          <Follows following={change.following} heading="Also affects" />
          {!change.effect && change.following.length === 0 && (
            <p className="mt-1 text-quiet">
              No change to screens, fields or buttons
              {change.asksWhen ? ' at the moment; it depends on the time or on a session value.' : '.'}
            </p>
          )}
        </section>
      ))}
      {following.length > 0 && (
        <section className="mt-4 bg-paper px-4 py-3">
          <Follows following={following} heading="Effects of changes to roles, groups and settings" />
        </section>
      )}
    </>
  );
}

/** What will be here, and where it comes from. */
const NothingWaiting = ({ app }: { app: string }) => (
  <EmptyState title="What will appear here">
    <p>
      Each change of the draft, with who gains and who loses access by it, which live records it opens, and
      which expectations it breaks. People who use the application notice nothing until you release it.
    </p>
    <p>
      Change screens and data on the{' '}
      <a className="link" href={`/studio/${app}/shape`}>
        Shape
      </a>{' '}
      bench, or access on the{' '}
      <a className="link" href={`/studio/${app}/gates`}>
        Gates
      </a>{' '}
      bench.
    </p>
  </EmptyState>
);
