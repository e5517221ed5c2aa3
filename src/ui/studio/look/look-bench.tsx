'use client';

import { Plus } from 'lucide-react';
import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import { compile, Numbers, readAddress, viewerKey } from '@/core';
import {
  addressOf,
  differences,
  differing,
  type Note,
  type Person,
  rightNow,
  screensOfSome,
  SIGNED_IN_KEY,
  SIGNED_OUT_KEY,
} from '@/core/access';
import type { Definition } from '@/core/model';
import { send } from '../../live/host';
import { useTell } from '../../parts/toasts';
import { useAsked } from '../../parts/queries';
import { railViewers } from '../gates/bench';
import { benchHref, carry } from '../shell/carry';
import { isTyping } from '../shell/is-typing';
import { useDraft, usePaletteActions, useStudio } from '../shell/studio-work';
import { Toggle } from '../shared/toggle';
import { LookProvider, type Asked, type LookWork } from './context';
import { DifferencesPart, DifferenceTable } from './differences-part';
import { RightsWindow } from '../shared/rights-window';
import { letterOf, LookRail } from './look-rail';
import { MadeWindow } from './made-window';
import { NotesPart } from './notes-part';
import { Pane } from './pane';
import { firstPane, paneFromQuery, paneToQuery, splitAddress, type PaneState } from './pane-state';
import { useFirstSample } from '../shared/samples';
import { MOST_PANES, usePanes } from './use-panes';
import type { KeptViewer } from './viewer-choice';
import { WhyPart } from './why-part';

interface Kept {
  readonly viewers: readonly KeptViewer[];
}

interface Props {
  readonly people: readonly Person[];
  readonly releases: readonly number[];
  readonly kept: readonly KeptViewer[];
  readonly live: LookWork['live'];
  readonly notes: readonly Note[];
}

