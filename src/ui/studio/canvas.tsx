'use client';

import { ArrowLeft } from 'lucide-react';
import { Switch } from 'radix-ui';
import {
  useEffect,
  useMemo,
  useRef,
  useState,
  type FocusEvent,
  type KeyboardEvent,
  type MouseEvent,
} from 'react';
import { readAddress } from '@/core/access/address';
import type { Outcome } from '@/core/access/page';
import { addressOf } from '@/core/access/resolve';
import type { ShownMenuItem } from '@/core/access/shown';
import { HostProvider, RecordsClient, type Host } from '../live/host';
import { MenuView } from '../live/menu-view';
import { ScreenView } from '../live/screen-view';
import { useTell } from '../parts/toasts';
import { useBench } from './bench';
import { withGhostItems, withGhosts } from './ghosts';
import { LevelMark } from './level-mark';
import { answerInWords } from '@/core/edit/words';

interface Sent {
  readonly outcome: Outcome;
  readonly menu: readonly ShownMenuItem[];
}

interface Props {
  /** `/studio/api/applications/<slug>`. */
  readonly api: string;
  readonly revision: number;
  readonly address: string;
  readonly onAddress: (address: string) => void;
}

/**
 * The real screen, drawn by the same code as a release from what the server sends for this viewer. Clicks
 * select; with the switch on, or Alt held, they work as in the application.
 */
export function Canvas({ api, revision, address, onAddress }: Props) {
  const { compiled, viewer, selected, select, accessOf } = useBench();
  const [query, setQuery] = useState('');
  const [ghosts, setGhosts] = useState(true);
  const [works, setWorks] = useState(false);
  const [altHeld, setAltHeld] = useState(false);
  const [turn, setTurn] = useState(0);
  const [history, setHistory] = useState<readonly string[]>([]);
  const tell = useTell();
  const frame = useRef<HTMLDivElement>(null);
  const { sent, loading, problem } = useCanvasPage(api, viewer.key, address, query, `${revision} ${turn}`);

  useEffect(() => setQuery(''), [address]);
  useAltKey(setAltHeld);
  useSelectionMark(frame, selected.id, sent, ghosts);

  const go = (to: string, listQuery = ''): void => {
    if (to !== address) {
      setHistory((now) => [...now, address]);
      onAddress(to);
    } else setQuery(listQuery);
  };
  const goRef = useRef(go);
  goRef.current = go;
  const host = useMemo((): Host => {
    const kept = 'The server would accept this. On the canvas nothing is kept.';
    return {
      go: (to, listQuery) => goRef.current(to, listQuery),
      hrefOf: () => undefined,
      records: new RecordsClient(`${api}/canvas/records`, `viewer=${encodeURIComponent(viewer.key)}`),
      press: () =>
        Promise.resolve({ ok: false, fields: {}, detail: 'In the application this sets a session value.' }),
      exportHref: () => undefined,
      bulk: () =>
        Promise.resolve({
          ok: false,
          fields: {},
          detail: 'In the application this changes the chosen records.',
        }),
      unlock: undefined,
      people: undefined,
      refresh: () => setTurn((now) => now + 1),
      signOut: () => tell('In the application this signs out.'),
      tell,
      said: { saved: kept, added: kept, deleted: kept, done: kept },
      keeps: false,
    };
  }, [api, viewer.key, tell]);

  const working = works || altHeld;
  const pick = (event: MouseEvent | FocusEvent): void => {
    if (working) return;
    const target = event.target instanceof Element ? event.target.closest('[data-element]') : null;
    if (event.type !== 'focus') {
      event.preventDefault();
      event.stopPropagation();
    }
    const id = target?.getAttribute('data-element');
    if (id && event.type !== 'mousedown') select(id);
    if (event.type === 'click') frame.current?.focus({ preventScroll: true });
  };
  const keepKeys = (event: KeyboardEvent): void => {
    // While clicks select, typing must not change what is in the fields.
    if (!working && event.target !== frame.current && event.key !== 'Tab') event.preventDefault();
  };
  return (
    <section aria-label="Canvas" className="flex min-h-0 min-w-0 flex-col bg-sheet p-3">
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="flex items-center gap-1.5">
          <LevelMark
            answer={accessOf(viewer).answer(selected)}
            label={answerInWords(selected.kind, accessOf(viewer).answer(selected))}
          />
          As <strong className="font-semibold">{viewer.name}</strong>
        </span>
        <RecordChoice api={api} address={address} onAddress={(to) => go(to)} />
        <span className="ml-auto flex items-center gap-4">
          <Toggle label="Ghosts" hint="Show what this viewer does not get" on={ghosts} onChange={setGhosts} />
          <Toggle
            label="Clicks work"
            hint="Clicks work as in the application instead of selecting (or hold Alt)"
            on={works}
            onChange={setWorks}
          />
        </span>
      </div>
      <div className="flex min-h-0 flex-1 flex-col border border-edge bg-paper">
        <div className="flex items-center gap-2 border-b border-rule bg-plate px-2 py-1">
          <button
            type="button"
            aria-label="Back to the screen before"
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
            {problem || (loading ? 'Loading …' : 'sample records')}
          </span>
        </div>
        <div
          ref={frame}
          id="canvas-frame"
          tabIndex={0}
          aria-label={`The screen as ${viewer.name} has it`}
          role="group"
          aria-busy={loading}
          onClickCapture={pick}
          onMouseDownCapture={pick}
          onFocusCapture={(event) => event.target !== frame.current && pick(event)}
          onKeyDownCapture={keepKeys}
          className={`min-h-0 flex-1 overflow-auto outline-offset-[-2px] ${working ? '' : 'canvas-selects'}`}
        >
          <HostProvider value={host}>
            <div className="grid min-h-full grid-cols-[124px_minmax(0,1fr)] text-[13px]">
              <div className="border-r border-rule py-2">
                <MenuView
                  items={ghosts ? withGhostItems(compiled, sent?.menu ?? []) : (sent?.menu ?? [])}
                  current={address}
                />
              </div>
              <div className="min-w-0 bg-plate p-3">
                <Content sent={sent} address={address} ghosts={ghosts} />
              </div>
            </div>
          </HostProvider>
        </div>
      </div>
    </section>
  );
}

