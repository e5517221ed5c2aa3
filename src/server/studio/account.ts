import { and, asc, eq, ne } from 'drizzle-orm';
import { accountFault } from '@/core/model';
import { database } from '../database/client';
import { auditEvents, builders, sessions } from '../database/schema';
import { Refused } from '../http/problem';
import { limited, studioAccount, type Client } from '../security/attempts';
import { hashPassword, isPassword } from '../security/password';
import { passwordFault } from '../security/password-fault';
import { hashToken } from '../security/sessions';
import type { Builder } from './builder';

const wrong = (field: string, detail: string): Refused =>
  new Refused(422, 'values', detail, { errors: [{ field, detail }] });

/** A builder's own account, with the sessions in which they are signed in: since when, and which is this one. */
export async function accountOf({ id, token }: Builder) {
  const [row] = await database()
    .select({ name: builders.name, email: builders.email })
    .from(builders)
    .where(eq(builders.id, id));
  if (!row) throw new Error('The builder account no longer exists');
  const open = await database()
    .select({ since: sessions.createdAt, hash: sessions.tokenHash })
    .from(sessions)
    .where(eq(sessions.builderId, id))
    .orderBy(asc(sessions.createdAt));
  const here = hashToken(token);
  return {
    ...row,
    sessions: open.map(({ since, hash }) => ({ since: since.toISOString(), here: hash === here })),
  };
}

export async function renameBuilder({ id }: Builder, name: string): Promise<void> {
  const fault = accountFault('name', name);
  if (fault !== undefined) throw wrong('name', fault);
  await database().update(builders).set({ name: name.trim() }).where(eq(builders.id, id));
}

/** Another password for who knows the one before; wrong tries count as at signing in. All other sessions end. */
export async function changePassword(
  { id, token }: Builder,
  now: string,
  password: string,
  client: Client,
): Promise<void> {
  const [account] = await database().select().from(builders).where(eq(builders.id, id));
  const fault = passwordFault(password, [account?.email ?? '', account?.name ?? '']);
  if (fault !== undefined) throw wrong('password', fault);
  if (!(await knowsPassword(id, now, client))) throw wrong('now', 'The current password is incorrect.');
  const passwordHash = await hashPassword(password);
  await database().transaction(async (tx) => {
    await tx.update(builders).set({ passwordHash }).where(eq(builders.id, id));
    await tx.delete(sessions).where(others({ id, token }));
    await tx.insert(auditEvents).values({ builderId: id, what: 'password-changed' });
  });
}

/** Is it the builder's password? Too many wrong tries are refused as such. */
async function knowsPassword(id: string, password: string, client: Client): Promise<boolean> {
  const [row] = await database().select().from(builders).where(eq(builders.id, id));
  try {
    await limited(studioAccount(row?.email ?? ''), client, async () =>
      (await isPassword(row?.passwordHash ?? undefined, password)) ? id : undefined,
    );
    return true;
  } catch (error) {
    if (error instanceof Refused && error.code === 'wrong-credentials') return false;
    throw error;
  }
}

const others = ({ id, token }: Pick<Builder, 'id' | 'token'>) =>
  and(eq(sessions.builderId, id), ne(sessions.tokenHash, hashToken(token)));

/** Ends all sessions but this one. */
export async function endOtherSessions(builder: Builder): Promise<void> {
  await database().delete(sessions).where(others(builder));
}
