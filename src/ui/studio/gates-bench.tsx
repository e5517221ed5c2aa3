'use client';

import { useSearchParams } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState, type KeyboardEvent } from 'react';
import { SIGNED_OUT_KEY, viewerKey } from '@/core/access/viewer-key';
import { readAddress } from '@/core/access/address';
import type { Access } from '@/core/access/access';
import { compile, type Compiled } from '@/core/access/compile';
import { addressOf } from '@/core/access/resolve';
import { allAlike, Numbers } from '@/core/access/numbers';
import { amongInWords } from '@/core/edit/words';
import { difference } from '@/core/edit/difference';
import type { Standing } from '@/core/edit/history';
import type { Definition } from '@/core/model/definition';
import { isDataDoor, type Element } from '@/core/model/tree';
import type { Level } from '@/core/access/level';
import { rightNow, type Circumstances, type Person } from '@/core/access/viewer';
import { ask } from '../live/host';
import { Toasts, useTell } from '../parts/toasts';
import {
  BenchProvider,
  groupViewers,
  railViewers,
  SIGNED_OUT_VIEWER,
  type Bench,
  type RailViewer,
} from './bench';
import { Canvas } from './canvas';
import { carry } from './carry';
import { isTyping, SavedState, UndoRedo, useDraft } from './draft-tools';
import { DoorView } from './door-view';
import { FormChoice, FORMS, type Form } from './form-choice';
import { GatePanel } from './gate-panel/gate-panel';
import { Grid } from './grid/grid';
import { samplesOf } from './look/samples';
import { Outline } from './outline';
import { Rail } from './rail';
import { WhatOneSees } from './questions/what-one-sees';
import { WhoSeesIt } from './questions/who-sees-it';
import { useSetLevel } from './set-level';
import { StudioTop } from './studio-frame';
import type { Taken } from './taking';

interface Props {
  readonly slug: string;
  readonly applications: readonly { readonly slug: string; readonly name: string }[];
  readonly builder: string;
  readonly mayChange: boolean;
  readonly definition: Definition;
  readonly revision: number;
  readonly standing: Standing;
  readonly released: { readonly number: number; readonly definition: Definition } | undefined;
  readonly people: readonly Person[];
  readonly pins: readonly string[];
}

/** The gates bench: outline, canvas, gate panel and viewer rail over one draft. */
export function GatesBench(props: Props) {
  return (
    <Toasts>
      <Inside {...props} />
    </Toasts>
  );
}

