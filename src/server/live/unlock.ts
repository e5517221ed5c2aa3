import { eq } from 'drizzle-orm';
import { accessOf, compile } from '@/core';
import { type Access, EDIT, NONE, type ShownUnlock } from '@/core/access';
import { type AppElement, type Id, isDataDoor } from '@/core/model';
import type { Client } from '../security/attempts';
import { database } from '../database/client';
import { auditEvents, sessions, type HeldUnlock } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { namesOf } from '../people/read';
import { knownRecord, openRecord } from '../records/read';
import { hashToken } from '../security/sessions';
import { personWithPassword } from '../security/sign-in';
import { requireOneself } from './acting-as';
import { Unlocker } from './unlocker';
import { scopeOf } from './visit';
import type { Visit } from './who-visits';

/**
 * Opens one locked or explained element on one record for a while, on the screen of somebody else: the unlocker
 * signs in over it, and must be able to see that record too. It acts as a line for that session, that element and
 * that record alone, gives no more than the unlocker has there, and is in the audit trail under both names. What
 * is about no record, or about one that is only being made, cannot be unlocked. Returns for how many minutes.
 */
export async function unlock(
  visit: Visit,
  elementId: Id,
  recordId: Id,
  credentials: { readonly email: string; readonly password: string },
  client: Client,
): Promise<number> {
  requireOneself(visit);
  const { access, token, person, applicationId, release } = visit;
  const { tree, definition, handles } = access.compiled;
  const rule = definition.unlock;
  const element = tree.get(elementId);
  if (!rule || !element || !token || !person || !canBeUnlocked(access, element)) throw notThere();
  const entity = tree.recordOf(element);
  const scope = scopeOf(visit);
  const stored = entity && (await openRecord(scope, entity, recordId));
  if (!stored) throw notThere();
  const record = await knownRecord(scope, entity, stored);
  if (access.level(element, record) > NONE)
    throw new Refused(409, 'open', 'This is already unlocked. Reload the page.');
  const unlockerId = await personWithPassword(applicationId, credentials.email, credentials.password, client);
  if (unlockerId === person.id) throw mayNot();
  const { moment } = visit.circumstances;
  const unlocker = await Unlocker.of({ applicationId, definition, release, moment }, unlockerId);
  const level = (await unlocker?.levelOn(element, record.id)) ?? NONE;
  if (level === NONE) throw mayNot();
  const door = handles.doorOf(element);
  const doorElement = door && tree.get(door.id);
  const gates = [elementId, ...(doorElement && isDataDoor(doorElement) ? [doorElement.id] : [])];
  const until = moment + rule.minutes * 60_000;
  const made = gates.map((gate): HeldUnlock => ({
    element: gate,
    what: level === EDIT ? 'edit' : 'see',
    record: record.id,
    by: unlockerId,
    until,
  }));
  const opened = accessOf(compile(definition), visit.viewer, {
    ...visit.circumstances,
    unlocked: [...(visit.circumstances.unlocked ?? []), ...made],
  });
  if (opened.level(element, record) === NONE)
    throw new Refused(
      409,
      'container',
      'This cannot be unlocked separately, because its container is closed too.',
    );
  await changeUnlocked(token, (held) => [...held, ...made], {
    applicationId,
    personId: person.id,
    what: 'unlocked',
    detail: { element: elementId, by: unlockerId, minutes: rule.minutes, record: record.id },
  });
  return rule.minutes;
}

/** What is shown as closed on a screen, in a record: not what makes one, nor a list, whose rows are many. */
function canBeUnlocked({ compiled }: Access, element: AppElement): boolean {
  const show = compiled.closed(element.id)?.show;
  if (show !== 'locked' && show !== 'explained') return false;
  if (element.kind === 'list' || (!element.list && element.screen?.binds?.record !== 'existing'))
    return false;
  return compiled.tree.recordOf(element) !== undefined;
}

/** Locks again at once what was unlocked: the element on the record, with the door of its data. */
export async function lockAgain(visit: Visit, elementId: Id, recordId: Id): Promise<void> {
  const { access, token, person, applicationId } = visit;
  const element = access.compiled.tree.get(elementId);
  if (!element || !token || !person) throw notThere();
  const door = access.compiled.handles.doorOf(element)?.id;
  await changeUnlocked(
    token,
    (held) => held.filter((one) => one.record !== recordId || ![elementId, door].includes(one.element)),
    {
      applicationId,
      personId: person.id,
      what: 'locked-again',
      detail: { element: elementId, record: recordId },
    },
  );
}

async function changeUnlocked(
  token: string,
  change: (held: HeldUnlock[]) => HeldUnlock[],
  event: typeof auditEvents.$inferInsert,
): Promise<void> {
  await database().transaction(async (tx) => {
    const where = eq(sessions.tokenHash, hashToken(token));
    const [row] = await tx
      .select({ unlocked: sessions.unlocked })
      .from(sessions)
      .where(where)
      .for('no key update');
    if (!row) throw notThere();
    await tx
      .update(sessions)
      .set({ unlocked: change(row.unlocked) })
      .where(where);
    await tx.insert(auditEvents).values(event);
  });
}

/** What is unlocked for this visit on the record of a page: each element once, by whom, and until when. */
export async function unlockedOn(visit: Visit, records: readonly Id[]): Promise<ShownUnlock[]> {
  const { tree } = visit.access.compiled;
  const held = visit.unlocked.filter(
    ({ element, record }) => records.includes(record) && !isDoor(tree.get(element)),
  );
  if (held.length === 0) return [];
  const names = await namesOf(
    visit.applicationId,
    held.map(({ by }) => by),
  );
  return held.map(({ element, record, by, until }) => ({
    element,
    record,
    name: tree.get(element)?.name ?? '',
    by: names.get(by) ?? 'Someone',
    until,
  }));
}

const isDoor = (element: AppElement | undefined): boolean => element !== undefined && isDataDoor(element);

const mayNot = (): Refused =>
  new Refused(403, 'may-not-unlock', 'This person does not have permission to unlock this.');
