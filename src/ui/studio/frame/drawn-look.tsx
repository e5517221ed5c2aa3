'use client';

import { useMemo } from 'react';
import { readAddress } from '@/core';
import type { Compiled, LookPage } from '@/core/access';
import { MenuView } from '../../live/menu-view';
import { NothingOpen, NotThere, Refused } from '../../live/refusals';
import { ScreenView } from '../../live/screen-view';
import { frameWithGhosts, withGhostItems, withGhosts } from '../shared/ghosts';

interface Props {
  readonly compiled: Compiled;
  readonly page: LookPage;
  readonly address: string;
  readonly ghosts: boolean;
  /** What tells this drawing from another: forms start anew with it. */
  readonly at: string;
  /** The screen is being shaped: all of its faces are named, and which of them is drawn. */
  readonly shaping?: { readonly face: string | undefined };
}

/** A page as its viewer has it, drawn by the same code as a release; with the ghosts of what they do not get. */
export function DrawnLook(props: Props) {
  const { compiled, page, address, ghosts } = props;
  const frame = ghosts
    ? frameWithGhosts(compiled, page.frame, readAddress(compiled.tree, address)?.screen)
    : page.frame;
  const own = frame.id !== compiled.definition.menu.id;
  return (
    <div className="grid min-h-full grid-cols-[124px_minmax(0,1fr)] text-[13px]">
      <div className="border-r border-rule py-2">
        {own && (
          <p data-element={frame.id} className="px-3 pb-2 font-semibold break-words">
            {frame.name}
          </p>
        )}
        <MenuView
          items={ghosts ? withGhostItems(compiled, frame, page.levels) : frame.menu}
          current={address}
        />
      </div>
      <div className="min-w-0 bg-plate p-3">
        <Content {...props} />
      </div>
    </div>
  );
}

function Content({ compiled, page: { outcome, viewerName, levels }, address, ghosts, at, shaping }: Props) {
  const destination = readAddress(compiled.tree, address);
  const screen = destination?.screen;
  const face = shaping?.face;
  const isShaping = shaping !== undefined;
  // Another page only where something else is drawn: what is written in a form is asked about for each.
  const open = useMemo(() => {
    if (outcome.is !== 'open') return undefined;
    const { page } = outcome;
    if (!ghosts || screen?.id !== page.screen.id) return page;
    const drawn = withGhosts(compiled, screen, page.screen, levels, isShaping ? { face } : undefined);
    return { ...page, screen: drawn };
  }, [compiled, outcome, levels, ghosts, screen, isShaping, face]);
  if (open) return <ScreenView key={at} page={open} />;
  return (
    <>
      <div className="mb-4 border-l-4 border-ink bg-paper px-3 py-2">
        {outcome.is === 'sign-in' && (
          <p>
            <strong>{viewerName}</strong> is asked to sign in here, and then returns to this address.
          </p>
        )}
        {outcome.is === 'refused' && <Refused text={outcome.text} />}
        {outcome.is === 'not-there' && <NotThere />}
        {outcome.is === 'nothing-open' && <NothingOpen />}
      </div>
      {ghosts && destination && (
        <ScreenView
          page={{
            address,
            lists: {},
            screen: withGhosts(compiled, destination.screen, undefined, levels, shaping),
          }}
        />
      )}
    </>
  );
}
