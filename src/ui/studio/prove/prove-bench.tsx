'use client';

import { parseAsString, parseAsStringLiteral, useQueryState } from 'nuqs';
import { useAsked } from '@/ui/client/queries';
import {
  expectations as expectationsContract,
  type ListedExpectation,
  type ListedSignOff,
  type ProofState,
  proof as proofContract,
  type ShownSweep,
  signOffs as signOffsContract,
  sweeps as sweepsContract,
} from '@/contract/studio/proving';
import { useDraft, useStudio } from '../shell/studio-work';
import { ExpectedDetail } from './expected-detail';
import { ExpectedPart } from './expected-part';
import { FindingDetail } from './finding-detail';
import { FindingsPart } from './findings-part';
import { OverReleases } from './over-releases';
import { ReachChart } from './reach-chart';
import { SignedDetail } from './signed-detail';
import { SignedPart } from './signed-part';
import { SweepDetail, SweepPart } from './sweep-part';
import { type Part, Tiles } from './tiles';

const PARTS: readonly { readonly key: Part; readonly name: string }[] = [
  { key: 'look-at', name: 'Findings' },
  { key: 'expected', name: 'Expectations' },
  { key: 'sweep', name: 'Sweep' },
  { key: 'signed', name: 'Sign-offs' },
];
const PART = parseAsStringLiteral(PARTS.map(({ key }) => key)).withDefault('look-at');
const CHOSEN = parseAsString.withDefault('');

interface Props {
  readonly proof: ProofState | null;
  readonly expectations: readonly ListedExpectation[];
  readonly sweeps: readonly ShownSweep[];
  readonly signOffs: readonly ListedSignOff[];
}

/** The prove bench: what is probably wrong, what is expected, what the server really answers, and what was confirmed. */
export function ProveBench(first: Props) {
  const { app } = useStudio();
  const draft = useDraft();
  const [part, setPart] = useQueryState('part', PART);
  const [chosen, setChosen] = useQueryState('chosen', CHOSEN);
  const here = { app };
  const proof = useAsked(proofContract, here, { first: first.proof }).data ?? null;
  const { expectations } = useAsked(expectationsContract, here, { first }).data ?? first;
  const { sweeps } = useAsked(sweepsContract, here, { first }).data ?? first;
  const { signOffs } = useAsked(signOffsContract, here, { first }).data ?? first;
  const behind = !proof || proof.revision < draft.revision;
  const finding =
    proof?.findings.find(({ key }) => key === chosen) ?? proof?.findings.find((one) => !one.aside);
  const sweep = sweeps.find(({ id }) => id === chosen) ?? sweeps[0];
  const signed = signOffs.find(({ id }) => id === chosen) ?? signOffs[0];
  const choose = (id: string): void => void setChosen(id);
  const open = (to: Part): void => {
    void setChosen(null);
    void setPart(to);
  };
  return (
    <main
      data-region="work"
      tabIndex={-1}
      className="grid min-h-0 grid-cols-[minmax(0,1fr)_400px] gap-4 overflow-hidden px-[18px] pt-3.5"
    >
      <div className="min-h-0 overflow-y-auto pb-6">
        <h1 className="sr-only">Prove</h1>
        <Tiles
          proof={proof}
          expected={expectations.length}
          sweep={sweeps[0]}
          signed={signOffs[0]}
          revision={draft.revision}
          onPart={open}
        />
        <div className="mt-3.5 flex items-center justify-between gap-4">
          <div role="group" aria-label="Sections of the Prove bench" className="flex">
            {PARTS.map(({ key, name }) => (
              <button
                key={key}
                type="button"
                aria-pressed={part === key}
                className="-ml-px border border-ink bg-paper px-2.5 py-0.5 text-[13px] first:ml-0 aria-pressed:bg-lead aria-pressed:text-white"
                onClick={() => open(key)}
              >
                {name}
              </button>
            ))}
          </div>
          <span role="status" className="text-[13px] text-quiet">
            {behind && 'Checking the latest changes…'}
          </span>
        </div>
        {part === 'look-at' && (
          <>
            <FindingsPart proof={proof} chosen={finding?.key ?? ''} onChoose={choose} />
            <div className="mt-4 grid gap-4">
              <ReachChart />
              <OverReleases />
            </div>
          </>
        )}
        {part === 'expected' && (
          <ExpectedPart proof={proof} all={expectations} chosen={chosen} onChoose={choose} />
        )}
        {part === 'sweep' && <SweepPart sweeps={sweeps} chosen={sweep} onChoose={choose} />}
        {part === 'signed' && <SignedPart all={signOffs} chosen={signed?.id ?? ''} onChoose={choose} />}
      </div>
      <aside
        data-region="detail"
        aria-label="Details"
        tabIndex={-1}
        className="min-h-0 overflow-y-auto border-t-2 border-ink bg-paper px-4 py-3"
      >
        {part === 'look-at' && finding && (
          <FindingDetail key={finding.key} finding={finding} behind={behind} />
        )}
        {part === 'look-at' && !finding && (
          <p className="text-quiet">{behind ? 'Checking…' : 'No findings.'}</p>
        )}
        {part === 'expected' && <ExpectedDetail proof={proof} all={expectations} chosen={chosen} />}
        {part === 'sweep' && <SweepDetail sweep={sweep} definition={draft.definition} />}
        {part === 'signed' && <SignedDetail key={signed?.id} all={signOffs} chosen={signed} />}
      </aside>
    </main>
  );
}
