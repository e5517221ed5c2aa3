'use client';

import { accessOf, compile } from '@/core';
import { NONE, rightNow } from '@/core/access';
import { counted } from '@/core/edit';
import type { RailViewer } from '../frame/bench';
import { PersonPicker } from '../shared/person-picker';
import { Fragment, useMemo } from 'react';
import { useLook } from './context';
import { Checkbox } from '@/ui/parts/checkbox';

interface Props {
  readonly viewers: readonly RailViewer[];
  /** The panes' viewers, by key. */
  readonly looking: readonly string[];
  readonly active: number;
  readonly walking: boolean;
  readonly onWalking: (walking: boolean) => void;
  /** Puts a viewer into a pane. */
  readonly onPut: (key: string, pane: number) => void;
  readonly pins: readonly string[];
  readonly onPin: (id: string) => void;
}

/** The viewers along the bottom: a click, or a letter, puts one into a pane. Each says how much opens for it. */
export function LookRail({ viewers, looking, active, walking, onWalking, onPut, pins, onPin }: Props) {
  const { draft } = useLook();
  const compiled = compile(draft.definition);
  const screens = useMemo(() => {
    const all = compiled.tree.elements.filter((one) => one.kind === 'screen');
    const at = rightNow();
    return new Map(
      viewers.map(({ key, viewer }) => {
        const access = accessOf(compiled, viewer, at);
        return [key, all.filter((one) => access.answer(one).most > NONE).length] as const;
      }),
    );
  }, [compiled, viewers]);
  return (
    <section
      aria-label="Viewers"
      data-region="viewers"
      tabIndex={-1}
      className="on-lead col-span-2 flex min-w-0 items-stretch gap-2 bg-lead px-3 py-2 text-white"
    >
      <div className="w-[98px] shrink-0 self-center">
        <div className="font-semibold">View as</div>
        <div className="text-[12px] text-lead-text">click, or press a letter to choose the pane</div>
        <Checkbox className="text-[12px]" checked={walking} onTurn={onWalking}>
          Move together
        </Checkbox>
      </div>
      <div className="flex min-w-0 flex-1 items-stretch overflow-x-auto px-1 py-1">
        {viewers.map((one, n) => {
          const letters = looking.flatMap((key, pane) => (key === one.key ? [letterOf(pane)] : []));
          const count = screens.get(one.key) ?? 0;
          return (
            <Fragment key={one.key}>
              {n > 0 && one.group !== viewers[n - 1]?.group && (
                <span className="mx-1 w-px shrink-0 bg-edge" aria-hidden />
              )}
              {n > 0 && one.group === viewers[n - 1]?.group && <Gap joined={one.joined} />}
              <button
                type="button"
                title={one.name}
                onClick={() => onPut(one.key, active)}
                onKeyDown={(event) => {
                  const pane = 'abcd'.indexOf(event.key.toLowerCase());
                  if (pane < 0 || pane > looking.length || event.ctrlKey || event.metaKey) return;
                  event.preventDefault();
                  onPut(one.key, pane);
                }}
                aria-label={`${one.name}, ${counted(count, 'screen opens', 'screens open')}${letters.length > 0 ? `, in pane ${letters.join(' and ')}` : ''}`}
                className={`relative flex max-w-[180px] min-w-[84px] flex-1 flex-col rounded-sm px-1 py-1 text-left text-[13px] ${letters.length > 0 ? 'bg-white text-ink' : 'bg-lead-2 hover:bg-lead-3'}`}
              >
                <span className="line-clamp-2 min-h-[2.3em] text-[12px] wrap-anywhere leading-[1.15] font-medium">
                  {one.short}
                </span>
                <span
                  className={`block truncate text-[12px] ${letters.length > 0 ? 'pr-5 text-quiet' : 'text-lead-text'}`}
                >
                  {one.note}
                </span>
                <span className="mt-0.5">{counted(count, 'screen')}</span>
                {letters.length > 0 && (
                  <span
                    aria-hidden
                    className="absolute top-[34px] right-1 rounded-sm bg-ink px-1 text-[11px] font-semibold text-white"
                  >
                    {letters.join('')}
                  </span>
                )}
              </button>
            </Fragment>
          );
        })}
      </div>
      <PersonPicker except={pins} onPick={onPin} label="Pin a person…" />
    </section>
  );
}

/** Roles are joined where one includes the one before. */
function Gap({ joined }: { joined: boolean }) {
  return (
    <span className="flex w-1.5 shrink-0 items-center" aria-hidden>
      {joined && <span className="h-0.5 w-full bg-edge" />}
    </span>
  );
}

export const letterOf = (pane: number): string => 'ABCD'[pane] ?? '';
