'use client';

import { X } from 'lucide-react';
import { compile } from '@/core';
import type { LookPage } from '@/core/access';
import type { Definition } from '@/core/model';
import { useLook } from './context';
import { MoreMenu } from './more-menu';
import type { PaneState } from './pane-state';
import { RecordChoice } from '../frame/record-choice';
import { ViewerChoice } from './viewer-choice';
import { WhenChoice } from './when-choice';

interface Props {
  readonly letter: string;
  readonly state: PaneState;
  readonly id: string;
  readonly active: boolean;
  readonly only: boolean;
  readonly definition: Definition;
  readonly page: LookPage | undefined;
  readonly address: string;
  readonly onState: (state: PaneState) => void;
  readonly onViewer: (key: string) => void;
  readonly onGo: (address: string) => void;
  readonly onMakeUp: () => void;
  readonly onClose: () => void;
  readonly onThrowAway: () => void;
  readonly onKept: () => void;
}

/** What stands above a pane: who looks, at which record, when and at which draft or release. */
export function PaneHead(props: Props) {
  const { letter, state, id, active, only, definition, page, address, onState, onGo, onKept } = props;
  const { onViewer, onMakeUp, onClose, onThrowAway } = props;
  const { app, draft, kept } = useLook();
  return (
    <div className="mb-1.5 flex min-w-0 items-center gap-1.5">
      <span
        aria-hidden
        className={`grid size-6 shrink-0 place-items-center rounded-sm font-semibold ${active ? 'bg-ink text-white' : 'border border-edge bg-paper'}`}
      >
        {letter}
      </span>
      <ViewerChoice
        app={app}
        definition={draft.definition}
        kept={kept}
        name={page?.viewerName ?? '…'}
        onChoose={onViewer}
        onMakeUp={onMakeUp}
      />
      <RecordChoice
        app={app}
        compiled={compile(definition)}
        address={address}
        records={state.records}
        onAddress={onGo}
      />
      <WhenChoice
        definition={definition}
        state={state}
        onChange={(change) => onState({ ...state, ...change })}
      />
      {state.on !== 'draft' && (
        <span className="shrink-0 rounded-sm bg-lead px-1.5 text-[12px] text-white">
          {state.on.startsWith('release:')
            ? `Release ${state.on.slice('release:'.length)}`
            : `Draft at ${state.on.slice('draft:'.length)}`}
        </span>
      )}
      <span className="ml-auto flex shrink-0 items-center">
        <MoreMenu
          letter={letter}
          state={state}
          id={id}
          changes={page?.changes ?? 0}
          onState={onState}
          onThrowAway={onThrowAway}
          onKept={onKept}
        />
        {!only && (
          <button
            type="button"
            aria-label={`Close pane ${letter}`}
            className="grid size-[24px] place-items-center hover:bg-sheet"
            onClick={onClose}
          >
            <X size={15} aria-hidden />
          </button>
        )}
      </span>
    </div>
  );
}
