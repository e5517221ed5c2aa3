'use client';

import { parseAsString, parseAsStringLiteral, useQueryStates } from 'nuqs';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { accessOf, compile, Numbers, readAddress, viewerKey } from '@/core';
import {
  type Access,
  addressOf,
  allAlike,
  type Circumstances,
  type Compiled,
  rightNow,
  SIGNED_OUT_KEY,
} from '@/core/access';
import { amongInWords } from '@/core/edit';
import type { AppElement, Area, Definition } from '@/core/model';
import { groupViewers, railViewers, SIGNED_OUT_VIEWER, type Bench, type RailViewer } from './bench';
import { FORMS } from './form-choice';
import { carry } from '../shell/bench-state';
import { useFirstSample } from '../shared/samples';
import { useDraft, usePaletteActions, useStudio } from '../shell/studio-work';
import type { ConditionOverrides } from '../shared/condition-overrides';
import { type FirstPeople, usePeople } from '../shared/use-people';

/** Where one is at the bench, as its address has it. */
const PLACE = {
  element: parseAsString,
  viewer: parseAsString.withDefault(SIGNED_OUT_KEY),
  /** What is on the canvas. */
  address: parseAsString.withDefault(''),
  form: parseAsStringLiteral(FORMS.map(({ key }) => key)).withDefault('screen'),
};

/** What a bench over the outline, the canvas and the viewer rail works on: where one is, through whose eyes one looks. */
export function useBenchAt(first: FirstPeople) {
  const people = usePeople(first);
  const { app, store, mayChange, pins, pin } = useStudio();
  const { definition, revision } = useDraft();
  const compiled = compile(definition);
  const firstSample = useFirstSample(app);
  // What the address says when one comes here, also by going back.
  const [{ viewer: lookedAs, element: selectedId, address, form }, setPlace] = useQueryStates(PLACE);
  const setLookedAs = (viewer: string): void => void setPlace({ viewer });
  const [targetId, setTargetId] = useState<string>();
  const [circumstances] = useState(rightNow);
  const [taken, setTaken] = useState<ConditionOverrides>({});

  const { roles, groups } = definition;
  const numbers = useMemo(
    () => new Numbers(compiled, people.alike, circumstances),
    [compiled, people.alike, circumstances],
  );
  const viewers = useMemo(
    () => railViewers({ roles }, numbers, people.named, pins),
    [roles, numbers, people.named, pins],
  );
  const columns = useMemo(() => {
    const pinned = viewers.findIndex((one) => one.group === 'person');
    return viewers.toSpliced(pinned < 0 ? viewers.length : pinned, 0, ...groupViewers({ groups }, numbers));
  }, [viewers, groups, numbers]);
  const viewer = columns.find((one) => one.key === lookedAs) ?? SIGNED_OUT_VIEWER;
  const accessFor = useMemo(() => accesses(compiled, circumstances), [compiled, circumstances]);
  const selected = compiled.tree.get(selectedId ?? firstScreen(definition)) ?? compiled.tree.root;
  const target = compiled.tree.get(targetId ?? '') ?? usualTarget(compiled, selected);

  const showOnCanvas = useCallback(
    async (element: AppElement): Promise<void> => {
      const screen = screenOf(compiled, element);
      const now = readAddress(compiled.tree, address)?.screen;
      if (!screen || screen.id === now?.id) return;
      const sample = screen.binds?.record === 'existing' ? await firstSample(screen.binds.entity) : undefined;
      void setPlace({ address: addressOf(screen, sample?.id) });
    },
    [compiled, address, firstSample, setPlace],
  );
  const select = (id: string): void => {
    const element = compiled.tree.get(id);
    if (!element) return;
    void setPlace({ element: id });
    setTargetId(undefined);
    void showOnCanvas(element);
  };
  const onAddress = (next: string): void => {
    void setPlace({ address: next });
    const screen = readAddress(compiled.tree, next)?.screen;
    if (screen && screen.id !== selected.screen?.id) {
      void setPlace({ element: screen.id });
      setTargetId(undefined);
    }
  };
  const pinAndLook = (next: readonly string[]): void => {
    pin(next);
    const added = next.find((id) => !pins.includes(id));
    if (added) setLookedAs(viewerKey('person', added));
  };
  const bench: Bench = {
    definition,
    compiled,
    people,
    personName: people.personName,
    viewers,
    viewer,
    look: setLookedAs,
    pin: pinAndLook,
    selected,
    select,
    target,
    setTarget: setTargetId,
    accessFor,
    numbers,
    amongOf: (one, element) => {
      const among = numbers.among(one.key, element);
      return among && !allAlike(among) ? amongInWords(element.kind, among) : undefined;
    },
    circumstances,
    taken,
    take: setTaken,
    app,
    mayChange,
    apply: (edit) => store.apply(edit),
  };
  usePaletteActions({ onElement: select, onViewer: setLookedAs });
  // A screen that is given another address stays on the canvas.
  const shown = useRef<{ readonly address: string; readonly screen: string; readonly record?: string }>(
    undefined,
  );
  useEffect(() => {
    const found = readAddress(compiled.tree, address);
    if (found) {
      const { screen, record } = found;
      shown.current = { address, screen: screen.id, ...(record !== undefined && { record }) };
      return;
    }
    const before = shown.current;
    const moved = before?.address === address ? compiled.tree.get(before.screen) : undefined;
    if (moved?.kind === 'screen') void setPlace({ address: addressOf(moved.node, before?.record) });
  }, [compiled, address, setPlace]);
  // The canvas has a screen from the start.
  useEffect(() => {
    if (address === '') void showOnCanvas(selected);
  }, [address, selected, showOnCanvas]);
  useEffect(() => {
    carry(app, { element: selected.id, viewer: viewer.key, address, form });
  }, [app, selected.id, viewer.key, address, form]);
  return {
    bench,
    columns,
    revision,
    address,
    onAddress,
    form,
    setForm: (next: typeof form) => void setPlace({ form: next }),
  };
}

