'use client';

import Link from 'next/link';
import { compile } from '@/core';
import { answerInWords, fullName } from '@/core/edit';
import type { Breaking } from '@/contract/studio/releasing';
import { useDraft, useStudio } from '../shell/studio-work';

const MOST = 12;

/** What is expected and would not hold with this release. */
export function BrokenByIt({ breaking: { mayBreak, broken } }: { breaking: Breaking }) {
  const { app } = useStudio();
  const { definition } = useDraft();
  const { tree } = compile(definition);
  return (
    <section aria-labelledby="broken" className="mt-4 border-l-4 border-amber bg-paper px-4 py-3">
      <h2 id="broken" className="font-semibold">
        {broken.length === 1 ? 'Breaks an expectation' : `Breaks ${broken.length} expectations`}
      </h2>
      <p className="text-quiet">
        {mayBreak
          ? 'Change the draft or the expectations, or give a reason when you release.'
          : 'The draft cannot be released like this. Change the draft or the expectations.'}{' '}
        <Link className="link" href={`/studio/${app}/prove?part=expected`}>
          Show expectations
        </Link>
      </p>
      <ul className="mt-1 grid gap-1">
        {broken.slice(0, MOST).map(({ id, name, viewerName, element, expect }) => {
          const found = tree.get(element);
          return (
            <li key={id}>
              <strong className="font-medium">{name}</strong>: {viewerName ?? 'a deleted viewer'} should have{' '}
              {found
                ? `“${answerInWords(found.kind, expect)}” on ${fullName(found)}`
                : `access to ${element}, which has been deleted`}
              .
            </li>
          );
        })}
        {broken.length > MOST && <li className="text-quiet">and {broken.length - MOST} more</li>}
      </ul>
    </section>
  );
}
