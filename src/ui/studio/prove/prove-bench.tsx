'use client';

import { parseAsString, parseAsStringLiteral, useQueryState } from 'nuqs';
import { useAsked } from '../../parts/queries';
import { useDraft, useStudio } from '../shell/studio-work';
import { ExpectedDetail } from './expected-detail';
import { ExpectedPart } from './expected-part';
import { FindingDetail } from './finding-detail';
import { FindingsPart } from './findings-part';
import type { Expected, Proof } from './proof';
import { ReachChart } from './reach-chart';
import { Tiles } from './tiles';

const PARTS = [
  { key: 'look-at', name: 'To look at' },
  { key: 'expected', name: 'Expected' },
] as const;
const PART = parseAsStringLiteral(PARTS.map(({ key }) => key)).withDefault('look-at');
const CHOSEN = parseAsString.withDefault('');

/** The prove bench: what is probably wrong, what is expected, and how far everybody reaches. */
export function ProveBench({ proof: first, expectations }: { proof: Proof | null; expectations: Expected }) {
  const { api } = useStudio();
  const draft = useDraft();
  const [part, setPart] = useQueryState('part', PART);
  const [chosen, setChosen] = useQueryState('chosen', CHOSEN);
  const proof = useAsked<Proof | null>(`${api}/proof`, { first }).data ?? null;
  const expected = useAsked<Expected>(`${api}/expectations`, { first: expectations }).data ?? expectations;
  const behind = !proof || proof.revision < draft.revision;
  const finding =
    proof?.findings.find(({ key }) => key === chosen) ?? proof?.findings.find((one) => !one.aside);
  return (
    <main
      data-region="work"
      tabIndex={-1}
      className="grid min-h-0 grid-cols-[minmax(0,1fr)_400px] gap-4 overflow-hidden px-[18px] pt-3.5"
    >
      <div className="min-h-0 overflow-y-auto pb-6">
        <Tiles proof={proof} expected={expected.expectations.length} onPart={(to) => void setPart(to)} />
        <div className="mt-3.5 flex items-center justify-between gap-4">
          <div role="group" aria-label="Parts of the bench" className="flex">
            {PARTS.map(({ key, name }) => (
              <button
                key={key}
                type="button"
                aria-pressed={part === key}
                className="-ml-px border border-ink bg-paper px-2.5 py-0.5 text-[13px] first:ml-0 aria-pressed:bg-lead aria-pressed:text-white"
                onClick={() => {
                  void setChosen(null);
                  void setPart(key);
                }}
              >
                {name}
              </button>
            ))}
          </div>
          <span role="status" className="text-[13px] text-quiet">
            {behind && 'Looking through the newest changes …'}
          </span>
        </div>
        {part === 'look-at' ? (
          <FindingsPart proof={proof} chosen={finding?.key ?? ''} onChoose={(key) => void setChosen(key)} />
        ) : (
          <ExpectedPart
            proof={proof}
            all={expected.expectations}
            chosen={chosen}
            onChoose={(key) => void setChosen(key)}
          />
        )}
        <ReachChart />
      </div>
      <aside
        data-region="detail"
        aria-label="What was chosen"
        tabIndex={-1}
        className="min-h-0 overflow-y-auto border-t-2 border-ink bg-paper px-4 py-3"
      >
        {part === 'look-at' ? (
          finding ? (
            <FindingDetail key={finding.key} finding={finding} behind={behind} />
          ) : (
            <p className="text-quiet">
              {behind ? 'This is being worked out.' : 'Nothing is found that is probably wrong.'}
            </p>
          )
        ) : (
          <ExpectedDetail proof={proof} all={expected.expectations} chosen={chosen} />
        )}
      </aside>
    </main>
  );
}
