'use client';

import { X } from 'lucide-react';
import { Fragment, useEffect, useRef } from 'react';
import { answerInWords } from '@/core/edit/words';
import { useBench, type RailViewer } from './bench';
import { LevelMark } from './level-mark';
import { PersonPicker } from './person-picker';

/** The viewers along the bottom: walk them, and each says what they get of the selected element. */
export function Rail() {
  const { viewers, viewer, pin, people } = useBench();
  const pins = viewers.filter((one) => one.group === 'person').map((one) => one.key.slice('person:'.length));
  return (
    <section
      aria-label="Viewers"
      className="on-lead col-span-3 flex min-w-0 items-stretch gap-2 bg-lead px-3 py-2 text-white"
    >
      <div className="w-[74px] shrink-0 self-center">
        <div className="font-semibold">Look as</div>
        <div className="text-[12px] text-lead-text">← → to walk</div>
        <div className="text-[12px] text-lead-text">0 1 2 to set</div>
      </div>
      <div
        role="radiogroup"
        aria-label="Look as"
        className="flex min-w-0 flex-1 items-stretch overflow-x-auto px-1 py-1"
      >
        {viewers.map((one, n) => (
          <Fragment key={one.key}>
            {n > 0 && <Gap joined={one.joined} apart={one.group !== viewers[n - 1]?.group} />}
            <Tile
              tile={one}
              current={one.key === viewer.key}
              {...(one.group === 'person' && {
                onUnpin: () => pin(pins.filter((id) => `person:${id}` !== one.key)),
              })}
            />
          </Fragment>
        ))}
      </div>
      <PersonPicker
        people={people.filter((one) => !pins.includes(one.id))}
        onPick={(id) => pin([...pins, id])}
        label="Pin a person"
      />
    </section>
  );
}

function Gap({ joined, apart }: { joined: boolean; apart: boolean }) {
  if (apart) return <span className="mx-1 w-px shrink-0 bg-edge" aria-hidden />;
  return (
    <span className="flex w-1.5 shrink-0 items-center" aria-hidden>
      {joined && <span className="h-0.5 w-full bg-edge" />}
    </span>
  );
}

function Tile({ tile, current, onUnpin }: { tile: RailViewer; current: boolean; onUnpin?: () => void }) {
  const { selected, accessOf, look } = useBench();
  const ref = useRef<HTMLButtonElement>(null);
  const answer = accessOf(tile).answer(selected);
  const word = answerInWords(selected.kind, answer);
  useEffect(() => {
    if (!current) return;
    ref.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
    // Walking the rail by its keys moves its focus along.
    if (document.activeElement?.getAttribute('role') === 'radio') ref.current?.focus();
  }, [current]);
  return (
    <div className="relative min-w-[76px] flex-1">
      <button
        ref={ref}
        type="button"
        role="radio"
        aria-checked={current}
        tabIndex={current ? 0 : -1}
        onClick={() => look(tile.key)}
        title={`${tile.name}: ${word}`}
        className={`h-full w-full flex flex-col rounded-sm px-1 py-1 text-left text-[13px] ${current ? 'bg-white text-ink [--level-line:var(--color-edge)] [--level-open:var(--color-open)]' : 'bg-lead-2 hover:bg-lead-3'}`}
      >
        <span className="line-clamp-2 min-h-[2.3em] text-[12px] leading-[1.15] font-medium wrap-anywhere">
          {tile.name}
        </span>
        <span className={`block truncate text-[12px] ${current ? 'text-quiet' : 'text-lead-text'}`}>
          {tile.note}
        </span>
        <span className="mt-0.5 flex items-center gap-1">
          <LevelMark answer={answer} />
          {word}
        </span>
      </button>
      {onUnpin && (
        <button
          type="button"
          aria-label={`Take ${tile.name} off the rail`}
          onClick={onUnpin}
          className={`absolute right-0.5 bottom-1 p-0.5 ${current ? 'text-quiet hover:text-ink' : 'text-lead-text hover:text-white'}`}
        >
          <X size={13} aria-hidden />
        </button>
      )}
    </div>
  );
}
