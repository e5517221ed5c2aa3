import { eq } from 'drizzle-orm';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { LARKFIELD } from '@/demo/definition';
import { database } from '@/server/database/client';
import { builderLinks, builders, memberships, outbox } from '@/server/database/schema';
import { hashPassword, isPassword } from '@/server/security/password';
import { openSession } from '@/server/security/sessions';
import { accountOf, changePassword, endOtherSessions, renameBuilder } from '@/server/studio/account';
import type { Builder, Workplace } from '@/server/studio/builder';
import {
  buildersOf,
  changeBuilder,
  invitedBy,
  inviteBuilder,
  join,
  linkForBuilder,
} from '@/server/studio/builders';
import { homeOf } from '@/server/studio/home';
import { application, dropApplications, emptyDatabase, underNewId } from './setting';

let place: Workplace;
let bo: string;
beforeAll(async () => {
  process.env['PUBLIC_URL'] ??= 'http://127.0.0.1:4620';
  await emptyDatabase();
});
beforeEach(async () => {
  await dropApplications();
  const definition = underNewId(LARKFIELD);
  const made = await application(definition);
  bo = made.bo;
  place = {
    builder: { id: made.ada, name: 'Ada', token: '' },
    applicationId: definition.id,
    slug: definition.id,
    name: definition.name,
    role: 'owner',
    pins: [],
    live: 'none',
    people: true,
  };
});
const cy = { email: ' Cy@Test.Example ', name: ' Cy ', role: 'editor' } as const;
const tokenIn = (link = ''): string => new URL(link).searchParams.get('token') ?? '';
const stored = async (email: string) =>
  (await database().select().from(builders).where(eq(builders.email, email)))[0];

describe('letting a builder in', () => {
  it('gives somebody new an account without a password, and a link that makes it theirs, once', async () => {
    const { link } = await inviteBuilder(place, cy);
    const account = await stored('cy@test.example');
    expect(account).toMatchObject({ name: 'Cy', passwordHash: null });
    expect(await isPassword(account?.passwordHash ?? undefined, '')).toBe(false);
    expect(await invitedBy(tokenIn(link))).toMatchObject({ email: 'cy@test.example' });
    await expect(join(tokenIn(link), 'short')).rejects.toMatchObject({ status: 422 });
    await join(tokenIn(link), 'a long password');
    expect(
      await isPassword((await stored('cy@test.example'))?.passwordHash ?? undefined, 'a long password'),
    ).toBe(true);
    await expect(join(tokenIn(link), 'another password')).rejects.toMatchObject({ status: 410 });
    expect(await invitedBy(tokenIn(link))).toBeUndefined();
    expect(await homeOf(account?.id ?? '')).toMatchObject([{ name: LARKFIELD.name, role: 'editor' }]);
  });

  it('needs no link for who has an account, and never gives one that would change its password', async () => {
    await inviteBuilder(place, cy).then(({ link }) => join(tokenIn(link), 'a long password'));
    const account = await stored('cy@test.example');
    await changeBuilder(place, account?.id ?? '', null);
    // Whose account it is, is told: an address alone is no proof.
    expect(await inviteBuilder(place, { ...cy, name: 'Other', role: 'reviewer' })).toEqual({
      known: { name: 'Cy', since: account?.createdAt.toISOString() },
    });
    await expect(linkForBuilder(place, account?.id ?? '')).rejects.toMatchObject({ status: 409 });
    await expect(linkForBuilder(place, bo)).rejects.toMatchObject({ status: 409 });
    expect(await database().$count(builderLinks)).toBe(0);
  });

  it('makes another link no key any more, nor one that is too old', async () => {
    const { link } = await inviteBuilder(place, cy);
    const id = (await stored('cy@test.example'))?.id ?? '';
    const next = await linkForBuilder(place, id);
    await expect(join(tokenIn(link), 'a long password')).rejects.toMatchObject({ status: 410 });
    await database()
      .update(builderLinks)
      .set({ expiresAt: new Date(Date.now() - 1000) });
    await expect(join(tokenIn(next), 'a long password')).rejects.toMatchObject({ status: 410 });
  });

  it('says what is wrong beside it, and lets nobody in twice', async () => {
    await expect(inviteBuilder(place, { ...cy, email: 'nowhere', name: '' })).rejects.toMatchObject({
      more: { errors: [{ field: 'email' }, { field: 'name' }] },
    });
    await inviteBuilder(place, cy);
    await expect(inviteBuilder(place, cy)).rejects.toMatchObject({ status: 409 });
    expect(await database().$count(memberships)).toBe(3);
  });

  it('of one whom two let in at once makes one account', async () => {
    const both = await Promise.allSettled([inviteBuilder(place, cy), inviteBuilder(place, cy)]);
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
  });

  it('keeps its message for owners: whoever opens it becomes a builder', async () => {
    await inviteBuilder(place, { ...cy, role: 'owner' });
    const all = await database().select().from(outbox);
    expect(all).toMatchObject([{ to: 'cy@test.example', ownersOnly: true }]);
    // The token is in the message only.
    const links = JSON.stringify(await database().select().from(builderLinks));
    expect(links).not.toContain(tokenIn(all[0]?.link ?? ''));
  });
});

