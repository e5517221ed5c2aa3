'use client';

import { useState } from 'react';
import type { Answer } from '@/core/access';
import { answerInWords } from '@/core/edit';
import type { Definition, ElementKind } from '@/core/model';
import { useAsked } from '../../parts/queries';
import { useDraft, useStudio } from '../shell/studio-work';
import { LevelMark } from '../shared/level-mark';
import type { ListedSignOff } from './signed-part';
import { whenInWords } from './since-in-words';

interface ComparedCell {
  readonly viewer: string;
  readonly viewerName: string;
  readonly element: string;
  readonly elementName: string;
  readonly kind: ElementKind;
  readonly before: Answer;
  readonly after: Answer;
  readonly gains: boolean;
  readonly by?:
    | { readonly revision: number; readonly author: string; readonly at: string; readonly says: string }
    | { readonly person: true };
}

interface Compared {
  readonly cells: readonly ComparedCell[];
  readonly gained: number;
  readonly lost: number;
}

/** How what differs is put together: under the edit that did it, who has it, or what it is. */
type Grouping = 'change' | 'viewer' | 'element';

const MOST_GROUPS = 60;
const MOST_IN_GROUP = 40;

/** What was signed off, and what differs from it: who gained and who lost what, and by which edit. */
export function SignedDetail({
  all,
  chosen,
}: {
  all: readonly ListedSignOff[];
  chosen: ListedSignOff | undefined;
}) {
  const { slug, api } = useStudio();
  const { definition, revision } = useDraft();
  const [other, setOther] = useState('');
  const [by, setBy] = useState<Grouping>('change');
  const query = other === '' ? '' : `?with=${other}`;
  const { data, error } = useAsked<Compared>(chosen && `${api}/sign-offs/${chosen.id}/compared${query}`, {
    version: revision,
  });
  if (!chosen)
    return (
      <p className="text-quiet">
        What is signed off is kept as it was, people’s roles included. Later it is asked what differs, and who
        did it.
      </p>
    );
  return (
    <>
      <h2 className="text-[16px] font-semibold">{chosen.title}</h2>
      <p className="text-[13px] text-quiet">
        Signed off by {chosen.by}, {whenInWords(definition, chosen.at)},{' '}
        {chosen.release === null ? `revision ${chosen.revision}` : `release ${chosen.release}`}
      </p>
      <p className="mt-1 font-mono text-[11px] break-all text-quiet" title="SHA-256 of its file">
        {chosen.sha256}
      </p>
      <p className="mt-1 flex gap-3 text-[13px]">
        <a
          className="link"
          href={`/studio/${slug}/prove/${chosen.id}/print`}
          target="_blank"
          rel="noreferrer"
        >
          Print
        </a>
        <a className="link" href={`${api}/sign-offs/${chosen.id}`}>
          As a file
        </a>
      </p>
      <div className="mt-3 flex flex-wrap items-center gap-2 border-t border-rule pt-3 text-[13px]">
        Against
        <select
          aria-label="Compared with"
          className="field-box w-40"
          value={other}
          onChange={(event) => setOther(event.target.value)}
        >
          <option value="">now</option>
          {all
            .filter(({ id }) => id !== chosen.id)
            .map(({ id, title }) => (
              <option key={id} value={id}>
                {title}
              </option>
            ))}
        </select>
        <select
          aria-label="Grouped by"
          className="field-box w-32"
          value={by}
          onChange={(event) => setBy(event.target.value as Grouping)}
        >
          <option value="change">by change</option>
          <option value="viewer">by viewer</option>
          <option value="element">by element</option>
        </select>
      </div>
      {error && <p role="alert">{error.message}</p>}
      {!data && !error && <p className="mt-2 text-quiet">Comparing …</p>}
      {data && <Differences data={data} by={by} definition={definition} />}
    </>
  );
}

function Differences({
  data: { cells, gained, lost },
  by,
  definition,
}: {
  data: Compared;
  by: Grouping;
  definition: Definition;
}) {
  if (cells.length === 0) return <p className="mt-2">Nothing differs.</p>;
  const groups = new Map<string, ComparedCell[]>();
  for (const cell of cells) {
    const name =
      by === 'change' ? headingOf(definition, cell.by) : by === 'viewer' ? cell.viewerName : cell.elementName;
    const group = groups.get(name);
    if (group) group.push(cell);
    else groups.set(name, [cell]);
  }
  const all = [...groups];
  return (
    <div aria-label="Differences" role="region" className="mt-2">
      <p className="font-semibold">
        {gained} gained, {lost} lost
      </p>
      {all.slice(0, MOST_GROUPS).map(([name, of]) => (
        <details key={name} className="border-t border-sheet py-1" open={all.length <= 4}>
          <summary>
            {name} <span className="text-[13px] text-quiet">{of.length}</span>
          </summary>
          <ul className="text-[13px]">
            {of.slice(0, MOST_IN_GROUP).map((cell) => (
              <li key={`${cell.viewer} ${cell.element}`} className="mt-1">
                <span className="font-medium">{cell.gains ? 'Gained' : 'Lost'}:</span>{' '}
                {by === 'change'
                  ? `${cell.viewerName}, ${cell.elementName}`
                  : by === 'viewer'
                    ? cell.elementName
                    : cell.viewerName}
                <span className="flex items-center gap-1">
                  <LevelMark answer={cell.before} /> {answerInWords(cell.kind, cell.before)} →{' '}
                  <LevelMark answer={cell.after} /> {answerInWords(cell.kind, cell.after)}
                </span>
                {by !== 'change' && (
                  <span className="block text-quiet">{causeInWords(definition, cell.by)}</span>
                )}
              </li>
            ))}
            {of.length > MOST_IN_GROUP && (
              <li className="text-quiet">and {of.length - MOST_IN_GROUP} more</li>
            )}
          </ul>
        </details>
      ))}
      {all.length > MOST_GROUPS && <p className="text-quiet">and {all.length - MOST_GROUPS} more</p>}
    </div>
  );
}

/** "Tamsin Reed, 4 Mar 2026, 10:12: Loan. It got a line: Volunteer: see." */
function headingOf(definition: Definition, by: ComparedCell['by']): string {
  if (!by) return 'By changes that cannot be told any more';
  if ('person' in by) return 'By changes of people’s roles, or of what is known of them';
  return `${by.author}, ${whenInWords(definition, by.at)}: ${by.says}`;
}

function causeInWords(definition: Definition, by: ComparedCell['by']): string {
  if (!by) return 'by a change that cannot be told any more';
  if ('person' in by) return 'by a change of this person’s roles or of what is known of them';
  return `by the edit of ${by.author}, ${whenInWords(definition, by.at)} (revision ${by.revision})`;
}
