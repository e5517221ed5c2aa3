'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { Answer } from '@/core/access';
import {
  answerInWords,
  type Direction,
  directionOf,
  type Effect,
  type Following,
  type OtherRecords,
  type Review,
} from '@/core/edit';
import { send } from '../../live/host';
import { useTell } from '../../parts/toasts';
import { LevelMark } from '../shared/level-mark';
import { Window } from '../../parts/window';
import { useDraft, useStudio } from '../shell/studio-work';

/** The release bench: what a release would change, in words, and who gains and who loses by each change. */
export function ReleaseBench({ review }: { review: Review }) {
  const { slug, api, mayChange } = useStudio();
  const draft = useDraft();
  const router = useRouter();
  const tell = useTell();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState('');
  const { changes, following, power, number, revision } = review;
  const next = (number ?? 0) + 1;
  // What was changed since, here or by others, is reviewed too before it can be released.
  const behind = draft.saved === 'saved' && draft.revision > revision;
  useEffect(() => {
    if (behind) router.refresh();
  }, [behind, draft.revision, router]);
  const release = async (note: string): Promise<void> => {
    setBusy(true);
    setProblem('');
    const answer = await send<{ number: number }>('POST', `${api}/releases`, { revision, note });
    setBusy(false);
    if (answer.ok) tell(`Release ${answer.value.number} is in force.`);
    else setProblem(answer.detail);
    router.refresh();
  };
  return (
    <main data-region="work" tabIndex={-1} className="min-h-0 overflow-auto">
      <div className="mx-auto max-w-5xl px-6 py-6">
        <div className="flex items-end justify-between gap-6 border-b-2 border-ink pb-3">
          <div>
            <h1 className="text-xl font-semibold">
              {changes.length === 0 ? 'Nothing waits for a release' : `What release ${next} would change`}
            </h1>
            <p className="text-quiet">
              {number === undefined ? 'There has been no release yet. ' : `Release ${number} is in force. `}
              {changes.length > 0 && summary(review)}
            </p>
          </div>
          <div className="flex shrink-0 items-center gap-3">
            <a className="link" href={`/live/${slug}`} target="_blank" rel="noreferrer">
              Open the released application
            </a>
            {mayChange && changes.length > 0 && (
              <ReleaseWindow
                number={next}
                review={review}
                busy={busy}
                onRelease={(note) => void release(note)}
              />
            )}
          </div>
        </div>
        {problem && (
          <p role="alert" className="mt-3 border-l-4 border-ink bg-sheet px-3 py-2">
            {problem}
          </p>
        )}
        {power.length > 0 && (
          <section aria-labelledby="power" className="mt-4 border-l-4 border-ink bg-paper px-4 py-3">
            <h2 id="power" className="font-semibold">
              What gives power
            </h2>
            <ul className="mt-1 grid gap-1.5">
              {power.map(({ about, said, names }) => (
                <li key={`${about} ${said}`}>
                  <strong className="font-medium">{about}</strong>: {said}
                  {names && (
                    <span className="text-quiet">
                      {' '}
                      {names.length === 0 ? 'Nobody is, by now.' : <Names names={names} />}
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
            <Follows following={change.following} heading="By this also, elsewhere" />
            {!change.effect && change.following.length === 0 && (
              <p className="mt-1 text-quiet">
                No screen, field or button opens or closes by it
                {change.asksWhen ? ' now; it asks for the time, or for a value of a session.' : '.'}
              </p>
            )}
          </section>
        ))}
        {following.length > 0 && (
          <section className="mt-4 bg-paper px-4 py-3">
            <Follows following={following} heading="What follows from roles, groups and settings" />
          </section>
        )}
      </div>
    </main>
  );
}

function summary({ gaining, losing, others, power }: Review): string {
  const said = [
    ...(gaining + losing === 0
      ? ['Nobody gains or loses a screen, field or button']
      : [
          `${people(gaining)} ${gaining > 1 ? 'gain' : 'gains'} something`,
          `${people(losing).toLowerCase()} ${losing > 1 ? 'lose' : 'loses'} something`,
        ]),
    ...(others > 0
      ? [`${people(others).toLowerCase()} only ${others > 1 ? 'get' : 'gets'} other records`]
      : []),
  ];
  const places = power.length === 1 ? 'one place' : `${power.length} places`;
  return `${said.join(', ')}.${power.length > 0 ? ` It gives power in ${places}.` : ''}`;
}

/** Releasing asks once: what it does cannot be taken back, only followed by another release. */
function ReleaseWindow({
  number,
  review,
  busy,
  onRelease,
}: {
  number: number;
  review: Review;
  busy: boolean;
  onRelease: (note: string) => void;
}) {
  const [open, setOpen] = useState(false);
  const [note, setNote] = useState('');
  return (
    <Window
      title={`Release ${number}`}
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" className="button button-main" disabled={busy}>
          {busy ? 'Releasing …' : `Release ${number} …`}
        </button>
      }
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          setOpen(false);
          onRelease(note);
        }}
      >
        <p>It is in force at once, also for everybody who is signed in. {summary(review)}</p>
        <label className="mt-3 block">
          What it is for
          <textarea
            className="field-box mt-1 h-20"
            maxLength={1000}
            value={note}
            onChange={(event) => setNote(event.target.value)}
          />
        </label>
        <button type="submit" className="button button-main mt-3">
          Release
        </button>
      </form>
    </Window>
  );
}

const people = (n: number): string => (n === 1 ? '1 viewer' : n === 0 ? 'Nobody' : `${n} viewers`);

const DIRECTIONS: Readonly<Record<Direction, string>> = {
  gain: 'Gain',
  lose: 'Lose',
  other: 'Other records',
};

/** What follows elsewhere from one change, folded: the same people at many places are one line. */
function Follows({ following, heading }: { following: readonly Following[]; heading: string }) {
  if (following.length === 0) return null;
  const places = new Set(following.flatMap(({ elements }) => elements)).size;
  return (
    <details className="mt-2">
      <summary className="text-quiet">
        {heading}: {places === 1 ? '1 place' : `${places} places`}
      </summary>
      <table className="mt-1 w-full">
        <tbody>
          {following.map(({ direction, names, elements }) => (
            <tr key={`${direction} ${names.join()}`} className="border-t border-sheet align-top">
              <th scope="row" className="w-28 py-1 pr-3 text-left font-semibold">
                {DIRECTIONS[direction]}
              </th>
              <td className="w-1/2 py-1 pr-3">
                <Names names={elements} />
              </td>
              <td className="py-1">
                <Names names={names} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

/** Who gains and who loses on one element. */
function Moves({ effect: { kind, moved } }: { effect: Effect }) {
  return (
    <table className="mt-2 w-full">
      <tbody>
        {moved.map((move) => (
          <tr
            key={`${answerKey(move.before)} ${answerKey(move.after)} ${move.elsewhen}`}
            className="border-t border-sheet align-top"
          >
            <th scope="row" className="w-28 py-1 pr-3 text-left font-semibold">
              {DIRECTIONS[directionOf(move)]}
            </th>
            <td className="w-56 py-1 pr-3">
              <AnswerMark kind={kind} answer={move.before} /> <span aria-label="becomes">→</span>{' '}
              <AnswerMark kind={kind} answer={move.after} />
            </td>
            <td className="py-1">
              <Names names={move.names} />
              {move.records && <Records records={move.records} />}
              {move.elsewhen && (
                <p className="text-quiet">Not now: at another time, or with something set in a session.</p>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Which records somebody gets otherwise, by some of the sample records. */
function Records({ records: { of, gained, lost, counts } }: { records: OtherRecords }) {
  const said = (verb: string, names: readonly string[], n: number): string[] =>
    n === 0 ? [] : [`${verb} ${n} of ${counts.of}: ${names.join(', ')}${n > names.length ? ' …' : ''}`];
  return (
    <p className="text-quiet">
      {of}, of the sample records,{' '}
      {[...said('gains', gained, counts.gained), ...said('loses', lost, counts.lost)].join('; ')}
    </p>
  );
}

const answerKey = ({ least, most }: Answer): string => `${least}${most}`;

function AnswerMark({ kind, answer }: { kind: Effect['kind']; answer: Answer }) {
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
