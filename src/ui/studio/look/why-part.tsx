'use client';

import { compile, type Numbers, readAddress } from '@/core';
import type { Compiled } from '@/core/access';
import type { AppElement } from '@/core/model';
import { type Edit, type PersonName, placeInWords } from '@/core/edit';
import { useAsked } from '@/ui/client/queries';
import { lookWhy } from '@/contract/studio/look';
import { ExpectIt } from '../shared/expect-it';
import { SomeOfThem } from '../shared/some-of-them';
import type { ConditionOverrides } from '../shared/condition-overrides';
import { SuggestedChangePart } from '../shared/suggested-change';
import { WhyView } from '../shared/why-view';
import { useLook, type InspectedElement } from './context';
import { letterOf } from './look-rail';
import { lookQuery, type PaneState } from './pane-state';
import { useDefinition } from './use-definition';

interface Props {
  readonly asked: InspectedElement;
  readonly state: PaneState;
  readonly paneId: string;
  /** Where the pane is now. */
  readonly address: string;
  readonly viewerName: string;
  readonly personName: PersonName;
  readonly numbers: Numbers;
  readonly onLook: (person: string) => void;
  readonly onTake: (taken: ConditionOverrides) => void;
  readonly apply: (edit: Edit) => void;
  readonly onGate: (id: string) => void;
  /** Turns the pane to the draft as it is now: only there a change can be made. */
  readonly onDraft: () => void;
}

/** Why a pane's viewer has this level on what was asked about, on that very record, and what would turn it. */
export function WhyPart(props: Props) {
  const { asked, state, paneId, address, viewerName, personName, apply, onGate, onDraft } = props;
  const { app, draft, mayChange } = useLook();
  const { definition } = useDefinition(app, state.on, draft.definition);
  const compiled = compile(definition);
  const element = compiled.tree.get(asked.element);
  const query = new URLSearchParams(lookQuery(state, paneId));
  query.set('element', asked.element);
  query.set('address', address);
  if (asked.row !== undefined) query.set('row', asked.row);
  const text = query.toString();
  const { data: explanation, error } = useAsked(lookWhy, { app, query: text }, { version: draft.revision });
  if (!element) return null;
  const isHead = state.on === 'draft' || state.on === `draft:${draft.revision}`;
  return (
    <section aria-label="Why" className="border-t-2 border-ink pt-2">
      <p className="mb-1 text-[12px] text-quiet">
        Pane {letterOf(asked.pane)}. {placeInWords(element)}
        {asked.row !== undefined && ', on the selected row'}
      </p>
      {error && <p role="alert">{error.message}</p>}
      {explanation && (
        <div aria-live="polite">
          <WhyView
            compiled={compiled}
            explanation={explanation}
            element={element}
            viewerName={viewerName}
            personName={personName}
            onGate={onGate}
            {...(state.records === 'sample' && {
              taking: { taken: state.taken ?? {}, onTake: (taken) => props.onTake(taken) },
            })}
          />
          <SomeOfThem
            numbers={props.numbers}
            viewer={state.viewer}
            viewerName={viewerName}
            element={element}
            onLook={props.onLook}
          />
          {isHead ? (
            <SuggestedChangePart
              key={`${text} ${draft.revision}`}
              compiled={compiled}
              element={element}
              answer={explanation.answer}
              viewerName={viewerName}
              personName={personName}
              app={app}
              looks={text}
              mayChange={mayChange}
              apply={apply}
              onGate={onGate}
            />
          ) : (
            <p className="mt-3 text-quiet">
              This pane does not show the current draft. To see what would change the result, switch it to{' '}
              <button type="button" className="link" onClick={onDraft}>
                the current draft
              </button>
              .
            </p>
          )}
          {isHead && mayChange && (
            <ExpectIt
              key={`expect ${text}`}
              name={`${element.name} for ${viewerName}`}
              of={{
                viewer: state.viewer,
                element: element.id,
                record: recordOf(compiled, element, state, address, asked.row),
                moment: state.moment,
              }}
            />
          )}
        </div>
      )}
    </section>
  );
}

/** The sample record that the answer is about: the row's, or the screen's. */
function recordOf(
  { tree }: Compiled,
  element: AppElement,
  state: PaneState,
  address: string,
  row: string | undefined,
): { readonly entity: string; readonly id: string } | undefined {
  const entity = tree.recordOf(element);
  const id = row ?? readAddress(tree, address)?.record;
  return entity && id !== undefined && state.records === 'sample' ? { entity: entity.id, id } : undefined;
}