function Content({ sent, address, ghosts }: { sent: Sent | undefined; address: string; ghosts: boolean }) {
  const { compiled, viewer } = useBench();
  const destination = readAddress(compiled.tree, address);
  if (!sent) return null;
  const at = `${viewer.key} ${address}`;
  const { outcome } = sent;
  if (outcome.is === 'open') {
    const { page } = outcome;
    if (!ghosts || destination?.screen.id !== page.screen.id) return <ScreenView key={at} page={page} />;
    return (
      <ScreenView
        key={at}
        page={{ ...page, screen: withGhosts(compiled, destination.screen, page.screen) }}
      />
    );
  }
  const who = viewer.key === 'signed-out' ? 'Led to sign in, and then back here.' : '';
  const words =
    outcome.is === 'refused'
      ? who || 'Refused: this screen is closed to this viewer.'
      : who || 'Answered as an address that does not exist.';
  return (
    <>
      <p className="mb-4 border-l-4 border-ink bg-paper px-3 py-2">
        <strong>{viewer.name}</strong> does not get this screen. {words}
      </p>
      {ghosts && destination && (
        <ScreenView
          page={{ address, lists: {}, screen: withGhosts(compiled, destination.screen, undefined) }}
        />
      )}
    </>
  );
}

/** What the server sends for this viewer at this address; what was there stays until the answer is here. */
function useCanvasPage(api: string, viewer: string, address: string, query: string, version: string) {
  const [sent, setSent] = useState<{ readonly at: string; readonly page: Sent }>();
  const [problem, setProblem] = useState('');
  const wanted = `viewer=${encodeURIComponent(viewer)}&address=${encodeURIComponent(address)}&${query}`;
  const key = `${wanted} ${version}`;
  useEffect(() => {
    const stop = new AbortController();
    fetch(`${api}/canvas?${wanted}`, { signal: stop.signal })
      .then(async (response) => {
        const body = (await response.json()) as Sent & { detail?: string };
        setProblem(response.ok ? '' : (body.detail ?? 'The server refused this.'));
        if (response.ok) setSent({ at: key, page: body });
      })
      .catch(() => stop.signal.aborted || setProblem('The server cannot be reached.'));
    return () => stop.abort();
  }, [api, wanted, key]);
  return { sent: sent?.page, loading: sent?.at !== key && !problem, problem };
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

/** Marks the selected element on the canvas, wherever it is drawn. */
function useSelectionMark(
  frame: React.RefObject<HTMLElement | null>,
  id: string,
  ...redrawn: readonly unknown[]
): void {
  useEffect(() => {
    const marked = frame.current?.querySelectorAll(`[data-element="${CSS.escape(id)}"]`) ?? [];
    marked.forEach((one) => one.classList.add('is-selected'));
    marked[0]?.scrollIntoView({ block: 'nearest' });
    return () => marked.forEach((one) => one.classList.remove('is-selected'));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is drawn is looked up anew whenever it was drawn anew
  }, [frame, id, ...redrawn]);
}

function Toggle({
  label,
  hint,
  on,
  onChange,
}: {
  label: string;
  hint: string;
  on: boolean;
  onChange: (on: boolean) => void;
}) {
  return (
    <label className="flex cursor-pointer items-center gap-1.5" title={hint}>
      {label}
      <Switch.Root
        checked={on}
        onCheckedChange={onChange}
        className="h-4 w-7 rounded-full border border-edge bg-paper p-px data-[state=checked]:border-open data-[state=checked]:bg-open"
      >
        <Switch.Thumb className="block size-3 rounded-full bg-edge data-[state=checked]:translate-x-3 data-[state=checked]:bg-white" />
      </Switch.Root>
    </label>
  );
}

function AddressLine({ address, onGo }: { address: string; onGo: (address: string) => void }) {
  const [text, setText] = useState(`/${address}`);
  useEffect(() => setText(`/${address}`), [address]);
  return (
    <input
      aria-label="Address in the application"
      spellCheck={false}
      className="min-w-0 flex-1 rounded-sm border border-rule bg-paper px-2 py-0.5 font-mono text-[12px]"
      value={text}
      onChange={(event) => setText(event.target.value)}
      onKeyDown={(event) => event.key === 'Enter' && onGo(text.replace(/^\/+/, ''))}
    />
  );
}

/** For a screen that shows a record: which sample record it is. */
function RecordChoice({
  api,
  address,
  onAddress,
}: {
  api: string;
  address: string;
  onAddress: (address: string) => void;
}) {
  const { compiled } = useBench();
  const destination = readAddress(compiled.tree, address);
  const entity = destination?.record === undefined ? undefined : destination.screen.binds?.entity;
  const samples = useSamples(api, entity);
  if (!destination || entity === undefined) return null;
  return (
    <label className="flex items-center gap-1.5">
      on
      <select
        aria-label="Record"
        className="field-box max-w-48 py-0.5"
        value={destination.record}
        onChange={(event) => onAddress(addressOf(destination.screen, event.target.value))}
      >
        {samples.map(({ id, label }) => (
          <option key={id} value={id}>
            {label}
          </option>
        ))}
        {!samples.some(({ id }) => id === destination.record) && (
          <option value={destination.record}>{destination.record}</option>
        )}
      </select>
    </label>
  );
}

export interface Sample {
  readonly id: string;
  readonly label: string;
}

const known = new Map<string, Promise<readonly Sample[]>>();

/** Sample records of an entity, asked for once. */
export function samplesOf(api: string, entity: string): Promise<readonly Sample[]> {
  const url = `${api}/samples?entity=${encodeURIComponent(entity)}`;
  let found = known.get(url);
  if (!found) {
    found = fetch(url).then(async (response) =>
      response.ok ? ((await response.json()) as { samples: Sample[] }).samples : [],
    );
    known.set(url, found);
  }
  return found;
}

function useSamples(api: string, entity: string | undefined): readonly Sample[] {
  const [samples, setSamples] = useState<readonly Sample[]>([]);
  useEffect(() => {
    let gone = false;
    if (entity !== undefined) void samplesOf(api, entity).then((found) => gone || setSamples(found));
    return () => {
      gone = true;
    };
  }, [api, entity]);
  return samples;
}
