import { eq } from 'drizzle-orm';
import { EDIT } from '@/core/access/level';
import type { Id } from '@/core/model/id';
import { database } from '../database/client';
import { auditEvents, sessions, type HeldValue } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { knownRecord, openRecord } from '../records/read';
import { hashToken } from '../security/sessions';
import { scopeOf, type Visit } from './visit';

/**
 * Sets what a button sets, for this session, until its time is over. Only the server sets it, and only where
 * the button is usable: `record` is that of its screen or row.
 */
export async function pressSessionButton(visit: Visit, buttonId: Id, record?: Id): Promise<void> {
  const { access, token, person } = visit;
  const { tree } = access.compiled;
  const element = tree.get(buttonId);
  if (element?.kind !== 'button' || element.node.effect.do !== 'set-session' || !token || !person)
    throw notThere();
  const entity = tree.recordOf(element);
  const stored =
    entity && record !== undefined ? await openRecord(scopeOf(visit), entity, record) : undefined;
  const known = entity && stored ? await knownRecord(scopeOf(visit), entity, stored) : undefined;
  // On a record's screen, or in a list, it is decided on that record; nothing less will do.
  if ((entity && !known) || access.level(element, known) < EDIT)
    throw new Refused(403, 'action-closed', 'You may not do this here.');
  const { value: id, to } = element.node.effect;
  const declared = access.compiled.definition.sessionValues.find((one) => one.id === id);
  if (!declared) throw notThere();
  const until = visit.circumstances.moment + declared.minutes * 60_000;
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