/** The look bench: one to four panes side by side, each the application as one viewer has it. */
export function LookBench(props: Props) {
  const { people } = props;
  const { slug, api, store, mayChange, owns, pins, pin } = useStudio();
  const { definition, revision } = useDraft();
  const tell = useTell();
  const router = useRouter();
  const compiled = compile(definition);
  const firstSample = useFirstSample(api);
  const keptUrl = `${api}/viewers`;
  const { data: { viewers: kept } = { viewers: props.kept }, refetch: loadKept } = useAsked<Kept>(keptUrl, {
    first: { viewers: props.kept },
  });
  const [notes, setNotes] = useState(props.notes);
  const came = useSearchParams();
  const [asked, setAsked] = useState<Asked | undefined>(() => {
    const element = came.get('element');
    return element !== null && compiled.tree.get(element) ? { element, pane: 0 } : undefined;
  });
  const [ghosts, setGhosts] = useState(true);
  const [onlyAsk, setOnlyAsk] = useState(false);
  const [makingFor, setMakingFor] = useState<number>();
  const [givingLive, setGivingLive] = useState(false);

  const numbers = useMemo(() => new Numbers(compiled, people, rightNow()), [compiled, people]);
  const viewers = useMemo(
    () => railViewers(definition, numbers, people, pins),
    [definition, numbers, people, pins],
  );
  const { panes, pages, active, ...all } = usePanes({
    api,
    first: () => firstPanes(came.getAll('p'), definition, pins),
    viewers,
    kept,
    onLeft: () => setAsked(undefined),
  });
  // Nothing differs before all are there.
  const compared = useMemo(() => {
    const known = pages.filter((one) => one !== undefined);
    return known.length === pages.length && known.length > 1 ? known : [];
  }, [pages]);
  const found = useMemo(() => differences(compiled, compared), [compiled, compared]);
  const marks = useMemo(() => differing(found), [found]);
  const someScreens = screensOfSome(compiled, compared);

  const pinAndPut = (id: string): void => {
    pin([...pins, id]);
    all.put(viewerKey('person', id), active);
  };
  const forget = (viewer: KeptViewer): void =>
    void send('DELETE', `${api}/viewers/${viewer.id}`).then((answer) => {
      if (!answer.ok) return tell(answer.detail);
      // Panes that look as them go on with the same viewer, unnamed.
      all.replaceViewer(viewerKey('kept', viewer.id), viewerKey('made', JSON.stringify(viewer.viewer)));
      void loadKept();
    });
  const step = (by: 1 | -1): void => {
    if (found.length === 0) return;
    const at = found.findIndex(({ elements }) => elements.some((one) => one.id === asked?.element));
    const next = found[(at + by + found.length + (at < 0 && by < 0 ? 1 : 0)) % found.length];
    const element = next?.elements[0];
    // Why is asked of the pane that gets least: that is what one wonders about.
    const answers = next?.answers.map((one) => one?.most ?? 3) ?? [];
    if (element) setAsked({ element: element.id, pane: answers.indexOf(Math.min(...answers) as 0) });
  };
  const openNote = (note: Note): void => {
    const records = props.live === 'none' ? 'sample' : 'live';
    if (props.live === 'none')
      tell('You may not look at live records: this opens on the sample records, at the same address.');
    const { address, query } = splitAddress(note.address);
    all.openOnly({
      viewer: viewerKey('person', note.person),
      address,
      query,
      on: `release:${note.release}`,
      moment: note.moment,
      session: note.session,
      records,
    });
    const element = note.element ?? readAddress(compiled.tree, address)?.screen.id;
    setAsked(element === undefined ? undefined : { element, pane: 0 });
  };
  const closeNote = (note: Note): void => {
    setNotes((now) => now.filter((one) => one.id !== note.id));
    void send('DELETE', `${api}/notes/${note.id}`).then((answer) => answer.ok || tell(answer.detail));
  };
  const toGate = (id: string): void => {
    const pane = panes[asked?.pane ?? active];
    const { viewer = SIGNED_OUT_KEY, address = '' } = pane?.state ?? {};
    router.push(benchHref(slug, 'gates', { element: id, viewer, address }));
  };
  const goTo = async (screenId: string): Promise<void> => {
    const screen = compiled.tree.need(screenId, 'screen').node;
    const sample =
      screen.binds?.record === 'existing'
        ? await firstSample(screen.binds.entity, panes[active]?.state.records)
        : undefined;
    all.moveAll(addressOf(screen, sample?.id));
  };

  const states = panes.map(({ state }) => state);
  const here = panes[active]?.state;
  const hereAddress = all.pageOf(active)?.address ?? here?.address ?? '';
  useEffect(() => {
    carry(slug, {
      panes: states.map(paneToQuery),
      pane: active,
      viewer: here?.viewer ?? SIGNED_OUT_KEY,
      address: hereAddress,
      ...(asked && { element: asked.element }),
    });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is told of each pane, not the list of them
  }, [slug, active, here, hereAddress, asked, ...states]);

  usePaletteActions({ onViewer: (key) => all.put(key, active) });
  const stepNow = useRef(step);
  stepNow.current = step;
  useEffect(() => {
    // On the window: after a click on what takes no focus, the keys go to nothing in the bench.
    const onKey = (event: KeyboardEvent): void => {
      if (isTyping(event.target as HTMLElement) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key.toLowerCase() !== 'n') return;
      event.preventDefault();
      stepNow.current(event.shiftKey ? -1 : 1);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);

  const work: LookWork = {
    api,
    draft: { definition, revision },
    releases: props.releases,
    kept,
    forget,
    mayChange,
    live: props.live,
    giveLive: owns ? () => setGivingLive(true) : undefined,
    tell,
  };
  const askedPane = asked && panes[asked.pane];
  return (
    <LookProvider value={work}>
      <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_292px] min-[1200px]:grid-cols-[minmax(0,1fr)_316px] grid-rows-[minmax(0,1fr)_auto]">
        <main
          data-region="work"
          tabIndex={-1}
          className={`grid min-h-0 min-w-0 gap-3 bg-sheet p-3 ${panes.length === 1 ? '' : panes.length === 2 ? 'grid-cols-2' : 'grid-cols-2 grid-rows-2'}`}
        >
          {panes.map(({ id, state }, n) => (
            <Pane
              key={id}
              letter={letterOf(n)}
              index={n}
              state={state}
              id={id}
              active={n === active}
              only={panes.length === 1}
              ghosts={ghosts}
              onlyAsk={onlyAsk}
              asked={asked}
              differing={marks}
              onState={(next) => all.change(n, next)}
              onViewer={(key) => all.put(key, n)}
              onMove={(address, query) => all.move(n, address, query)}
              onPage={(page) => all.show(id, page)}
              onAsk={setAsked}
              onActivate={() => all.activate(n)}
              onMakeUp={() => setMakingFor(n)}
              onClose={() => all.close(n)}
              onThrowAway={() => all.restart(n)}
            />
          ))}
        </main>
        <aside
          data-region="why"
          tabIndex={-1}
          aria-label="What differs, and why"
          className="flex min-h-0 flex-col border-l border-rule bg-paper py-3"
        >
          <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-1 px-4">
            <button
              type="button"
              className="button"
              disabled={panes.length >= MOST_PANES}
              title={panes.length >= MOST_PANES ? 'Four panes are the most' : 'Compare with another viewer'}
              onClick={() => all.add()}
            >
              <Plus size={14} aria-hidden /> Pane
            </button>
            <Toggle label="Ghosts" hint="Show what a viewer does not get" on={ghosts} onChange={setGhosts} />
            <Toggle
              label="Only ask"
              hint="Clicks only ask why; they do not work in the application"
              on={onlyAsk}
              onChange={setOnlyAsk}
            />
          </div>
          {/* Each scrolls by itself: one steps through the list while reading why. */}
          <div className={`overflow-y-auto px-4 ${asked ? 'max-h-[40%] shrink-0' : 'min-h-0'}`}>
            <NotesPart
              notes={notes}
              definition={definition}
              mayChange={mayChange}
              onOpen={openNote}
              onDone={closeNote}
            />
            {panes.length > 1 && (
              <DifferencesPart
                found={found}
                panes={panes.length}
                asked={asked}
                onAsk={setAsked}
                onStep={step}
              />
            )}
            {someScreens.length > 0 && (
              <details className="mb-4">
                <summary className="min-h-[24px] font-semibold">
                  {someScreens.length === 1 ? '1 screen opens' : `${someScreens.length} screens open`} for
                  some only
                </summary>
                <DifferenceTable
                  found={someScreens}
                  panes={panes.length}
                  asked={asked}
                  heading="Screen"
                  onAsk={(one) => {
                    setAsked(one);
                    void goTo(one.element);
                  }}
                />
              </details>
            )}
          </div>
          <div className="min-h-0 flex-1 overflow-y-auto px-4">
            {asked && askedPane ? (
              <WhyPart
                asked={asked}
                state={askedPane.state}
                paneId={askedPane.id}
                address={all.pageOf(asked.pane)?.address ?? askedPane.state.address}
                viewerName={all.pageOf(asked.pane)?.viewerName ?? '…'}
                personName={(id) => people.find((one) => one.id === id)?.name}
                numbers={numbers}
                onLook={(id) => all.put(viewerKey('person', id), asked.pane)}
                onTake={(taken) => all.change(asked.pane, { ...askedPane.state, taken })}
                apply={(edit) => {
                  store.apply(edit);
                  tell('The change is made in the draft. Ctrl Z takes it back.');
                }}
                onGate={toGate}
                onDraft={() => all.change(asked.pane, { ...askedPane.state, on: 'draft' })}
              />
            ) : (
              <p className="text-quiet">
                Click anything in a pane, also what is dashed, or reach it by Tab: here you read why this
                viewer has it, or has not.
              </p>
            )}
          </div>
        </aside>
        <LookRail
          viewers={viewers}
          looking={panes.map(({ state }) => state.viewer)}
          active={active}
          walking={all.walking}
          onWalking={all.setWalking}
          onPut={all.put}
          people={people.filter((one) => !pins.includes(one.id))}
          onPin={pinAndPut}
        />
      </div>
      {givingLive && <RightsWindow api={api} tell={tell} onClose={() => setGivingLive(false)} />}
      {makingFor !== undefined && (
        <MadeWindow
          api={api}
          definition={definition}
          mayKeep={mayChange}
          onClose={() => setMakingFor(undefined)}
          onMade={(key, made, isKept) => {
            all.put(key, makingFor, made);
            setMakingFor(undefined);
            if (isKept) void loadKept();
          }}
        />
      )}
    </LookProvider>
  );
}

function firstPanes(
  panes: readonly string[],
  definition: Definition,
  pins: readonly string[],
): readonly PaneState[] {
  if (panes.length > 0) return panes.slice(0, MOST_PANES).map(paneFromQuery);
  return [
    firstPane(pins[0] === undefined ? SIGNED_OUT_KEY : viewerKey('person', pins[0]), ''),
    firstPane(definition.roles[0] ? viewerKey('role', definition.roles[0].id) : SIGNED_IN_KEY, ''),
  ];
}
