import { accessOf, viewerOfPerson } from '@/core';
import { type Access, addressOf, type KnownRecord, NONE } from '@/core/access';
import type { AppElement } from '@/core/model';
import { isLockable, mayUnlock, type Predicted, unlocking } from '@/core/sweep';
import { personOfCopy } from '../copy';
import { type SweepContext, base, type Case, levelsOn, ofEachSort, recordsOf } from './case';

/** Somebody whose password unlocks, or not. */
interface Unlocker {
  readonly place: number;
  readonly access: Access;
}

/**
 * What is shown as closed, unlocked for the viewer with a password: by somebody who may, and then it is read and locked
 * again; and by those who may not, of each sort one.
 */
export function* unlocks(asked: SweepContext, element: AppElement): Generator<Case> {
  const { access, copy } = asked;
  if (!copy.definition.unlock || !isLockable(access, element)) return;
  const tried = new Set<string>();
  const entity = access.compiled.tree.recordOf(element);
  const records = recordsOf(asked, entity?.id ?? '');
  const rows = entity && access.element(entity.id);
  const unlockers = everybody(asked);
  for (const record of ofEachSort(asked, records, (one) => levelsOn(asked, rows ? [element, rows] : [], one)))
    for (const unlocker of unlockers) {
      const opened = openedBy(asked, unlocker, element, record);
      const sort = opened ? 'may' : sortOf(asked, unlocker, element, record);
      if (tried.has(sort)) continue;
      tried.add(sort);
      yield* unlocked(asked, unlocker, element, record, opened);
    }
}

/** By what it is refused. */
function sortOf(
  { access, self }: SweepContext,
  { access: theirs, place }: Unlocker,
  ...[element, record]: Place
): string {
  if (self === undefined) return `by nobody ${mayUnlock(theirs)}`;
  if (access.level(element, record) > NONE) return 'open';
  if (place === self) return 'by oneself';
  const rows = access.element(record.entity.id);
  return [
    access.level(rows, record),
    mayUnlock(theirs),
    theirs.level(rows, record),
    theirs.level(element, record),
  ].join();
}

type Place = readonly [element: AppElement, record: KnownRecord];

function openedBy(
  { access, self }: SweepContext,
  { access: theirs, place }: Unlocker,
  ...on: Place
): Access | undefined {
  return self === undefined || place === self ? undefined : unlocking(access, theirs, ...on);
}

function* unlocked(
  { copy, predictor }: SweepContext,
  { place }: Unlocker,
  element: AppElement,
  record: KnownRecord,
  opened: Access | undefined,
): Generator<Case> {
  const about = element.id;
  const path = `${base(copy)}/api/unlock`;
  const body = { element: element.id, record: record.id };
  const person = copy.people[place];
  const email = person && personOfCopy(person).attributes['email'];
  const asking = { method: 'POST', path, body: { ...body, email, password: copy.password } };
  if (!opened) {
    yield { asking, refused: true, about };
    return;
  }
  const by = predictor.with(opened, place);
  const { screen } = element;
  // What opening a screen sets would be told of it, not of this.
  const address =
    screen && !screen.sets && addressOf(screen, screen.binds?.record === 'existing' ? record.id : undefined);
  const read = (at: string, predicted: Predicted) => ({
    asking: { path: `${base(copy)}/${at}` },
    does: { predicted, by },
    about,
  });
  yield {
    asking,
    does: { by },
    then: [
      read(`api/records/${record.entity.id}/${record.id}`, by.one(record)),
      ...(address ? [read(address, by.page(address))] : []),
      { asking: { method: 'DELETE', path, body }, does: { by: predictor }, about },
    ],
    about,
  };
}

function everybody({ copy, access }: SweepContext): Unlocker[] {
  const { moment } = access.held.circumstances;
  return copy.people.map((swept, place) => ({
    place,
    access: accessOf(access.compiled, viewerOfPerson(personOfCopy(swept)), { moment }),
  }));
}
