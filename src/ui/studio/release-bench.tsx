'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Answer } from '@/core/access/level';
import type { Effect, Moved, Review } from '@/core/edit/review';
import { answerInWords } from '@/core/edit/words';
import { ask } from '../live/host';
import { Toasts, useTell } from '../parts/toasts';
import { LevelMark } from './level-mark';
import { StudioTop } from './studio-frame';

interface Props {
  readonly slug: string;
  readonly name: string;
  readonly applications: readonly { readonly slug: string; readonly name: string }[];
  readonly builder: string;
  readonly mayChange: boolean;
  readonly review: Review;
}

/** The release bench: what a release would change, in words, and who gains and who loses by each change. */
export function ReleaseBench(props: Props) {
  return (
    <Toasts>
      <StudioTop {...props} bench="release" waiting={props.review.changes.length} />
      <Body {...props} />
    </Toasts>
  );
}

function Body({ slug, mayChange, review }: Props) {
  const router = useRouter();
  const tell = useTell();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState('');
  const { changes, following, number, revision, gaining, losing } = review;
  const next = (number ?? 0) + 1;
  const release = async (): Promise<void> => {
    setBusy(true);
    setProblem('');
    const answer = await ask<{ number: number }>(`/studio/api/applications/${slug}/releases`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ revision }),
    });
    setBusy(false);
    if (answer.ok) tell(`Release ${answer.value.number} is in force.`);
    else setProblem(answer.detail);
    router.refresh();
  };
  return (
    <main className="mx-auto max-w-5xl px-6 py-6">
      <div className="flex items-end justify-between gap-6 border-b-2 border-ink pb-3">
        <div>
          <h1 className="text-xl font-semibold">
            {changes.length === 0 ? 'Nothing waits for a release' : `What release ${next} would change`}
          </h1>
          <p className="text-quiet">
            {number === undefined ? 'There has been no release yet. ' : `Release ${number} is in force. `}
            {changes.length > 0 &&
              `${people(gaining)} ${gaining > 1 ? 'gain' : 'gains'} something, ${people(losing).toLowerCase()} ${losing > 1 ? 'lose' : 'loses'} something.`}
          </p>
        </div>
        <div className="flex shrink-0 items-center gap-3">
          <a className="link" href={`/live/${slug}`} target="_blank" rel="noreferrer">
            Open the released application
          </a>
          {mayChange && changes.length > 0 && (
            <button
              type="button"
              className="button button-main"
              disabled={busy}
              onClick={() => void release()}
            >
              {busy ? 'Releasing …' : `Release ${next}`}
            </button>
          )}
        </div>
      </div>
      {problem && (
        <p role="alert" className="mt-3 border-l-4 border-ink bg-sheet px-3 py-2">
          {problem}
        </p>
      )}
      {changes.map((change) => (
        <section key={change.about} className="mt-4 bg-paper px-4 py-3">
          <h2 className="font-semibold">{change.about}</h2>
          {change.done.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
          {change.effect ? (
            <Moves effect={change.effect} />
          ) : (
            <p className="mt-1 text-quiet">Nobody gains or loses by it here.</p>
          )}
        </section>
      ))}
      {following.length > 0 && (
        <>
          <h2 className="mt-6 font-semibold">What follows from these changes</h2>
          {following.map((effect) => (
            <section key={effect.element} className="mt-2 bg-paper px-4 py-3">
              <h3 className="font-medium">{effect.name}</h3>
              <Moves effect={effect} />
            </section>
          ))}
        </>
      )}
    </main>
  );
}

const people = (n: number): string => (n === 1 ? '1 viewer' : n === 0 ? 'Nobody' : `${n} viewers`);

const rank = ({ least, most }: Answer): number => least + most;

const direction = ({ before, after }: Moved): string =>
  rank(after) > rank(before) ? 'Gain' : rank(after) < rank(before) ? 'Lose' : 'Other records';

/** Who gains and who loses on one element. */
function Moves({ effect: { kind, moved } }: { effect: Effect }) {
  return (
    <table className="mt-2 w-full">
      <tbody>
        {moved.map((move) => (
          <tr
            key={`${answerKey(move.before)} ${answerKey(move.after)}`}
            className="border-t border-sheet align-top"
          >
            <th scope="row" className="w-24 py-1 pr-3 text-left font-semibold">
              {direction(move)}
            </th>
            <td className="w-56 py-1 pr-3">
              <Step kind={kind} answer={move.before} /> <span aria-label="becomes">→</span>{' '}
              <Step kind={kind} answer={move.after} />
            </td>
            <td className="py-1">
              <Names names={move.names} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const answerKey = ({ least, most }: Answer): string => `${least}${most}`;

function Step({ kind, answer }: { kind: Effect['kind']; answer: Answer }) {
  return (
    <span className="inline-flex items-center gap-1 whitespace-nowrap">
      <LevelMark answer={answer} />
      {answerInWords(kind, answer)}
    </span>
  );
}

const SHOWN = 6;

function Names({ names }: { names: readonly string[] }) {
  if (names.length <= SHOWN) return <>{names.join(', ')}</>;
  return (
    <details>
      <summary>
        {names.slice(0, SHOWN - 1).join(', ')} and {names.length - SHOWN + 1} more
      </summary>
      <p className="text-quiet">{names.slice(SHOWN - 1).join(', ')}</p>
    </details>
  );
}
