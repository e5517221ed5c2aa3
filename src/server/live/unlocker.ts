import { accessOf, compile, viewerOfPerson } from '@/core';
import { type Access, EDIT, type Level, NONE } from '@/core/access';
import type { AppElement, Definition, Id } from '@/core/model';
import type { HeldUnlock } from '../database/schema';
import { personById } from '../people/read';
import { knownRecord, openRecord, type RecordScope } from '../records/read';

/** Where and when is unlocked: a release in force, at the moment of a request. */
interface Place {
  readonly applicationId: string;
  readonly definition: Definition;
  readonly release: number;
  readonly moment: number;
}

/** Somebody who may open closed places on others' screens: as far as they see what is there themselves. */
export class Unlocker {
  private constructor(
    private readonly place: Place,
    private readonly access: Access,
  ) {}

  /** Undefined where they may not sign in or do not hold the privilege, or where nothing is unlocked in the application. */
  static async of(place: Place, personId: string): Promise<Unlocker | undefined> {
    const { applicationId, definition, moment } = place;
    const person = await personById(applicationId, personId);
    if (!definition.unlock || !person?.active) return undefined;
    const access = accessOf(compile(definition), viewerOfPerson(person), { moment });
    const { privilege } = definition.unlock;
    return access.held.isSpokenOf({ kind: 'privilege', privilege })('be true') === true
      ? new Unlocker(place, access)
      : undefined;
  }

  /** Their own level there, by their own doors: a record that they could not see is not theirs to show. */
  async levelOn(element: AppElement, recordId: Id): Promise<Level> {
    const { access, place } = this;
    const entity = access.compiled.tree.recordOf(element);
    const { applicationId, release } = place;
    const scope: RecordScope = { applicationId, release, access, kind: 'live' };
    const seen = entity && (await openRecord(scope, entity, recordId));
    return seen ? access.level(element, await knownRecord(scope, entity, seen)) : NONE;
  }
}

/**
 * What is unlocked at this moment, of what a session holds: on a record each, and only while who unlocked it may, and has
 * there what they gave. What an earlier version unlocked on no record is nothing.
 */
export async function unlocksInForce(place: Place, held: readonly HeldUnlock[]): Promise<HeldUnlock[]> {
  const { tree } = compile(place.definition);
  const unlockers = new Map<string, Promise<Unlocker | undefined>>();
  const found: HeldUnlock[] = [];
  for (const one of held) {
    const element = tree.get(one.element);
    if (place.moment >= one.until || typeof one.record !== 'string' || !element) continue;
    const by = unlockers.get(one.by) ?? Unlocker.of(place, one.by);
    unlockers.set(one.by, by);
    const level = (await (await by)?.levelOn(element, one.record)) ?? NONE;
    if (level > NONE && !(one.what === 'edit' && level < EDIT)) found.push(one);
  }
  return found;
}
