import { eq } from 'drizzle-orm';
import { EDIT } from '@/core/access/level';
import type { Id } from '@/core/model/id';
import type { Value } from '@/core/model/value';
import { database } from '../database/client';
import { auditEvents, sessions, type HeldValue } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { knownRecord, openRecord, type Scope } from '../records/read';
import { hashToken } from '../security/sessions';
import { requireOneself } from './standing';
import { scopeOf, type Visit } from './visit';

/**
 * What a button sets when it is pressed: the session value, what to (null takes it away), and for how many
 * minutes. Refused where the button is not usable: `record` is that of its screen or row.
 */
export async function sessionButton(
  scope: Scope,
  buttonId: Id,
  record: Id | undefined,
): Promise<{ readonly id: Id; readonly to: Value | null; readonly minutes: number }> {
  const { access } = scope;
  const { tree, definition } = access.compiled;
  const element = tree.get(buttonId);
  if (element?.kind !== 'button' || element.node.effect.do !== 'set-session') throw notThere();
  const entity = tree.recordOf(element);
  const stored = entity && record !== undefined ? await openRecord(scope, entity, record) : undefined;
  const known = entity && stored ? await knownRecord(scope, entity, stored) : undefined;
  // On a record's screen, or in a list, it is decided on that record; nothing less will do.
  if ((entity && !known) || access.level(element, known) < EDIT)
    throw new Refused(403, 'action-closed', 'You may not do this here.');
  const { value: id, to } = element.node.effect;
  const declared = definition.sessionValues.find((one) => one.id === id);
  if (!declared) throw notThere();
  return { id, to, minutes: declared.minutes };
}

/** Sets what a button sets, for this session, until its time is over. Only the server sets it. */
export async function pressSessionButton(visit: Visit, buttonId: Id, record?: Id): Promise<void> {
  requireOneself(visit);
  const { token, person } = visit;
  if (!token || !person) throw notThere();
  const { id, to, minutes } = await sessionButton(scopeOf(visit), buttonId, record);
  const until = visit.circumstances.moment + minutes * 60_000;
  await database().transaction(async (tx) => {
    const where = eq(sessions.tokenHash, hashToken(token));
    const [row] = await tx.select({ values: sessions.values }).from(sessions).where(where).for('update');
    if (!row) throw notThere();
    const others = Object.fromEntries(Object.entries(row.values).filter(([one]) => one !== id));
    const values: Record<string, HeldValue> =
      to === null ? others : { ...others, [id]: { value: to, until } };
    await tx.update(sessions).set({ values }).where(where);
    await tx.insert(auditEvents).values({
      applicationId: visit.applicationId,
      personId: person.id,
      what: 'session-value',
      detail: { value: id },
    });
  });
}
