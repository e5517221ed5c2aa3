'use client';

import { accessOf, compile } from '@/core';
import { sameAnswer } from '@/core/access';
import { answerInWords } from '@/core/edit';
import { type AppElement } from '@/core/model';
import { useMemo } from 'react';
import { useBench } from '../frame/bench';
import { ReachStrip } from '../shared/level-mark';

export function DoorRow({ door, children }: { door: AppElement; children?: React.ReactNode }) {
  const { compiled, viewers, accessFor, selected, select } = useBench();
  const answers = viewers.map((viewer) => accessFor(viewer).answer(door));
  const reach = viewers
    .map((viewer, n) => `${viewer.name}: ${answerInWords(door.kind, answers[n] ?? { least: 0, most: 0 })}`)
    .join(', ');
  const own = compiled.lines(door.id) !== undefined;
  return (
    <tr
      className={`cursor-pointer border-b border-sheet align-top ${door === selected ? 'bg-open-soft' : 'hover:bg-plate'}`}
      onClick={() => select(door.id)}
    >
      <td className="px-2 py-1.5">
        <button type="button" className="link" onClick={() => select(door.id)}>
          {door.kind === 'rows' ? 'Which records are open' : door.name}
        </button>
        <div onClick={(event) => event.stopPropagation()}>{children}</div>
      </td>
      <td className="px-2 py-2">
        <ReachStrip answers={answers} label={reach} />
      </td>
      <td className="px-2 py-1.5">{own ? <Compared door={door} /> : <Follows door={door} />}</td>
    </tr>
  );
}

function Follows({ door }: { door: AppElement }) {
  const { compiled } = useBench();
  if (door.kind === 'data-field' && door.node.neverFollows)
    return <>Closed: this field never follows the screens and has no lines.</>;
  const handles = compiled.handles.handlesOf(door).length;
  return (
    <>
      {handles === 0
        ? 'Closed: it follows the screens, and no screen shows it.'
        : `Follows the screens: ${handles}.`}
    </>
  );
}

/** For a door with lines of its own: for whom the screens would show more than it gives, or show less. */
function Compared({ door }: { door: AppElement }) {
  const { definition, viewers, accessFor, circumstances } = useBench();
  const { more, less } = useMemo(() => {
    const gates = Object.fromEntries(Object.entries(definition.gates).filter(([id]) => id !== door.id));
    const following = compile({ ...definition, gates });
    const found: { more: string[]; less: string[] } = { more: [], less: [] };
    for (const viewer of viewers) {
      const now = accessFor(viewer).answer(door);
      const access = accessOf(following, viewer.viewer, circumstances);
      const shown = access.answer(access.element(door.id));
      if (sameAnswer(now, shown)) continue;
      (shown.most > now.most || shown.least > now.least ? found.more : found.less).push(viewer.name);
    }
    return found;
  }, [definition, viewers, accessFor, circumstances, door]);
  return (
    <>
      <span className="font-medium">Has its own lines.</span>{' '}
      {more.length > 0 && <>Gives less access than the screens to {more.join(', ')}. </>}
      {less.length > 0 && <>Gives more access than the screens to {less.join(', ')}. </>}
      {more.length + less.length === 0 && 'Gives the same access as the screens.'}
    </>
  );
}
