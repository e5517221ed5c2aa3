import { eq } from 'drizzle-orm';
import { compile } from '@/core/access/compile';
import { EDIT, NONE, type Level } from '@/core/access/level';
import { viewerOfPerson, type Unlocked } from '@/core/access/viewer';
import type { Id } from '@/core/model/id';
import { isDataDoor } from '@/core/model/tree';
import { database } from '../database/client';
import { auditEvents, sessions, type HeldUnlock } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { personById } from '../people/read';
import { knownRecord, openRecord, type Scope } from '../records/read';
import { hashToken } from '../security/sessions';
import { personWithPassword } from '../security/sign-in';
import { requireOneself } from './standing';
import { scopeOf, type Visit } from './visit';

/**
 * Opens one locked element for a while, on the screen of somebody else: the unlocker signs in over it. It
 * acts as a line for that session, that element and that record alone, gives no more than the unlocker has
 * there, and is in the audit trail under both names. Returns for how many minutes.
 */
export async function unlock(
  visit: Visit,
  elementId: Id,
  recordId: Id | undefined,
  credentials: { readonly email: string; readonly password: string },
): Promise<number> {
  requireOneself(visit);
  const { access, token, person, applicationId } = visit;
  const { tree, definition, handles } = access.compiled;
  const rule = definition.unlock;
  const element = tree.get(elementId);
  if (!rule || !element || !token || !person || access.compiled.closed(elementId)?.show !== 'locked')
    throw notThere();
  const entity = tree.recordOf(element);
  const scope = scopeOf(visit);
  const stored = entity && recordId !== undefined ? await openRecord(scope, entity, recordId) : undefined;
  if (entity && element.screen?.binds?.record === 'existing' && !stored) throw notThere();
  const record = entity && stored ? await knownRecord(scope, entity, stored) : undefined;
  if (access.level(element, record) > NONE)
    throw new Refused(409, 'open', 'This is open already. Load the page again.');
  const unlockerId = await personWithPassword(applicationId, credentials.email, credentials.password);
  const unlocker = await personById(applicationId, unlockerId);
  if (!unlocker || unlocker.id === person.id) throw mayNot();
  const theirs = compile(definition).access(viewerOfPerson(unlocker), {
    moment: visit.circumstances.moment,
  });
  const holds = theirs.held.isSpokenOf({ kind: 'privilege', privilege: rule.privilege })('be true');
  // Their own doors: a record that they could not see is not theirs to show.
  const theirScope: Scope = { ...scope, access: theirs };
  const seen = entity && record ? await openRecord(theirScope, entity, record.id) : undefined;
  const theirRecord = entity && seen ? await knownRecord(theirScope, entity, seen) : undefined;
  const level: Level = entity && record && !theirRecord ? NONE : theirs.level(element, theirRecord);
  if (holds !== true || level === NONE) throw mayNot();
  const door = handles.doorOf(element);
  const doorElement = door && tree.get(door.id);
  const gates = [elementId, ...(doorElement && isDataDoor(doorElement) ? [doorElement.id] : [])];
  const until = visit.circumstances.moment + rule.minutes * 60_000;
  const made = gates.map((gate): HeldUnlock => ({
    element: gate,
    what: level === EDIT ? 'edit' : 'see',
    ...(record && { record: record.id }),
    by: unlocker.id,
    until,
  }));
  const opened = compile(definition).access(visit.viewer, {
    ...visit.circumstances,
    unlocked: [...(visit.circumstances.unlocked ?? []), ...made.map(plain)],
  });
  if (opened.level(element, record) === NONE)
    throw new Refused(
      409,
      'container',
      'This cannot be unlocked by itself: what it stands in is closed too.',
    );
  await database().transaction(async (tx) => {
    const where = eq(sessions.tokenHash, hashToken(token));
    const [row] = await tx.select({ unlocked: sessions.unlocked }).from(sessions).where(where).for('update');
    if (!row) throw notThere();
    await tx
      .update(sessions)
      .set({ unlocked: [...row.unlocked, ...made] })
      .where(where);
    await tx.insert(auditEvents).values({
      applicationId,
      personId: person.id,
      what: 'unlocked',
      detail: {
        element: elementId,
        by: unlocker.id,
        minutes: rule.minutes,
        ...(record && { record: record.id }),
      },
    });
  });
  return rule.minutes;
}

const plain = ({ element, record, what }: HeldUnlock): Unlocked => ({
  element,
  what,
  ...(record !== undefined && { record }),
});

const mayNot = (): Refused => new Refused(403, 'may-not-unlock', 'This person may not unlock this here.');
