import { compile, explain, smallestChange, viewerOfPerson } from '@/core';
import { type Explanation, kindsOf, type KnownRecord, type Level, unsharedAccessOf } from '@/core/access';
import { type Definition, sameJson } from '@/core/model';
import type { Edit, EditEffect, TargetLevel } from '@/core/edit';
import { effectOf } from '../drafts/effect';
import { peopleCounted } from '../people/read';
import { notThere } from '../http/problem';
import { knownRecord, storedRecord } from '../records/read';
import type { Looking } from './look';
import { recordAt } from './look-page';

/** The record that is decided on at an element: a row's, where it stands in a list, else the screen's. */
async function recordFor(
  look: Looking,
  element: string,
  address: string,
  row: string | undefined,
): Promise<KnownRecord | undefined> {
  const { tree } = look.scope.access.compiled;
  const found = tree.get(element);
  if (!found) throw notThere();
  const entity = tree.recordOf(found);
  if (!entity) return undefined;
  if (found.list || found.kind === 'list') {
    const stored = row === undefined ? undefined : await storedRecord(look.scope, entity, row);
    return stored && knownRecord(look.scope, entity, stored);
  }
  const record = await recordAt(look, address);
  return record?.entity.id === entity.id ? record : undefined;
}

/** Why the viewer has this level on the element, on the record that is meant; with the values that made it so. */
export async function whyAt(
  look: Looking,
  element: string,
  address: string,
  row: string | undefined,
): Promise<Explanation> {
  const record = await recordFor(look, element, address, row);
  const access = unsharedAccessOf(compile(look.definition), look.viewer, look.circumstances);
  return explain(access, element, record);
}

/** A change that would turn the answer, and what else it would do. */
export interface SuggestedChange {
  readonly edit: Edit;
  readonly gates: readonly string[];
  readonly effect: EditEffect;
}

/**
 * The smallest changes of the draft that give the viewer this level: one that may name the person, and one by
 * what they hold, where that is another. None where lines cannot do it.
 */
export async function turnsAt(
  look: Looking,
  element: string,
  address: string,
  row: string | undefined,
  level: Level,
  run?: Parameters<typeof effectOf>[4],
): Promise<SuggestedChange[]> {
  const { definition, viewer, circumstances: at, scope } = look;
  const record = await recordFor(look, element, address, row);
  const people = await peopleCounted(scope.applicationId);
  const self = viewer.kind === 'signed-in' ? viewer.person : undefined;
  // Kinds of viewers as well: an application without people has roles.
  const everybody = [
    ...kindsOf(definition)
      .map((one) => one.viewer)
      .filter((one) => !sameJson(one, viewer)),
    ...people.filter((one) => one.active && one.id !== self).map(viewerOfPerson),
  ];
  const turn = (naming: TargetLevel['naming']) =>
    smallestChange(definition, { element, viewer, level, at, record, naming }, everybody);
  const [byRoles, byPerson] = [turn('roles'), self === undefined ? undefined : turn('anybody')];
  // Where it only repeats what can be given by roles, the person is not named by it.
  const before = byPerson && linesNaming(self, { ...byPerson, definition });
  const named =
    byPerson && linesNaming(self, byPerson).some((line) => !before?.some((one) => sameJson(one, line)));
  const turns = [...(named ? [byPerson] : []), ...(byRoles ? [byRoles] : [])];
  return Promise.all(
    turns.map(async ({ edit, gates, definition: after }) => ({
      edit,
      gates,
      effect: await effectOf(scope.applicationId, definition, after, viewer, run),
    })),
  );
}

/** The lines of these gates that name the person. */
const linesNaming = (
  person: string | undefined,
  { gates, definition }: { readonly gates: readonly string[]; readonly definition: Definition },
) =>
  gates
    .flatMap((id) => definition.gates[id]?.lines ?? [])
    .filter(({ who }) => who.kind === 'person' && who.person === person);
