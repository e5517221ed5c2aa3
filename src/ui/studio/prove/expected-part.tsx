'use client';

import { Check, X } from 'lucide-react';
import { useRef, useState } from 'react';
import { compile } from '@/core';
import { kindsOf } from '@/core/access';
import { answerInWords, placeInWords, counted } from '@/core/edit';
import type { Definition } from '@/core/model';
import { send, urlOf } from '@/ui/client/send';
import {
  expectationsFile,
  importExpectations,
  type ListedExpectation,
  type ProofState,
} from '@/contract/studio/proving';
import { useTell } from '../../parts/toasts';
import { useDraft, useStudio } from '../shell/studio-work';
import { ExpectWindow } from '../shared/expect-window';
import { useProofSettings } from './use-proof-settings';
import { Select } from '@/ui/parts/select';
import { Checkbox } from '@/ui/parts/checkbox';

interface Props {
  readonly proof: ProofState | null;
  readonly all: readonly ListedExpectation[];
  readonly chosen: string;
  readonly onChoose: (id: string) => void;
}

/** So many are shown at once of what stands under one heading. */
const SHOWN = 100;

/** What is expected, under what it protects; what does not hold stands first. */
export function ExpectedPart({ proof, all, chosen, onChoose }: Props) {
  const { app, mayChange } = useStudio();
  const { definition } = useDraft();
  const broken = new Set(proof?.broken.map(({ id }) => id));
  const groups = groupsOf(all).sort(
    (one, other) =>
      Number(other.of.some(({ id }) => broken.has(id))) - Number(one.of.some(({ id }) => broken.has(id))),
  );
  return (
    <section aria-label="Expectations" className="mt-2 border-t-2 border-ink bg-paper">
      <div className="flex flex-wrap items-center gap-3 border-b border-rule px-3 py-1.5">
        {mayChange && <KeepAll definition={definition} />}
        <span className="ml-auto flex items-center gap-3 text-[13px]">
          <a className="link" href={urlOf(expectationsFile, { app })}>
            Export CSV
          </a>
          {mayChange && <FromCsv />}
        </span>
      </div>
      <MayBreak />
      {all.length === 0 && (
        <p className="px-4 py-6 text-quiet">
          No expectations yet. Add one from the grid, from a Look pane or from a Why explanation. Every later
          change is then checked against it.
        </p>
      )}
      {groups.map(({ name, of }) => (
        <details key={name} open={groups.length <= 3 || of.some(({ id }) => broken.has(id) || id === chosen)}>
          <summary className="border-b border-rule bg-plate px-3 py-1 text-[13px]">
            <span className="font-semibold">{name}</span>{' '}
            <span className="text-quiet">
              {countInWords(of, broken)}
              {of[0]?.reason && `. ${of[0].reason}`}
            </span>
          </summary>
          <ul>
            {[...of]
              .sort((one, other) => Number(broken.has(other.id)) - Number(broken.has(one.id)))
              .slice(0, SHOWN)
              .map((one) => (
                <li key={one.id}>
                  <Row
                    one={one}
                    definition={definition}
                    broken={broken.has(one.id)}
                    chosen={one.id === chosen}
                    onChoose={() => onChoose(one.id)}
                  />
                </li>
              ))}
            {of.length > SHOWN && (
              <li className="px-3 py-1 text-[13px] text-quiet">
                and {of.length - SHOWN} more (the CSV file contains all)
              </li>
            )}
          </ul>
        </details>
      ))}
    </section>
  );
}

