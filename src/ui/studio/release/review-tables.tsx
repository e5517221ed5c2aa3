'use client';

import type { Answer } from '@/core/access';
import {
  answerInWords,
  type Direction,
  directionOf,
  type Effect,
  type Following,
  type OtherRecords,
  counted,
} from '@/core/edit';
import { LevelMark } from '../shared/level-mark';

const DIRECTIONS: Readonly<Record<Direction, string>> = {
  gain: 'Gains',
  lose: 'Loses',
  other: 'Different records',
};

/** What follows elsewhere from one change, folded: the same people at many places are one line. */
export function Follows({ following, heading }: { following: readonly Following[]; heading: string }) {
  if (following.length === 0) return null;
  const places = new Set(following.flatMap(({ elements }) => elements)).size;
  return (
    <details className="mt-2">
      <summary className="text-quiet">
        {heading}: {counted(places, 'place')}
      </summary>
      <table aria-label={heading} className="mt-1 w-full">
        <tbody>
          {following.map(({ direction, names, more, elements }) => (
            <tr key={`${direction} ${names.join()} ${more}`} className="border-t border-sheet align-top">
              <th scope="row" className="w-28 py-1 pr-3 text-left font-semibold">
                {DIRECTIONS[direction]}
              </th>
              <td className="w-1/2 py-1 pr-3">
                <Names names={elements} />
              </td>
              <td className="py-1">
                <Names names={names} more={more} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

/** Who gains and who loses on one element. */
export function Moves({ effect: { kind, moved } }: { effect: Effect }) {
  return (
    <table aria-label="Who gains and who loses" className="mt-2 w-full">
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
              <AnswerMark kind={kind} answer={move.before} /> <span aria-label="changes to">→</span>{' '}
              <AnswerMark kind={kind} answer={move.after} />
            </td>
            <td className="py-1">
              <Names names={move.names} more={move.more} />
              {move.records && <Records records={move.records} />}
              {move.elsewhen && (
                <p className="text-quiet">Not now, but at other times or with session values set.</p>
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
      {of}(sample records):{' '}
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

/** Names, the first of them; `more`: how many others there are that are not named here. */
export function Names({ names, more = 0 }: { names: readonly string[]; more?: number }) {
  if (names.length + more <= SHOWN) return <>{names.join(', ')}</>;
  return (
    <details>
      <summary>
        {names.slice(0, SHOWN - 1).join(', ')} and {(names.length + more - SHOWN + 1).toLocaleString('en')}{' '}
        more
      </summary>
      <p className="text-quiet">
        {names.slice(SHOWN - 1).join(', ')}
        {more > 0 && ` and ${more.toLocaleString('en')} more`}
      </p>
    </details>
  );
}