describe('the builders of an application', () => {
  it('are told with their addresses to owners only', async () => {
    expect(await buildersOf(place)).toMatchObject([
      { name: 'ada', email: expect.any(String) },
      { name: 'bo' },
    ]);
    for (const row of await buildersOf({ ...place, role: 'editor' })) expect(row).not.toHaveProperty('email');
  });

  it('keep an owner: the last one neither goes nor becomes less, also of two who try at once', async () => {
    const { id: ada } = place.builder;
    const both = await Promise.allSettled([
      changeBuilder(place, ada, null),
      changeBuilder(place, bo, 'editor'),
    ]);
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    const owners = await database().select().from(memberships).where(eq(memberships.role, 'owner'));
    expect(owners).toHaveLength(1);
    for (const role of [null, 'editor', 'reviewer'] as const)
      await expect(changeBuilder(place, owners[0]?.builderId ?? '', role)).rejects.toMatchObject({
        code: 'last-owner',
      });
    await expect(changeBuilder(place, '00000000-0000-4000-8000-000000000000', 'owner')).rejects.toMatchObject(
      { status: 404 },
    );
  });
});

describe('one’s own account', () => {
  const client = { address: '192.0.2.7', device: undefined };
  const signedIn = async (): Promise<Builder> => {
    const token = await openSession({ audience: 'studio', builderId: bo });
    return { id: bo, name: 'bo', token };
  };
  beforeEach(async () => {
    const passwordHash = await hashPassword('the one before');
    await database().update(builders).set({ passwordHash }).where(eq(builders.id, bo));
  });

  it('changes its password for who knows it, and ends all other sessions', async () => {
    const [here] = [await signedIn(), await signedIn()];
    expect((await accountOf(here)).sessions.map((one) => one.here)).toEqual([true, false]);
    await expect(changePassword(here, 'not it', 'the one after', client)).rejects.toMatchObject({
      more: { errors: [{ field: 'now' }] },
    });
    await expect(changePassword(here, 'the one before', 'short', client)).rejects.toMatchObject({
      more: { errors: [{ field: 'password' }] },
    });
    expect((await accountOf(here)).sessions).toHaveLength(2);
    await changePassword(here, 'the one before', 'the one after', client);
    expect((await accountOf(here)).sessions).toHaveLength(1);
    await expect(changePassword(here, 'the one before', 'a third one', client)).rejects.toThrow();
  });

  it('makes who guesses wait, as at signing in', async () => {
    const here = await signedIn();
    const tries: unknown[] = [];
    for (let n = 0; n < 12; n++)
      tries.push(
        await changePassword(here, `guess ${n}`, 'the one after', client).catch((error: unknown) => error),
      );
    expect(tries.at(-1)).toMatchObject({ status: 429 });
  });

  it('has another name, and ends the other sessions when asked', async () => {
    const [here] = [await signedIn(), await signedIn(), await signedIn()];
    await expect(renameBuilder(here, ' ')).rejects.toMatchObject({ status: 422 });
    await renameBuilder(here, ' Bo Birch ');
    await endOtherSessions(here);
    expect(await accountOf(here)).toMatchObject({ name: 'Bo Birch', sessions: [{ here: true }] });
  });
});
