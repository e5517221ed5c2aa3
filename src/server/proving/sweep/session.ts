import { eq } from 'drizzle-orm';
import type { Id, Value, Values } from '@/core/model';
import { database } from '../../database/client';
import { applications, sessions } from '../../database/schema';
import { hashToken, openSession } from '../../security/sessions';
import type { Copy } from './copy';
import type { SweptViewer } from './viewer';

/** Sessions are opened for so long. */
export const HOURS = 12;

/** The session through which is asked. */
export interface SweptSession {
  /** A Cookie header, where there is one. */
  readonly cookie: string | undefined;
  /** Lets it hold again what it held at first. */
  readonly putBack: () => Promise<void>;
}

/** Opens the viewer's session in the copy, under the cookie's name, and sets its clock to when they ask. */
export async function openSwept(viewer: SweptViewer, copy: Copy, name: string): Promise<SweptSession> {
  await database()
    .update(applications)
    .set({ clockAhead: viewer.clockAhead?.() ?? 0 })
    .where(eq(applications.id, copy.id));
  const token = await viewer.open();
  if (token === undefined) return { cookie: undefined, putBack: () => Promise.resolve() };
  const own = eq(sessions.tokenHash, hashToken(token));
  const [held] = await database()
    .select({ values: sessions.values, unlocked: sessions.unlocked })
    .from(sessions)
    .where(own);
  return {
    cookie: `${name}=${token}`,
    putBack: async () => {
      if (held) await database().update(sessions).set(held).where(own);
    },
  };
}

/** Opens a session of a person of the copy that holds these values; its token. */
export async function sessionOf(copy: Copy, personId: Id, values: Values = {}): Promise<string> {
  const token = await openSession({ audience: 'live', applicationId: copy.id, personId });
  const until = Date.now() + HOURS * 3_600_000;
  const held = Object.fromEntries(
    Object.entries(values).map(([id, value]) => [id, { value: value as Value, until }]),
  );
  if (Object.keys(held).length > 0) await changeSession(token, { values: held });
  return token;
}

export async function changeSession(
  token: string,
  set: Partial<typeof sessions.$inferInsert>,
): Promise<void> {
  await database()
    .update(sessions)
    .set(set)
    .where(eq(sessions.tokenHash, hashToken(token)));
}
