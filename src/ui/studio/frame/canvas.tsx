'use client';

import { send } from '@/ui/client/send';
import { lookBeforeSaving, lookRecords } from '@/contract/studio/look';
import { useLatest } from '../../parts/use-latest';
import { useStateFor } from '../../parts/use-state-for';
import { ArrowLeft } from 'lucide-react';
import {
  useEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type MouseEvent,
  type ReactNode,
} from 'react';
import { readAddress } from '@/core';
import type { AppElement, Screen } from '@/core/model';
import { HostProvider, RecordsClient, timesOf, type Host } from '../../live/host';
import { useTell } from '../../parts/toasts';
import { useBench } from './bench';
import { NoSample } from './no-sample';
import { LevelMark } from '../shared/level-mark';
import { AddressLine } from './address-line';
import { DrawnLook } from './drawn-look';
import { useMark, useReachable } from './mark';
import { RecordChoice } from './record-choice';
import { useLookPage } from './use-look-page';
import { OverrideNote } from '../shared/condition-overrides';
import { Toggle } from '../shared/toggle';
import { answerInWords } from '@/core/edit';

interface Props {
  /** `/studio/api/applications/<app>`. */
  readonly app: string;
  readonly revision: number;
  readonly address: string;
  readonly onAddress: (address: string) => void;
  /** What lies over the screen while clicks select. */
  readonly over?: (on: OverCanvas) => ReactNode;
}

/** What lies over the canvas is told: what it lies on, which screen that is, and when it is drawn anew. */
interface OverCanvas {
  readonly content: HTMLElement;
  readonly screen: Screen;
  readonly drawn: unknown;
}

/**
 * The real screen, drawn by the same code as a release from what the server sends for this viewer. Clicks
 * select; with the switch on, or Alt held, they work as in the application.
 */
