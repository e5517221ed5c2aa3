'use client';

import { NuqsAdapter } from 'nuqs/adapters/next/app';
import { useCallback, useMemo, useRef, useState, useSyncExternalStore, type ReactNode } from 'react';
import { difference } from '@/core';
import type { UndoState } from '@/core/edit';
import { type Definition, withSameParts } from '@/core/model';
import { send } from '@/ui/client/send';
import { Queries } from '@/ui/client/queries';
import { Toasts, useTell } from '@/ui/parts/toasts';
import { keepPins } from '@/contract/studio/builders';
import { GettingStarted } from './getting-started';
import { SavedState } from './saved-state';
import { StudioBar } from './studio-bar';
import { StudioProvider, useDraft, useStudio, type PaletteActions, type StudioWork } from './studio-work';
import { UndoRedo } from './undo-redo';
import { useDraftStore } from './use-draft-store';
import { useNews } from './use-news';

interface Props {
  readonly slug: string;
  readonly applications: readonly { readonly slug: string; readonly name: string }[];
  readonly builder: string;
  readonly mayChange: boolean;
  readonly mayRelease: boolean;
  readonly mayManage: boolean;
  readonly owns: boolean;
  /** The draft's definition as JSON: a large one is quicker to pass on so. */
  readonly draft: string;
  readonly revision: number;
  readonly standing: UndoState;
  /** The definition of the release in force as JSON; undefined where it is the draft's. */
  readonly released: { readonly number: number; readonly definition: string | undefined } | undefined;
  readonly pins: readonly string[];
  /** The bench that one is at. */
  readonly children: ReactNode;
}

const never = (): (() => void) => () => undefined;

/**
 * The studio around its benches: the bar, and the one draft that lives across them. It is drawn in the browser only: the
 * server has no screen to work a whole application out for.
 */
export function Studio(props: Props) {
  const inBrowser = useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
  if (!inBrowser)
    return (
      <p role="status" className="p-6 text-quiet">
        Opening the application…
      </p>
    );
  return <InBrowser {...props} />;
}

function InBrowser({ draft, released, ...props }: Props) {
  const [definition] = useState(() => JSON.parse(draft) as Definition);
  // The draft that came with the release: by now the one here may have gone on from the first.
  const before = useMemo(
    () =>
      released && {
        number: released.number,
        definition: JSON.parse(released.definition ?? draft) as Definition,
      },
    [released, draft],
  );
  const parsed = { ...props, definition, released: before };
  return (
    <NuqsAdapter>
      <Queries>
        <Toasts>
          <Inside {...parsed} />
        </Toasts>
      </Queries>
    </NuqsAdapter>
  );
}

interface Parsed extends Omit<Props, 'draft' | 'released'> {
  readonly definition: Definition;
  readonly released: { readonly number: number; readonly definition: Definition } | undefined;
}

function Inside({ children, ...props }: Parsed) {
  const { slug: app, mayChange, mayManage, mayRelease, owns } = props;
  const isNew = mayChange && !props.released;
  const tell = useTell();
  const store = useDraftStore(app, props, mayChange);
  useNews(app, store);
  const [pins, setPins] = useState(props.pins);
  const pin = useCallback(
    (people: readonly string[]): void => {
      setPins(people);
      // Also where the page is left at once.
      const kept = send(keepPins, { app, body: { people: [...people] } }, { keepalive: true });
      void kept.then((answer) => answer.ok || tell(answer.detail));
    },
    [app, tell],
  );
  const actionsRef = useRef<PaletteActions>({});
  const work = useMemo(
    (): StudioWork => ({ app, store, mayChange, mayManage, mayRelease, owns, isNew, pins, pin, actionsRef }),
    [app, store, mayChange, mayManage, mayRelease, owns, isNew, pins, pin],
  );
  return (
    <StudioProvider value={work}>
      <div className="grid h-screen min-w-[1000px] grid-rows-[46px_auto_minmax(0,1fr)]">
        <Bar {...props} />
        <div>
          <GettingStarted />
        </div>
        {children}
      </div>
    </StudioProvider>
  );
}

/** The bar over the draft: what waits for a release, whether all is saved, undo and redo. */
function Bar({ applications, builder, released }: Omit<Parsed, 'children'>) {
  const { mayChange, store } = useStudio();
  const draft = useDraft();
  const { definition } = draft;
  // The page has both whole: with the parts that they have in common once, what differs is found after an edit at once.
  const before = useMemo(
    () => released && withSameParts(store.read().definition, released.definition),
    [released, store],
  );
  const waiting = useMemo(() => (before ? difference(before, definition).length : 1), [before, definition]);
  return (
    <StudioBar name={definition.name} applications={applications} builder={builder} waiting={waiting}>
      <SavedState draft={draft} waiting={waiting} released={released?.number} mayChange={mayChange} />
      {mayChange && <UndoRedo store={store} draft={draft} />}
    </StudioBar>
  );
}