/** The gate that is edited at first: the data's, where it has lines of its own and the handle has none. */
function usualTarget(compiled: ReturnType<typeof compile>, selected: AppElement): AppElement {
  const door = compiled.tree.get(compiled.handles.doorOf(selected)?.id ?? '');
  const atDoor = door && door.kind !== 'screen' && compiled.lines(door.id) && !compiled.lines(selected.id);
  return atDoor ? door : selected;
}

const firstScreen = (definition: Definition): string => definition.areas[0]?.screens[0]?.id ?? definition.id;

/** The screen to draw for an element: its own, the one it leads to, or one that shows it. */
function screenOf(compiled: ReturnType<typeof compile>, element: AppElement) {
  if (element.screen) return element.screen;
  const { tree, handles } = compiled;
  const door = tree.get(handles.doorOf(element)?.id ?? '');
  const leadsTo = door?.kind === 'screen' ? door.node : undefined;
  // The menu of an area stands around the screens of that area only.
  const around = areaAround(element)?.screens;
  if (around && !(leadsTo && around.includes(leadsTo)))
    return around.find(({ binds }) => binds?.record !== 'existing') ?? around[0];
  if (leadsTo) return leadsTo;
  const [first] = handles.handlesOf(element).flatMap((id) => tree.get(id)?.screen ?? []);
  return first;
}

/** The area whose own menu it is, or stands in. */
function areaAround({ kind, container }: AppElement): Area | undefined {
  if (kind !== 'menu' && kind !== 'menu-item') return undefined;
  return container?.kind === 'area' ? container.node : container && areaAround(container);
}

/** Each viewer's access, made when it is first asked for. */
function accesses(compiled: Compiled, at: Circumstances): (one: RailViewer) => Access {
  const known = new Map<RailViewer, Access>();
  return (one) => {
    const access = known.get(one) ?? accessOf(compiled, one.viewer, at);
    known.set(one, access);
    return access;
  };
}