export function Canvas({ app, revision, address, onAddress, over }: Props) {
  const { compiled, viewer, selected, select, accessFor, definition, taken, take, personName } = useBench();
  const { language, timeZone } = definition;
  const [query, setQuery] = useStateFor(address, '');
  const [ghosts, setGhosts] = useState(true);
  const [works, setWorks] = useState(false);
  const [altHeld, setAltHeld] = useState(false);
  const [turn, setTurn] = useState(0);
  const [history, setHistory] = useState<readonly string[]>([]);
  const tell = useTell();
  const frame = useRef<HTMLDivElement>(null);
  const [content, setContent] = useState<HTMLDivElement | null>(null);
  const looks = new URLSearchParams({
    viewer: viewer.key,
    ...(Object.keys(taken).length > 0 && { taken: JSON.stringify(taken) }),
  }).toString();
  const face = over && faceOf(selected);
  const faced = face === undefined ? query : `${query}&face=${face}`;
  const { page, loading, problem } = useLookPage(app, `${looks}&${faced}`, address, `${revision} ${turn}`);

  useAltKey(setAltHeld);
  const drawn = useMemo(() => ({ page, ghosts }), [page, ghosts]);
  useMark(frame, selected.id, drawn);
  useReachable(frame, drawn);

  const go = (to: string, listQuery = ''): void => {
    if (to !== address) {
      setHistory((now) => [...now, address]);
      onAddress(to);
    } else setQuery(listQuery);
  };
  const newest = useLatest(go);
  const host = useMemo((): Host => {
    const kept = 'The server would accept this change. Changes made on the canvas are not saved.';
    return {
      go: (to, listQuery) => newest.current(to, listQuery),
      hrefOf: () => undefined,
      records: new RecordsClient(lookRecords, app, looks),
      press: () =>
        Promise.resolve({
          ok: false,
          fields: {},
          detail: 'In the released application, this sets a session value.',
        }),
      beforeSaving: (body) => send(lookBeforeSaving, { app, query: looks, body }),
      exportHref: () => undefined,
      choices: undefined,
      bulk: () =>
        Promise.resolve({
          ok: false,
          fields: {},
          detail: 'In the released application, this changes the selected records.',
        }),
      unlock: undefined,
      note: undefined,
      people: undefined,
      refresh: () => setTurn((now) => now + 1),
      signOut: () => tell('In the released application, this signs the person out.'),
      tell,
      said: { saved: kept, added: kept, sent: kept, deleted: kept, done: kept },
      ...timesOf(language, timeZone),
      keeps: false,
    };
  }, [app, looks, tell, language, timeZone, newest]);

  const onCanvas = readAddress(compiled.tree, address)?.screen;
  // What is selected stands on a screen that shows a record, and there is none to show.
  const { screen } = selected;
  const lacks = screen?.binds?.record === 'existing' && address === screen.address;
  const bare = lacks ? compiled.tree.entityOf(screen.binds?.entity ?? '') : undefined;
  const working = works || altHeld;
  const pick = (event: MouseEvent | KeyboardEvent): void => {
    if (working || isOver(event)) return;
    const target = event.target instanceof Element ? event.target.closest('[data-element]') : null;
    event.preventDefault();
    event.stopPropagation();
    const id = target?.getAttribute('data-element');
    if (id && event.type !== 'mousedown') select(id);
    if (event.type === 'click') frame.current?.focus({ preventScroll: true });
  };
  const keepKeys = (event: KeyboardEvent): void => {
    // While clicks select, typing must not change what is in the fields, and Enter selects. Tab only goes there.
    if (working || event.target === frame.current || event.key === 'Tab' || isOver(event)) return;
    if (event.key === 'Enter' || event.key === ' ') pick(event);
    else if (!/^F\d/.test(event.key)) event.preventDefault();
  };
  return (
    <section
      aria-label="Canvas"
      data-region="canvas"
      tabIndex={-1}
      className="flex min-h-0 min-w-0 flex-col bg-sheet p-3"
    >
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="flex items-center gap-1.5">
          <LevelMark
            answer={accessFor(viewer).answer(selected)}
            label={answerInWords(selected.kind, accessFor(viewer).answer(selected))}
          />
          As <strong className="font-semibold">{viewer.name}</strong>
        </span>
        <RecordChoice
          app={app}
          compiled={compiled}
          address={address}
          records="sample"
          onAddress={(to) => go(to)}
        />
        <span className="ml-auto flex items-center gap-4">
          <Toggle
            label="Show hidden"
            hint="Show hidden elements as dashed outlines"
            on={ghosts}
            onChange={setGhosts}
          />
          <Toggle
            label="Interactive"
            hint="Clicks use the screen as in the application instead of selecting elements (or hold Alt)"
            on={works}
            onChange={setWorks}
          />
        </span>
      </div>
      <div className="flex min-h-0 flex-1 flex-col border border-edge bg-paper">
        <div className="flex items-center gap-2 border-b border-rule bg-plate px-2 py-1">
          <button
            type="button"
            aria-label="Back to the previous screen"
            disabled={history.length === 0}
            className="rounded-sm p-1 hover:bg-sheet disabled:text-edge"
            onClick={() => {
              const back = history.at(-1);
              setHistory((now) => now.slice(0, -1));
              if (back !== undefined) onAddress(back);
            }}
          >
            <ArrowLeft size={15} aria-hidden />
          </button>
          <AddressLine address={address} onGo={go} />
          <span className="text-[12px] text-quiet" role="status">
            {problem || (loading ? 'Loading…' : 'sample records')}
          </span>
        </div>
        <OverrideNote definition={definition} taken={taken} personName={personName} onEnd={() => take({})} />
        <div
          ref={frame}
          id="canvas-frame"
          tabIndex={0}
          aria-label={`The screen as ${viewer.name} sees it`}
          role="group"
          aria-busy={loading}
          onClickCapture={pick}
          onMouseDownCapture={pick}
          onKeyDownCapture={keepKeys}
          className={`min-h-0 flex-1 overflow-auto outline-offset-[-2px] ${working ? '' : 'canvas-selects'}`}
        >
          <HostProvider value={host}>
            {bare && screen && <NoSample screen={screen} entity={bare} onAddress={onAddress} />}
            {page && !bare && (
              <div ref={setContent} className="relative min-h-full">
                <DrawnLook
                  compiled={compiled}
                  page={page}
                  address={address}
                  ghosts={ghosts}
                  at={`${viewer.key} ${address}`}
                  {...(over && { shaping: { face } })}
                />
                {!working && content && onCanvas && over?.({ content, screen: onCanvas, drawn })}
              </div>
            )}
          </HostProvider>
        </div>
      </div>
    </section>
  );
}

/** Is it about what lies over the canvas? That looks after its own clicks and keys. */
const isOver = ({ target }: MouseEvent | KeyboardEvent): boolean =>
  target instanceof Element && target.closest('[data-shaping], [data-radix-popper-content-wrapper]') !== null;

/** The face that an element is, or stands on. */
function faceOf(element: AppElement): string | undefined {
  for (let one: AppElement | undefined = element; one; one = one.container)
    if (one.kind === 'face') return one.id;
  return undefined;
}

function useAltKey(set: (held: boolean) => void): void {
  useEffect(() => {
    const down = (event: globalThis.KeyboardEvent): void => set(event.altKey);
    const away = (): void => set(false);
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', down);
    window.addEventListener('blur', away);
    return () => {
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', down);
      window.removeEventListener('blur', away);
    };
  }, [set]);
}
