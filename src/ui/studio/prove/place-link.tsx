'use client';

import Link from 'next/link';
import { compile } from '@/core';
import { kindInWords } from '@/core/edit';
import { type Definition, type Id, privilegesOf, unitsOf } from '@/core/model';
import { benchHref, useCarried } from '../shell/bench-state';
import { useDraft, useStudio } from '../shell/studio-work';

/** A place by its name, leading to the bench where it is mended; with its kind, where asked for. */
export function PlaceLink({ id, kind = false }: { id: Id; kind?: boolean }) {
  const { app } = useStudio();
  const { definition } = useDraft();
  const carried = useCarried(app);
  const place = placeOf(definition, id);
  if (!place) return <span className="text-quiet">{id} (deleted)</span>;
  const href =
    place.bench === 'gates'
      ? benchHref(app, 'gates', { ...carried, element: id, address: '', form: '' })
      : benchHref(app, 'people', { ...carried, part: place.part });
  return (
    <>
      <Link href={href} className="link" onClick={(event) => event.stopPropagation()}>
        {place.name}
      </Link>
      {kind && `, ${place.kind}`}
    </>
  );
}

interface Place {
  readonly name: string;
  readonly kind: string;
  readonly bench: 'gates' | 'people';
  readonly part: string;
}

/** What an id of a finding names, and where that is mended. */
export function placeOf(definition: Definition, id: Id): Place | undefined {
  const element = compile(definition).tree.get(id);
  if (element) return { name: element.name, kind: kindInWords(element.kind), bench: 'gates', part: '' };
  const lists = [
    ['roles', 'role', definition.roles],
    ['privileges', 'privilege', privilegesOf(definition)],
    ['groups', 'group', definition.groups],
    ['conditions', 'condition', definition.conditions],
    ['units', 'unit', unitsOf(definition)],
    ['facts', 'fact', [...definition.attributes, ...definition.sessionValues]],
  ] as const;
  for (const [part, kind, list] of lists) {
    const found = list.find((one) => one.id === id);
    if (found) return { name: found.name, kind, bench: 'people', part };
  }
  return undefined;
}
