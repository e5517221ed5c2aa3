'use client';

import { parseAsString, parseAsStringLiteral, useQueryState } from 'nuqs';
import { useMemo, useState } from 'react';
import type { Rank } from '@/core/findings';
import type { ProofState, ShownFinding } from '@/contract/studio/proving';
import { counted } from '@/core/edit';
import { useDraft } from '../shell/studio-work';
import { type FindingsGroup, GROUPED_BY, groupsOf } from './findings-shown';
import { PlaceLink } from './place-link';
import { viewersInWords } from './viewers-in-words';
import { Select } from '@/ui/parts/select';

/** Groups are open at first where there are no more findings than this. */
const ALL_OPEN = 30;
/** So many of one group are shown at first, and so many more each time. */
const SHOWN = 50;

const TEXT = parseAsString.withDefault('');
const RANK = parseAsStringLiteral(['all', 'lets-in', 'not-meant'] as const).withDefault('all');
const BY = parseAsStringLiteral(GROUPED_BY).withDefault('what');

/** What is probably wrong, the worst first, in groups; what was set aside is counted, and shown where asked for. */
export function FindingsPart({
  proof,
  chosen,
  onChoose,
}: {
  proof: ProofState | null;
  chosen: string;
  onChoose: (key: string) => void;
}) {
  const [withAside, setWithAside] = useState(false);
  const [text, setText] = useQueryState('find', TEXT);
  const [rank, setRank] = useQueryState('rank', RANK);
  const [by, setBy] = useQueryState('by', BY);
  const { definition } = useDraft();
  const listed = useMemo(
    () => proof?.findings.filter((one) => withAside || !one.aside) ?? [],
    [proof, withAside],
  );
  const groups = useMemo(
    () => groupsOf(definition, listed, { text, rank, by }),
    [definition, listed, text, rank, by],
  );
  if (!proof) return <p className="mt-3 bg-paper px-4 py-6 text-quiet">The application is being checked.</p>;
  const aside = proof.findings.filter((one) => one.aside).length;
  const found = groups.reduce((sum, { findings }) => sum + findings.length, 0);
  const isAsked = text.trim() !== '' || rank !== 'all';
  return (
    <section aria-label="Findings" className="mt-2 border-t-2 border-ink bg-paper">
      <div className="flex flex-wrap items-center gap-2 border-b border-rule px-2.5 py-1.5">
        <input
          type="search"
          aria-label="Search findings"
          placeholder="Search findings"
          className="field-box w-[180px]"
          value={text}
          onChange={(event) => void setText(event.target.value || null)}
        />
        <Select
          aria-label="Rank"
          className="w-auto"
          value={rank}
          onChoose={(chosen) => void setRank(RANK.parse(chosen))}
          options={[
            { id: 'all', name: 'All ranks' },
            { id: 'lets-in', name: 'Access risks' },
            { id: 'not-meant', name: 'Likely mistakes' },
          ]}
        />
        <Select
          aria-label="Group"
          className="w-auto"
          value={by}
          onChoose={(chosen) => void setBy(BY.parse(chosen))}
          options={[
            { id: 'what', name: 'Grouped by kind' },
            { id: 'where', name: 'Grouped by place' },
          ]}
        />
        <span role="status" className="ml-auto text-[13px] text-quiet">
          {isAsked ? `${found} of ${counted(listed.length, 'finding')}` : counted(found, 'finding')}
        </span>
      </div>
      {groups.map((group) => (
        <Group
          key={group.key}
          group={group}
          isOpenAtFirst={isAsked || listed.length <= ALL_OPEN}
          chosen={chosen}
          onChoose={onChoose}
        />
      ))}
      {found === 0 && (
        <p className="px-4 py-6 text-quiet">
          {isAsked
            ? 'No findings match this search.'
            : 'No findings. The application is checked again after every change.'}
        </p>
      )}
      {aside > 0 && (
        <p className="px-3 py-1.5 text-right text-[13px] text-quiet">
          {aside} dismissed.{' '}
          <button type="button" className="link" onClick={() => setWithAside(!withAside)}>
            {withAside ? 'Hide dismissed' : 'Show dismissed'}
          </button>
        </p>
      )}
    </section>
  );
}

/** The findings of one kind, or at one place: under a heading that opens and closes, where there are several. */
function Group({
  group: { name, findings },
  isOpenAtFirst,
  chosen,
  onChoose,
}: {
  group: FindingsGroup;
  isOpenAtFirst: boolean;
  chosen: string;
  onChoose: (key: string) => void;
}) {
  const [set, setOpen] = useState<boolean>();
  const [most, setMost] = useState(SHOWN);
  const [worst] = findings;
  const isOpen = set ?? (isOpenAtFirst || findings.some(({ key }) => key === chosen));
  if (!worst) return null;
  return (
    <section aria-label={name} className="border-b border-rule">
      <h3 className="bg-plate">
        <button
          type="button"
          aria-expanded={isOpen}
          className="flex w-full items-center gap-2 px-2.5 py-1 text-left font-semibold"
          onClick={() => setOpen(!isOpen)}
        >
          <RankMark rank={worst.rank} />
          {name}
          <span className="font-normal text-quiet">{findings.length}</span>
          <span aria-hidden className="ml-auto text-quiet">
            {isOpen ? '−' : '+'}
          </span>
        </button>
      </h3>
      {isOpen && (
        <ul>
          {findings.slice(0, most).map((one) => (
            <Row key={one.key} finding={one} under={name} isChosen={one.key === chosen} onChoose={onChoose} />
          ))}
        </ul>
      )}
      {isOpen && findings.length > most && (
        <p className="px-3 py-1.5 text-[13px]">
          <button type="button" className="link" onClick={() => setMost(most + SHOWN)}>
            Show {Math.min(SHOWN, findings.length - most)} more of {findings.length}
          </button>
        </p>
      )}
    </section>
  );
}

function Row({
  finding,
  under,
  isChosen,
  onChoose,
}: {
  finding: ShownFinding;
  under: string;
  isChosen: boolean;
  onChoose: (key: string) => void;
}) {
  const { definition } = useDraft();
  const { key, kind, title, reason, aside, places } = finding;
  return (
    <li
      data-finding={kind}
      aria-current={isChosen}
      className="grid cursor-pointer grid-cols-[minmax(0,1fr)_150px_112px] gap-x-3 border-t border-rule py-1.5 pl-[33px] hover:bg-plate aria-[current=true]:bg-amber-soft"
      onClick={() => onChoose(key)}
    >
      <span>
        <button
          type="button"
          className="block text-left"
          aria-label={`${title}: ${reason}`}
          onClick={() => onChoose(key)}
        >
          {under !== title && <strong className="block font-semibold">{title}</strong>}
          <span className="line-clamp-2 text-[13px]">{reason}</span>
        </button>
        {aside && <span className="text-[13px] text-quiet">Dismissed: {aside.reason}</span>}
      </span>
      <span className="text-[13px] break-words">{places[0] && <PlaceLink id={places[0]} kind />}</span>
      <span className="pr-2 text-[13px]">
        {whomInWords(finding, (keys) => viewersInWords(definition, keys))}
      </span>
    </li>
  );
}

/** How many people it touches; else which kinds of viewers. */
function whomInWords({ whom }: ShownFinding, words: (keys: readonly string[]) => string): string {
  if (whom.people > 0) return counted(whom.people, 'person', 'people');
  return words(whom.kinds);
}

/** The mark of a finding: filled for an access risk, empty for a likely mistake. */
export function RankMark({ rank }: { rank: Rank }) {
  const says = rank === 'lets-in' ? 'Access risk' : 'Likely mistake';
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