function Inside(props: Props) {
  const { slug, people, mayChange, released } = props;
  const api = `/studio/api/applications/${slug}`;
  const tell = useTell();
  const { store, draft } = useDraft(`${api}/draft`, props, mayChange, tell);
  const { definition } = draft;
  const compiled = compile(definition);
  const [pins, setPins] = useState(props.pins);
  // What the address says when one comes here, also by going back.
  const came = useSearchParams();
  const [lookedAs, setLookedAs] = useState(came.get('viewer') ?? SIGNED_OUT_KEY);
  const [selectedId, setSelectedId] = useState(came.get('element') ?? firstScreen(definition));
  const [targetId, setTargetId] = useState<string>();
  const [address, setAddress] = useState(came.get('address') ?? '');
  const [circumstances] = useState(rightNow);
  const [taken, setTaken] = useState<Taken>({});

  const { roles, groups } = definition;
  const numbers = useMemo(
    () => new Numbers(compiled, people, circumstances),
    [compiled, people, circumstances],
  );
  const viewers = useMemo(
    () => railViewers({ roles }, numbers, people, pins),
    [roles, numbers, people, pins],
  );
  const columns = useMemo(() => {
    const people = viewers.findIndex((one) => one.group === 'person');
    return viewers.toSpliced(people < 0 ? viewers.length : people, 0, ...groupViewers({ groups }, numbers));
  }, [viewers, groups, numbers]);
  const viewer = columns.find((one) => one.key === lookedAs) ?? SIGNED_OUT_VIEWER;
  const [form, setForm] = useState<Form>(FORMS.find(({ key }) => key === came.get('form'))?.key ?? 'screen');
  const accessOf = useMemo(() => accesses(compiled, circumstances), [compiled, circumstances]);
  const selected = compiled.tree.get(selectedId) ?? compiled.tree.root;
  const target = compiled.tree.get(targetId ?? '') ?? usualTarget(compiled, selected);

  const showOnCanvas = useCallback(
    async (element: Element): Promise<void> => {
      const screen = screenOf(compiled, element);
      const now = readAddress(compiled.tree, address)?.screen;
      if (!screen || screen.id === now?.id) return;
      const [sample] = screen.binds?.record === 'existing' ? await samplesOf(api, screen.binds.entity) : [];
      setAddress(addressOf(screen, sample?.id));
    },
    [compiled, address, api],
  );
  const select = (id: string): void => {
    const element = compiled.tree.get(id);
    if (!element) return;
    setSelectedId(id);
    setTargetId(undefined);
    void showOnCanvas(element);
  };
  const onAddress = (next: string): void => {
    setAddress(next);
    const screen = readAddress(compiled.tree, next)?.screen;
    if (screen && screen.id !== selected.screen?.id) {
      setSelectedId(screen.id);
      setTargetId(undefined);
    }
  };
  const pin = (next: readonly string[]): void => {
    setPins(next);
    const added = next.find((id) => !pins.includes(id));
    if (added) setLookedAs(viewerKey('person', added));
    void ask(`${api}/pins`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ people: next }),
    }).then((answer) => answer.ok || tell(answer.detail));
  };
  const bench: Bench = {
    definition,
    compiled,
    people,
    personName: (id) => people.find((one) => one.id === id)?.name,
    viewers,
    viewer,
    look: setLookedAs,
    pin,
    selected,
    select,
    target,
    setTarget: setTargetId,
    accessOf,
    numbers,
    amongOf: (one, element) => {
      const among = numbers.among(one.key, element);
      return among && !allAlike(among) ? amongInWords(element.kind, among) : undefined;
    },
    circumstances,
    taken,
    take: setTaken,
    api,
    mayChange,
    apply: (edit) => store.apply(edit),
  };
  const { set, dialog } = useSetLevel(bench, tell);
  // A door of data is shown among the doors of its entity; all else on its screen.
  const entity = isDataDoor(selected) ? compiled.tree.entityOf(selected.id) : undefined;

  // The canvas has a screen from the start.
  useEffect(() => {
    if (address === '') void showOnCanvas(selected);
  }, [address, selected, showOnCanvas]);
  useEffect(() => {
    const query = new URLSearchParams({ element: selected.id, viewer: viewer.key, address });
    if (form !== 'screen') query.set('form', form);
    window.history.replaceState(null, '', `?${query}`);
    carry(slug, { element: selected.id, viewer: viewer.key, address, form });
  }, [slug, selected.id, viewer.key, address, form]);
  const onKeyDown = (event: KeyboardEvent | globalThis.KeyboardEvent): void => {
    const from = event.target as HTMLElement;
    if (isTyping(from) || event.ctrlKey || event.metaKey || event.altKey) return;
    const walking = from === document.body || from.closest('[aria-label="Canvas"], [aria-label="Viewers"]');
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (step !== 0 && walking) {
      event.preventDefault();
      const next = viewers[Math.max(0, Math.min(viewers.length - 1, viewers.indexOf(viewer) + step))];
      if (next) setLookedAs(next.key);
    }
    if (['0', '1', '2'].includes(event.key) && mayChange) {
      event.preventDefault();
      set(Number(event.key) as Level);
    }
  };
  // The keys that the rail names work from the start, before anything has the focus.
  useEffect(() => {
    const onPage = (event: globalThis.KeyboardEvent): void => {
      if (event.target === document.body && form === 'screen') onKeyDown(event);
    };
    window.addEventListener('keydown', onPage);
    return () => window.removeEventListener('keydown', onPage);
  });
  const waiting = useMemo(
    () => (released ? difference(released.definition, definition).length : 1),
    [released, definition],
  );
  const forms = <FormChoice form={form} onChoose={setForm} />;
  return (
    <BenchProvider value={bench}>
      <div
        onKeyDown={onKeyDown}
        className="grid h-screen min-w-[1000px] grid-cols-[252px_minmax(0,1fr)_292px] min-[1200px]:grid-cols-[292px_minmax(0,1fr)_316px] grid-rows-[46px_minmax(0,1fr)_auto]"
      >
        <StudioTop
          slug={slug}
          name={definition.name}
          applications={props.applications}
          builder={props.builder}
          bench="gates"
          waiting={waiting}
          onElement={select}
          onViewer={setLookedAs}
        >
          <SavedState draft={draft} waiting={waiting} released={released?.number} mayChange={mayChange} />
          {mayChange && <UndoRedo store={store} draft={draft} />}
        </StudioTop>
        {form === 'screen' && (
          <>
            <Outline forms={forms} />
            {entity ? (
              <DoorView entity={entity} />
            ) : (
              <Canvas api={api} revision={draft.revision} address={address} onAddress={onAddress} />
            )}
          </>
        )}
        {form === 'grid' && <Grid columns={columns} forms={forms} onSet={set} />}
        {form === 'what' && <WhatOneSees columns={columns} forms={forms} />}
        {form === 'who' && <WhoSeesIt forms={forms} />}
        <GatePanel />
        {form !== 'grid' && <Rail />}
      </div>
      {dialog}
    </BenchProvider>
  );
}

/** The gate that is edited at first: the data's, where it has lines of its own and the handle has none. */
function usualTarget(compiled: ReturnType<typeof compile>, selected: Element): Element {
  const door = compiled.tree.get(compiled.handles.doorOf(selected)?.id ?? '');
  const atDoor = door && door.kind !== 'screen' && compiled.lines(door.id) && !compiled.lines(selected.id);
  return atDoor ? door : selected;
}

const firstScreen = (definition: Definition): string => definition.areas[0]?.screens[0]?.id ?? definition.id;

/** The screen to draw for an element: its own, the one it leads to, or one that shows it. */
function screenOf(compiled: ReturnType<typeof compile>, element: Element) {
  if (element.screen) return element.screen;
  const { tree, handles } = compiled;
  const door = tree.get(handles.doorOf(element)?.id ?? '');
  if (door?.kind === 'screen') return door.node;
  const [first] = handles.handlesOf(element).flatMap((id) => tree.get(id)?.screen ?? []);
  return first;
}

/** Each viewer's access, made when it is first asked for. */
function accesses(compiled: Compiled, at: Circumstances): (one: RailViewer) => Access {
  const known = new Map<RailViewer, Access>();
  return (one) => {
    const access = known.get(one) ?? compiled.access(one.viewer, at);
    known.set(one, access);
    return access;
  };
}
