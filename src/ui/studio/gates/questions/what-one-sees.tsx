'use client';

import { useMemo, type ReactNode } from 'react';
import { reachOf } from '@/core';
import type { Reached, ReachedPlace } from '@/core/access';
import { answerInWords, kindInWords } from '@/core/edit';
import type { ElementKind } from '@/core/model';
import { useBench, type RailViewer } from '../../frame/bench';
import { LevelMark } from '../../shared/level-mark';
import { Select } from '@/ui/parts/select';

/** What can X see: a viewer's whole reach, as a list to read. */
export function WhatOneSees({ columns, forms }: { columns: readonly RailViewer[]; forms: ReactNode }) {
  const { viewer, look, accessFor } = useBench();
  const reach = useMemo(() => reachOf(accessFor(viewer)), [accessFor, viewer]);
  const opening = reach.screens.filter(({ answer }) => answer.least > 0).length;
  const inside = reach.screens.flatMap((one) => one.inside);
  const count = (kinds: readonly string[], least: number): number =>
    inside.filter(({ element, answer }) => kinds.includes(element.kind) && answer.most >= least).length;
  return (
    <section aria-label="By viewer" className="col-span-2 flex min-h-0 min-w-0 flex-col bg-paper">
      <div className="flex flex-wrap items-center gap-3 border-b border-rule px-3 py-2">
        {forms}
        <label className="flex items-center gap-2">
          What can
          <Select
            className="w-52"
            value={viewer.key}
            aria-label="Viewer"
            onChoose={look}
            options={columns.map((one) => ({ id: one.key, name: one.name }))}
          />
          see?
        </label>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto px-5 py-3">
        <h2 className="text-lg font-semibold">
          {viewer.name} can open {opening} of {reach.of.screens} screens
          {reach.screens.length > opening &&
            `, and ${reach.screens.length - opening} more depending on the record or person`}
        </h2>
        <p className="mb-3 text-quiet">
          On them: {count(['field', 'column'], 1)} fields and columns they can see, {count(['field'], 2)}{' '}
          fields they can edit, {count(['button'], 2)} buttons they can use. They can see records of{' '}
          {reach.data.length} of {reach.of.data} entities.
        </p>
        {reach.screens.length === 0 && <p>{viewer.name} cannot open any screen.</p>}
        {reach.screens.map((place) => (
          <PlaceView key={place.element.id} place={place} />
        ))}
        {reach.data.length > 0 && (
          <h2 className="mt-5 mb-1 border-t-2 border-ink pt-2 text-lg font-semibold">
            Data behind the screens, by door
          </h2>
        )}
        {reach.data.map((place) => (
          <PlaceView key={place.element.id} place={place} />
        ))}
      </div>
    </section>
  );
}

/** A screen or a kind of records, with what of it one gets; what is alike stands in one line. */
function PlaceView({ place }: { place: ReachedPlace }) {
  const { select, viewer, amongOf } = useBench();
  const { element, answer, inside } = place;
  const amongst = (one: Reached): string => {
    const among = amongOf(viewer, one.element);
    return among && one.answer.least < one.answer.most ? ` (${among})` : '';
  };
  const groups = new Map<string, Reached[]>();
  for (const one of inside) {
    const key = `${answerInWords(one.element.kind, one.answer)} ${kindInWords(one.element.kind)}`;
    groups.set(key, [...(groups.get(key) ?? []), one]);
  }
  return (
    <section className="mb-3">
      <h3 className="flex items-center gap-2 font-semibold">
        <LevelMark answer={answer} />
        <button type="button" className="min-h-[24px] hover:underline" onClick={() => select(element.id)}>
          {element.name}
        </button>
        <span className="font-normal text-quiet">
          {answerInWords(element.kind, answer)}
          {amongst(place)}
          {element.kind === 'screen' && ` · ${element.container?.name ?? ''}`}
        </span>
      </h3>
      <dl className="ml-5 grid grid-cols-[9rem_1fr] gap-x-3">
        {[...groups.values()].map((some) => {
          const [first] = some;
          if (!first) return null;
          return (
            <div key={first.element.id} className="contents">
              <dt className="flex items-center gap-1.5 text-quiet">
                <LevelMark answer={first.answer} />
                {answerInWords(first.element.kind, first.answer)} · {countOf(some.length, first.element.kind)}
              </dt>
              <dd>
                {some.map(({ element: one }, n) => (
                  <span key={one.id}>
                    {n > 0 && ', '}
                    <button
                      type="button"
                      className="min-h-[24px] text-left hover:underline"
                      onClick={() => select(one.id)}
                    >
                      {one.name}
                      {amongst({ element: one, answer: first.answer })}
                    </button>
                  </span>
                ))}
              </dd>
            </div>
          );
        })}
      </dl>
    </section>
  );
}

const countOf = (n: number, kind: ElementKind): string => {
  const word = kindInWords(kind).toLowerCase();
  return n === 1 || kind === 'data-field' || kind === 'people' ? `${n} ${word}` : `${n} ${word}s`;
};