function Row({
  one,
  definition,
  broken,
  chosen,
  onChoose,
}: {
  one: ListedExpectation;
  definition: Definition;
  broken: boolean;
  chosen: boolean;
  onChoose: () => void;
}) {
  const element = compile(definition).tree.get(one.element);
  return (
    <button
      type="button"
      aria-pressed={chosen}
      className="grid w-full grid-cols-[20px_minmax(0,1fr)_150px_130px] items-baseline gap-2 border-b border-rule px-3 py-1 text-left hover:bg-plate aria-pressed:bg-open-soft"
      onClick={onChoose}
    >
      {broken ? (
        <X size={14} className="self-center text-amber" aria-label="Broken" />
      ) : (
        <Check size={14} className="self-center text-open" aria-label="Met" />
      )}
      <span className="min-w-0">
        <span className="font-medium">{element?.name ?? `${one.element} (deleted)`}</span>{' '}
        <span className="text-[13px] text-quiet">{element && placeInWords(element)}</span>
      </span>
      <span className="truncate" title={one.viewerName}>
        {one.viewerName ?? 'a deleted viewer'}
      </span>
      <span className={broken ? 'text-amber' : ''}>
        {element ? answerInWords(element.kind, one.expect) : ''}
      </span>
    </button>
  );
}

function countInWords(of: readonly ListedExpectation[], broken: ReadonlySet<string>): string {
  const not = of.filter(({ id }) => broken.has(id)).length;
  const all = counted(of.length, 'expectation');
  return not === 0 ? all : `${all}, ${not} broken`;
}

/** By what they protect. */
function groupsOf(
  all: readonly ListedExpectation[],
): { readonly name: string; readonly of: readonly ListedExpectation[] }[] {
  const groups = new Map<string, ListedExpectation[]>();
  for (const one of all) {
    const group = groups.get(one.name);
    if (group) group.push(one);
    else groups.set(one.name, [one]);
  }
  return [...groups].map(([name, of]) => ({ name, of }));
}

/** Whether a release may break one: owners say so. */
function MayBreak() {
  const { owns } = useStudio();
  const { settings, set } = useProofSettings();
  return (
    <Checkbox
      className="border-b border-rule px-3 py-1 text-[13px]"
      disabled={!owns || !settings}
      checked={settings?.mayBreak ?? false}
      onTurn={(on) => void set({ mayBreak: on })}
    >
      Allow a release to break an expectation if the releaser gives a reason; otherwise the release is refused
    </Checkbox>
  );
}

/** Keeps all that one viewer has now. */
function KeepAll({ definition }: { definition: Definition }) {
  const [viewer, setViewer] = useState('');
  const [open, setOpen] = useState(false);
  const kinds = kindsOf(definition);
  const name = kinds.find(({ key }) => key === viewer)?.name ?? '';
  return (
    <>
      <label className="flex items-center gap-2 text-[13px]">
        Everything
        <Select
          aria-label="Viewer whose current access is expected"
          className="w-44"
          value={viewer}
          onChoose={setViewer}
          none="Choose a viewer"
          options={kinds.map((one) => ({ id: one.key, name: one.name }))}
        />
        can access now
      </label>
      <button type="button" className="button" disabled={viewer === ''} onClick={() => setOpen(true)}>
        Add expectations…
      </button>
      {open && (
        <ExpectWindow
          name={`All that ${name} has`}
          of={compile(definition).tree.elements.map(({ id }) => ({ viewer, element: id }))}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}

/** Adds those of a file: all, or none. */
function FromCsv() {
  const { app } = useStudio();
  const tell = useTell();
  const [problem, setProblem] = useState('');
  const input = useRef<HTMLInputElement>(null);
  const read = async (file: File): Promise<void> => {
    setProblem('');
    const answer = await send(importExpectations, { app, body: file });
    if (!answer.ok) return setProblem(answer.detail);
    const { added } = answer.value;
    if (added === 0) tell('Nothing is new: all of that is expected already.');
    else tell(`Added ${counted(added, 'expectation')}.`);
  };
  return (
    <>
      <button type="button" className="link" onClick={() => input.current?.click()}>
        Import CSV…
      </button>
      <input
        ref={input}
        type="file"
        accept=".csv,text/csv"
        aria-label="CSV file with expectations"
        className="hidden"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) void read(file);
          event.target.value = '';
        }}
      />
      {problem && (
        <p role="alert" className="w-full border-l-4 border-ink bg-sheet px-3 py-1">
          {problem}
        </p>
      )}
    </>
  );
}
