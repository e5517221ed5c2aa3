'use client';

import { useState } from 'react';
import type { Rank } from '@/core/findings';
import { useDraft } from '../shell/studio-work';
import { PlaceLink } from './place-link';
import type { Proof, ShownFinding } from './proof';
import { viewersInWords } from './viewers-in-words';

/** So many are shown at first, and so many more each time. */
const SHOWN = 100;

/** What is probably wrong, the worst first; what was set aside is told of, and shown where asked for. */
export function FindingsPart({
  proof,
  chosen,
  onChoose,
}: {
  proof: Proof | null;
  chosen: string;
  onChoose: (key: string) => void;
}) {
  const [withAside, setWithAside] = useState(false);
  const [most, setMost] = useState(SHOWN);
  const { definition } = useDraft();
  if (!proof)
    return <p className="mt-3 bg-paper px-4 py-6 text-quiet">This application is being looked through.</p>;
  const aside = proof.findings.filter((one) => one.aside);
  const shown = withAside ? proof.findings : proof.findings.filter((one) => !one.aside);
  return (
    <section aria-label="To look at" className="mt-2 border-t-2 border-ink bg-paper">
      <table className="w-full table-fixed text-left">
        <thead>
          <tr className="border-b border-rule">
            <th className="w-[38px]">
              <span className="sr-only">Rank</span>
            </th>
            <th className="py-1 font-semibold">What</th>
            <th className="w-[150px] py-1 font-semibold">Where</th>
            <th className="w-[112px] py-1 font-semibold">Whom</th>
          </tr>
        </thead>
        <tbody>
          {shown.slice(0, most).map((one) => (
            <tr
              key={one.key}
              data-finding={one.kind}
              aria-selected={one.key === chosen}
              className="cursor-pointer border-b border-rule align-top hover:bg-plate aria-selected:bg-amber-soft"
              onClick={() => onChoose(one.key)}
            >
              <td className="py-1.5 pl-2.5">
                <RankMark rank={one.rank} />
              </td>
              <td className="py-1.5 pr-4">
                <button
                  type="button"
                  className="block text-left font-semibold"
                  aria-label={`${one.title}: ${one.reason}`}
                  onClick={() => onChoose(one.key)}
                >
                  {one.title}
                </button>
                <span className="line-clamp-2 text-[13px] text-quiet">{one.reason}</span>
                {one.aside && <span className="text-[13px] text-quiet">Set aside: {one.aside.reason}</span>}
              </td>
              <td className="py-1.5 pr-3 break-words">
                {one.places[0] && <PlaceLink id={one.places[0]} kind />}
              </td>
              <td className="py-1.5 pr-2">{whomInWords(one, (keys) => viewersInWords(definition, keys))}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {shown.length > most && (
        <p className="px-3 py-1.5 text-[13px]">
          <button type="button" className="link" onClick={() => setMost(most + SHOWN)}>
            {Math.min(SHOWN, shown.length - most)} more of {shown.length}
          </button>
        </p>
      )}
      {shown.length === 0 && (
        <p className="px-4 py-6 text-quiet">
          Nothing is found that is probably wrong. It is looked for after each change.
        </p>
      )}
      {aside.length > 0 && (
        <p className="px-3 py-1.5 text-right text-[13px] text-quiet">
          {aside.length} set aside.{' '}
          <button type="button" className="link" onClick={() => setWithAside(!withAside)}>
            {withAside ? 'Hide them' : 'Show them'}
          </button>
        </p>
      )}
    </section>
  );
}

/** How many people it touches; else which kinds of viewers. */
function whomInWords({ whom }: ShownFinding, words: (keys: readonly string[]) => string): string {
  if (whom.people > 0) return whom.people === 1 ? '1 person' : `${whom.people} people`;
  return words(whom.kinds);
}

/** The mark of a finding: filled where it lets somebody in, empty where it is probably not meant. */
export function RankMark({ rank }: { rank: Rank }) {
  const says = rank === 'lets-in' ? 'Lets somebody in' : 'Probably not meant';
  return (
    <svg width="13" height="13" viewBox="0 0 13 13" role="img" aria-label={says} className="mt-1">
      <title>{says}</title>
      <path
        d="M6.5 1.5 L12 11.5 L1 11.5 Z"
        fill={rank === 'lets-in' ? 'var(--color-amber)' : 'none'}
        stroke="var(--color-amber)"
        strokeWidth="1.3"
        strokeLinejoin="round"
      />
    </svg>
  );
}
