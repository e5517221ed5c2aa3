'use client';

import { X } from 'lucide-react';
import { Fragment, useEffect, useRef, useState, type RefObject } from 'react';
import { idInKey } from '@/core/access';
import { amongInShort, answerInWords } from '@/core/edit';
import { useBench, type RailViewer } from './bench';
import { LevelMark } from '../shared/level-mark';
import { PersonPicker } from '../shared/person-picker';

/** A tile is at least so wide, with its gap, in pixels. */
const TILE = 91;
/** A few more than fit are scrolled to; so many times what fits is folded. */
const FOLDED_AT = 1.5;

/** The viewers along the bottom: walk them, and each says what they get of the selected element. */
export function Rail({ sets = false }: { sets?: boolean }) {
  const { viewers, viewer, pin } = useBench();
  const row = useRef<HTMLDivElement>(null);
  const folded = viewers.length * TILE > FOLDED_AT * useWidth(row);
  const pins = viewers.flatMap(({ key }) => idInKey('person', key) ?? []);
  return (
    <section
      aria-label="Viewers"
      data-region="viewers"
      tabIndex={-1}
      className="on-lead col-span-3 flex min-w-0 items-stretch gap-2 bg-lead px-3 py-2 text-white"
    >
      <div className="w-[74px] shrink-0 self-center">
        <div className="font-semibold">View as</div>
        <div className="text-[12px] text-lead-text">← → to switch</div>
        {sets && <div className="text-[12px] text-lead-text">0 1 2 to set the level</div>}
      </div>
      <div
        ref={row}
        role="radiogroup"
        aria-label="View as"
        className={`min-w-0 flex-1 overflow-x-auto px-1 ${folded ? 'grid auto-cols-[152px] grid-flow-col grid-rows-[repeat(3,24px)] gap-x-1.5 gap-y-1' : 'flex items-stretch py-1'}`}
      >
        {viewers.map((one, n) => (
          <Fragment key={one.key}>
            {n > 0 && !folded && <Gap joined={one.joined} apart={one.group !== viewers[n - 1]?.group} />}
            <Tile
              tile={one}
              current={one.key === viewer.key}
              folded={folded}
              {...(one.group === 'person' && {
                onUnpin: () => pin(pins.filter((id) => id !== idInKey('person', one.key))),
              })}
            />
          </Fragment>
        ))}
      </div>
      <PersonPicker except={pins} onPick={(id) => pin([...pins, id])} label="Pin a person…" />
    </section>
  );
}

/** How wide it is now, in pixels. */
function useWidth(ref: RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(Infinity);
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setWidth(entry?.contentRect.width ?? Infinity));
    if (ref.current) observer.observe(ref.current);
    return () => observer.disconnect();
  }, [ref]);
  return width;
}

function Gap({ joined, apart }: { joined: boolean; apart: boolean }) {
  if (apart) return <span className="mx-1 w-px shrink-0 bg-edge" aria-hidden />;
  return (
    <span className="flex w-1.5 shrink-0 items-center" aria-hidden>
      {joined && <span className="h-0.5 w-full bg-edge" />}
    </span>
  );
}

interface TileProps {
  readonly tile: RailViewer;
  readonly current: boolean;
  /** On one line, where there are more than fit: the rest is told on hover. */
  readonly folded: boolean;
  readonly onUnpin?: () => void;
}

function Tile({ tile, current, folded, onUnpin }: TileProps) {
  const { selected, accessFor, amongOf, numbers, look } = useBench();
  const ref = useRef<HTMLButtonElement>(null);
  const answer = accessFor(tile).answer(selected);
  const word = answerInWords(selected.kind, answer);
  const among = amongOf(tile, selected);
  const short = numbers.among(tile.key, selected);
  useEffect(() => {
    if (!current) return;
    ref.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
    // Walking the rail by its keys moves its focus along.
    if (document.activeElement?.getAttribute('role') === 'radio') ref.current?.focus();
  }, [current]);
  return (
    <div className={folded ? 'relative min-w-0' : 'relative max-w-[180px] min-w-[84px] flex-1'}>
      <button
        ref={ref}
        type="button"
        role="radio"
        aria-checked={current}
        tabIndex={current ? 0 : -1}
        onClick={() => look(tile.key)}
        aria-label={folded ? `${tile.name}, ${among ?? tile.note}, ${word}` : undefined}
        title={`${tile.name}: ${word}${among ? `, ${among} people` : ''}`}
        className={`h-full w-full flex rounded-sm px-1 text-left text-[13px] ${folded ? 'items-center gap-1.5' : 'flex-col py-1'} ${current ? 'bg-white text-ink [--level-line:var(--color-edge)] [--level-open:var(--color-open)]' : 'bg-lead-2 hover:bg-lead-3'}`}
      >
        {folded ? (
          <>
            <LevelMark answer={answer} />
            <span className="truncate text-[12px] font-medium">{tile.short}</span>
          </>
        ) : (
          <>
            <span className="line-clamp-2 min-h-[2.3em] text-[12px] leading-[1.15] font-medium wrap-anywhere">
              {tile.short}
            </span>
            <span className={`block truncate text-[12px] ${current ? 'text-quiet' : 'text-lead-text'}`}>
              {(among && short && amongInShort(selected.kind, short)) ?? tile.note}
            </span>
            <span className="mt-0.5 flex items-center gap-1">
              <LevelMark answer={answer} />
              {word}
            </span>
          </>
        )}
      </button>
      {onUnpin && (
        <button
          type="button"
          aria-label={`Unpin ${tile.name}`}
          onClick={onUnpin}
          className={`absolute right-0.5 bottom-1 p-0.5 ${current ? 'text-quiet hover:text-ink' : 'text-lead-text hover:text-white'}`}
        >
          <X size={13} aria-hidden />
        </button>
      )}
    </div>
  );
}
