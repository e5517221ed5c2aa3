'use client';

import { useRouter } from 'next/navigation';
import { parseAsNativeArrayOf, parseAsString, useQueryStates } from 'nuqs';
import { useEffect, useMemo, useState } from 'react';
import { compile, Numbers, readAddress, viewerKey } from '@/core';
import { addressOf, type Note, rightNow, SIGNED_OUT_KEY } from '@/core/access';

import { useTell } from '../../parts/toasts';
import { railViewers } from '../frame/bench';
import { benchHref, carry } from '../shell/bench-state';
import { useDraft, usePaletteActions, useStudio } from '../shell/studio-work';
import { LookProvider, type InspectedElement, type LookWork } from './context';
import { DifferencesPart, SomeScreens } from './differences-part';
import { LookSide } from './look-side';
import { useDifferences } from './use-differences';
import { useKeptViewers } from './use-kept-viewers';
import { RightsWindow } from '../shared/rights-window';
import { letterOf, LookRail } from './look-rail';
import { MadeWindow } from './made-window';
import { NotesPart } from './notes-part';
import { Pane } from './pane';
import { firstPanes, paneOfNote, paneToQuery } from './pane-state';
import { useNotes } from './use-notes';
import { useFirstSample } from '../shared/samples';
import { type FirstPeople, usePeople } from '../shared/use-people';
import { usePanes } from './use-panes';
import type { KeptViewer } from '@/core/access';
import { WhyPart } from './why-part';

interface Props {
  readonly first: FirstPeople;
  readonly releases: readonly number[];
  readonly kept: readonly KeptViewer[];
  readonly live: LookWork['live'];
  readonly notes: readonly Note[];
}

/** What the address has: the panes, and at first an element to ask about in the first of them. */
const PLACE = { p: parseAsNativeArrayOf(parseAsString), element: parseAsString };

/** The look bench: one to four panes side by side, each the application as one viewer has it. */
export function LookBench(props: Props) {
  const people = usePeople(props.first);
  const { app, store, mayChange, owns, pins, pin } = useStudio();
  const { definition, revision } = useDraft();
  const tell = useTell();
  const router = useRouter();
  const compiled = compile(definition);
  const firstSample = useFirstSample(app);
  const { kept, reload: loadKept, forget } = useKeptViewers(app, props.kept);
  const { notes, closeNote } = useNotes(props.notes);
  const [{ p: links, element: cameFor }, setPlace] = useQueryStates(PLACE);
  const [asked, setAsked] = useState<InspectedElement | undefined>(
    cameFor !== null && compiled.tree.get(cameFor) ? { element: cameFor, pane: 0 } : undefined,
  );
  const [ghosts, setGhosts] = useState(true);
  const [onlyAsk, setOnlyAsk] = useState(false);
  const [makingFor, setMakingFor] = useState<number>();
  const [givingLive, setGivingLive] = useState(false);

  const numbers = useMemo(() => new Numbers(compiled, people.alike, rightNow()), [compiled, people.alike]);
  const viewers = useMemo(
    () => railViewers(definition, numbers, people.named, pins),
    [definition, numbers, people.named, pins],
  );
  const { panes, pages, active, ...all } = usePanes({
    app,
    links,
    onLinks: (p) => void setPlace({ p, element: null }),
    first: () => firstPanes(definition, pins),
    viewers,
    kept,
    onLeft: () => setAsked(undefined),
  });
  const { found, marks, someScreens, step } = useDifferences(compiled, pages, asked, setAsked);

  const pinAndPut = (id: string): void => {
    pin([...pins, id]);
    all.put(viewerKey('person', id), active);
  };
  const openNote = (note: Note): void => {
    if (props.live === 'none')
      tell('You do not have access to live records, so this view shows sample records at the same address.');
    const state = paneOfNote(note, props.live === 'none' ? 'sample' : 'live');
    all.openOnly(state);
    const element = note.element ?? readAddress(compiled.tree, state.address)?.screen.id;
    setAsked(element === undefined ? undefined : { element, pane: 0 });
  };
  const toGate = (id: string): void => {
    const pane = panes[asked?.pane ?? active];
    const { viewer = SIGNED_OUT_KEY, address = '' } = pane?.state ?? {};
    router.push(benchHref(app, 'gates', { element: id, viewer, address }));
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
    carry(app, {
      panes: states.map(paneToQuery),
      pane: active,
      viewer: here?.viewer ?? SIGNED_OUT_KEY,
      address: hereAddress,
      ...(asked && { element: asked.element }),
    });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is told of each pane, not the list of them
  }, [app, active, here, hereAddress, asked, ...states]);

  usePaletteActions({ onViewer: (key) => all.put(key, active) });
  const work: LookWork = {
    app,
    draft: { definition, revision },
    releases: props.releases,
    kept,
    forget: (viewer) => void forget(viewer, all.replaceViewer),
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
        <LookSide
          panes={panes.length}
          ghosts={ghosts}
          onGhosts={setGhosts}
          onlyAsk={onlyAsk}
          onOnlyAsk={setOnlyAsk}
          onAdd={() => all.add()}
          findings={
            <>
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
              <SomeScreens
                found={someScreens}
                panes={panes.length}
                asked={asked}
                onAsk={(one) => {
                  setAsked(one);
                  void goTo(one.element);
                }}
              />
            </>
          }
          why={
            asked && askedPane ? (
              <WhyPart
                asked={asked}
                state={askedPane.state}
                paneId={askedPane.id}
                address={all.pageOf(asked.pane)?.address ?? askedPane.state.address}
                viewerName={all.pageOf(asked.pane)?.viewerName ?? '…'}
                personName={people.personName}
                numbers={numbers}
                onLook={(id) => all.put(viewerKey('person', id), asked.pane)}
                onTake={(taken) => all.change(asked.pane, { ...askedPane.state, taken })}
                apply={(edit) => {
                  store.apply(edit);
                  tell('The draft has been changed. Press Ctrl+Z to undo.');
                }}
                onGate={toGate}
                onDraft={() => all.change(asked.pane, { ...askedPane.state, on: 'draft' })}
              />
            ) : null
          }
        />
        <LookRail
          viewers={viewers}
          looking={panes.map(({ state }) => state.viewer)}
          active={active}
          walking={all.walking}
          onWalking={all.setWalking}
          onPut={all.put}
          pins={pins}
          onPin={pinAndPut}
        />
      </div>
      {givingLive && <RightsWindow app={app} tell={tell} onClose={() => setGivingLive(false)} />}
      {makingFor !== undefined && (
        <MadeWindow
          app={app}
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
