'use client';

import { useState } from 'react';
import type { Answer } from '@/core/access';
import { answerInWords, counted } from '@/core/edit';
import { useBench } from '../../frame/bench';
import { LevelMark } from '../../shared/level-mark';

/** More names than this are folded: at sixty roles they would push all else out of sight. */
const FOLDED_AT = 12;

/** What comes of all gates and doors together for the selected element, in words. */
export function SoNow() {
  const { viewers, accessFor, amongOf, numbers, people, selected } = useBench();
  const groups = new Map<string, { answer: Answer; names: string[] }>();
  for (const viewer of viewers) {
    const answer = accessFor(viewer).answer(selected);
    const word = answerInWords(selected.kind, answer);
    const group = groups.get(word) ?? { answer, names: [] };
    const among = amongOf(viewer, selected);
    group.names.push(among ? `${viewer.name} (${among})` : viewer.name);
    groups.set(word, group);
  }
  const rank = ({ least, most }: Answer): number => most * 3 + least;
  const sorted = [...groups].sort(([, a], [, b]) => rank(b.answer) - rank(a.answer));
  const all = numbers.among('signed-in', selected) ?? { edit: 0, see: 0, of: 0 };
  return (
    <div className="mb-4" aria-live="polite">
      <div className="mb-1 flex justify-between">
        <h3 className="font-semibold">Result</h3>
        <span className="text-quiet">
          {all.edit + all.see} of {all.of} people have access
        </span>
      </div>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
        {sorted.map(([word, { answer, names }]) => (
          <div key={word} className="contents">
            <dt className="flex items-center gap-1.5 self-start">
              <LevelMark answer={answer} />
              {word}
            </dt>
            <dd>
              <Names key={selected.id} names={names} />
            </dd>
          </div>
        ))}
      </dl>
      {people.waiting > 0 && (
        <p className="mt-1 text-quiet">
          {counted(people.waiting, 'person has', 'people have')} not activated their account yet and will be
          counted when they do.
        </p>
      )}
    </div>
  );
}

function Names({ names }: { names: readonly string[] }) {
  const [open, setOpen] = useState(false);
  if (open || names.length <= FOLDED_AT) return names.join(', ');
  const first = names.slice(0, FOLDED_AT - 2);
  return (
    <>
      {first.join(', ')}{' '}
      <button type="button" className="link" onClick={() => setOpen(true)}>
        and {names.length - first.length} more
      </button>
    </>
  );
}
