'use client';

import { counted } from '@/core/edit';
import { useLatest } from '../../parts/use-latest';
import { ArrowLeft } from 'lucide-react';
import {
  useCallback,
  useEffect,
  useEffectEvent,
  useMemo,
  useRef,
  useState,
  type FocusEvent,
  type MouseEvent,
  type PointerEvent,
} from 'react';
import { compile, readAddress } from '@/core';
import type { LookPage } from '@/core/access';
import { HostProvider } from '../../live/host';
import { AddressLine } from '../frame/address-line';
import { ClosedAddresses } from './closed-addresses';
import { useLook, type InspectedElement } from './context';
import { DrawnLook } from '../frame/drawn-look';
import { useDifferenceMarks, useMark, useReachable } from '../frame/mark';
import { outcomeInWords } from './outcome';
import { PaneHead } from './pane-head';
import { lookQuery, splitAddress, type PaneState } from './pane-state';
import { OverrideNote } from '../shared/condition-overrides';
import { useDefinition } from './use-definition';
import { useLookPage } from '../frame/use-look-page';
import { usePaneHost } from './use-pane-host';

interface Props {
  readonly letter: string;
  readonly index: number;
  readonly state: PaneState;
  /** The id under which the server keeps what is changed in this pane. */
  readonly id: string;
  readonly active: boolean;
  readonly only: boolean;
  readonly ghosts: boolean;
  /** Clicks only ask why; they do nothing. */
  readonly onlyAsk: boolean;
  readonly asked: InspectedElement | undefined;
  readonly differing: ReadonlySet<string>;
  readonly onState: (state: PaneState) => void;
  readonly onViewer: (key: string) => void;
  /** Somebody moved in this pane: to an address, or another page of a list. */
  readonly onMove: (address: string, query: string) => void;
  readonly onPage: (page: LookPage) => void;
  readonly onAsk: (asked: InspectedElement) => void;
  readonly onActivate: () => void;
  readonly onMakeUp: () => void;
  readonly onClose: () => void;
  /** Starts anew without what was changed in it. */
  readonly onThrowAway: () => void;
}

/** One pane: the real screen as one viewer has it, in which one can work. */
export function Pane(props: Props) {
  const { letter, index, state, id, asked, onState, onMove, onAsk, onActivate } = props;
  const { app, draft } = useLook();
  const { definition, problem: notLoaded } = useDefinition(app, state.on, draft.definition);
  const compiled = compile(definition);
  const looks = lookQuery(state, id);
  const [turn, setTurn] = useState(0);
  const [history, setHistory] = useState<readonly string[]>([]);
  const frame = useRef<HTMLDivElement>(null);
  const { page, loading, problem } = useLookPage(
    app,
    `${looks}&${state.query}`,
    state.address,
    `${state.on === 'draft' ? draft.revision : ''} ${turn}`,
  );
  const address = page?.address ?? state.address;

  const move = (to: string, query = ''): void => {
    if (to !== address) setHistory((now) => [...now, address]);
    onMove(to, query);
  };
  const now = useLatest({ move, state, onState });
  const onNewPage = useEffectEvent((newest: LookPage): void => {
    props.onPage(newest);
    if (newest.sets) onState({ ...state, session: { ...state.session, ...newest.sets } });
  });
  useEffect(() => {
    if (page) onNewPage(page);
  }, [page]);
  const { ghosts, differing } = props;
  const drawn = useMemo(() => ({ page, ghosts }), [page, ghosts]);
  useMark(frame, asked?.element, drawn);
  useDifferenceMarks(frame, differing, drawn);
  useReachable(frame, drawn);

  const refresh = useCallback(() => setTurn((one) => one + 1), []);
  const host = usePaneHost(now, looks, definition, refresh);

  /** What was clicked or came into focus is asked about; unless clicks only ask, it works all the same. */
  const ask = (event: PointerEvent | FocusEvent): void => {
    onActivate();
    if (!(event.target instanceof Element)) return;
    const element = event.target.closest('[data-element]')?.getAttribute('data-element');
    const row = event.target.closest('[data-row]')?.getAttribute('data-row') ?? undefined;
    if (element) onAsk({ element, pane: index, row });
  };
  const hold = (event: MouseEvent): void => {
    if (!props.onlyAsk) return;
    event.preventDefault();
    event.stopPropagation();
  };
  const said = page && outcomeInWords(compiled, page);
  const here = readAddress(compiled.tree, address);
  return (
    <section
      aria-label={`Pane ${letter}, ${page?.viewerName ?? 'loading'}`}
      className="flex min-h-0 min-w-0 flex-col"
      onFocusCapture={onActivate}
    >
      <PaneHead
        {...props}
        definition={definition}
        page={page}
        address={address}
        onGo={move}
        onKept={refresh}
      />
      <div
        className={`flex min-h-0 flex-1 flex-col border bg-paper ${props.active ? 'border-ink' : 'border-edge'}`}
      >
        <div className="flex items-center gap-1.5 border-b border-rule bg-plate px-1.5 py-1">
          <button
            type="button"
            aria-label="Back to the previous screen"
            disabled={history.length === 0}
            className="grid size-[24px] shrink-0 place-items-center rounded-sm hover:bg-sheet disabled:text-edge"
            onClick={() => {
              const back = history.at(-1);
              setHistory((one) => one.slice(0, -1));
              if (back !== undefined) onMove(back, '');
            }}
          >
            <ArrowLeft size={15} aria-hidden />
          </button>
          <AddressLine
            address={address}
            onGo={(text) => {
              const typed = splitAddress(text);
              move(typed.address, typed.query);
            }}
          />
          <span className="shrink-0 text-[12px] font-medium" role="status">
            {notLoaded || problem || (loading || !said ? 'Loading…' : said)}
          </span>
          {page && page.outcome.is !== 'open' && here && (
            <button
              type="button"
              className="link shrink-0 text-[12px]"
              onClick={() => onAsk({ element: here.screen.id, pane: index })}
            >
              Why?
            </button>
          )}
          {page && (
            <ClosedAddresses
              app={app}
              compiled={compiled}
              page={page}
              record={here}
              records={state.records}
              onGo={(to) => move(to)}
            />
          )}
        </div>
        <OverrideNote
          definition={definition}
          taken={state.taken ?? {}}
          personName={() => undefined}
          onEnd={() => onState({ ...state, taken: undefined })}
        />
        <div
          ref={frame}
          aria-busy={loading}
          onPointerDownCapture={ask}
          onFocusCapture={ask}
          onClickCapture={hold}
          className="pane-frame min-h-0 flex-1 overflow-auto"
        >
          <HostProvider value={host}>
            {page && (
              <DrawnLook
                compiled={compiled}
                page={page}
                address={address}
                ghosts={props.ghosts}
                at={`${state.viewer} ${address}`}
              />
            )}
          </HostProvider>
        </div>
        {page && page.changes > 0 && (
          <p className="border-t border-rule bg-plate px-2 py-1 text-[12px]">
            {counted(page.changes, 'record has been changed', 'records have been changed')} in this pane only.
          </p>
        )}
      </div>
    </section>
  );
}
