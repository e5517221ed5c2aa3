import { eq } from 'drizzle-orm';
import { EDIT } from '@/core/access';
import type { Definition, Id, Screen, Value } from '@/core/model';
import { database } from '../database/client';
import { auditEvents, sessions, type HeldValue } from '../database/schema';
import { notThere, Refused } from '../http/problem';
import { knownRecord, openRecord, type RecordScope } from '../records/read';
import { hashToken } from '../security/sessions';
import { requireOneself } from './acting-as';
import { scopeOf } from './visit';
import type { Visit } from './who-visits';

/**
 * What a button sets when it is pressed: the session value, what to (null takes it away), and for how many
 * minutes. Refused where the button is not usable: `record` is that of its screen or row.
 */
export async function sessionButton(
  scope: RecordScope,
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
    throw new Refused(403, 'action-closed', 'You do not have permission to do this here.');
  const { value: id, to } = element.node.effect;
  const declared = definition.sessionValues.find((one) => one.id === id);
  if (!declared) throw notThere();
  return { id, to, minutes: declared.minutes };
}

/** Sets what a button sets, for this session, until its time is over. Only the server sets it. */
export async function pressSessionButton(visit: Visit, buttonId: Id, record?: Id): Promise<void> {
  requireOneself(visit);
  if (!visit.token || !visit.person) throw notThere();
  await setInSession(visit, [await sessionButton(scopeOf(visit), buttonId, record)]);
}

/** What opening a screen sets, each for its minutes. */
export const setByOpening = ({ sessionValues }: Definition, { sets = [] }: Screen): Setting[] =>
  sets.flatMap(({ value, to }) => {
    const declared = sessionValues.find(({ id }) => id === value);
    return declared ? [{ id: value, to, minutes: declared.minutes }] : [];
  });

/**
 * Sets what a screen sets that has just been opened, for whoever is there as themselves; false where it sets nothing.
 * The page is decided anew with it.
 */
export async function openedScreen(visit: Visit, screenId: Id): Promise<boolean> {
  const { tree, definition } = visit.access.compiled;
  const settings = setByOpening(definition, tree.need(screenId, 'screen').node);
  if (settings.length === 0 || !visit.person || !visit.token || visit.standing) return false;
  await setInSession(visit, settings);
  return true;
}

interface Setting {
  readonly id: Id;
  readonly to: Value | null;
  readonly minutes: number;
}

async function setInSession(
  { applicationId, token = '', person, circumstances }: Visit,
  settings: readonly Setting[],
): Promise<void> {
  await database().transaction(async (tx) => {
    const where = eq(sessions.tokenHash, hashToken(token));
    const [row] = await tx.select({ values: sessions.values }).from(sessions).where(where).for('update');
    if (!row) throw notThere();
    const others = Object.entries(row.values).filter(([id]) => !settings.some((one) => one.id === id));
    const set = settings.flatMap(({ id, to, minutes }): [string, HeldValue][] =>
      to === null ? [] : [[id, { value: to, until: circumstances.moment + minutes * 60_000 }]],
    );
    const values: Record<string, HeldValue> = Object.fromEntries([...others, ...set]);
    await tx.update(sessions).set({ values }).where(where);
    for (const { id, to } of settings)
      // Told once, not at every page.
      if (row.values[id]?.value !== (to ?? undefined))
        await tx.insert(auditEvents).values({
          applicationId,
          personId: person?.id ?? null,
          what: 'session-value',
          detail: { value: id },
        });
  });
}
