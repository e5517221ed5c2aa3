import { and, desc, eq } from 'drizzle-orm';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { LARKFIELD } from '@/demo/definition';
import { database } from '@/server/database/client';
import { builders, invitations, memberships, outbox } from '@/server/database/schema';
import { showLink } from '@/server/people/links';
import { hashPassword, isPassword } from '@/server/security/password';
import { openSession } from '@/server/security/sessions';
import { accountOf, changePassword, endOtherSessions, renameBuilder } from '@/server/studio/account';
import type { Builder, Workplace } from '@/server/studio/builder';
import { buildersOf, changeBuilder, giveRights, liftBuilderWaits } from '@/server/studio/builders';
import { homeOf } from '@/server/studio/home';
import {
  acceptInvitation,
  invitationAt,
  invitationsOf,
  inviteBuilder,
  joinByInvitation,
  sendInvitationAgain,
  takeBackInvitation,
} from '@/server/studio/invitations';
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
    releases: true,
  };
});
const cy = { email: ' Cy@Test.Example ', name: ' Cy ', role: 'editor' } as const;
const tokenIn = (link = ''): string => new URL(link).searchParams.get('token') ?? '';
/** The link in the newest message to a builder's address, as the mail would bring it. */
const linkTo = async (email: string): Promise<string> => {
  const [newest] = await database()
    .select()
    .from(outbox)
    .where(and(eq(outbox.to, email), eq(outbox.forBuilder, true)))
    .orderBy(desc(outbox.at))
    .limit(1);
  return newest?.link ?? '';
};
const invite = async (
  from: Workplace,
  whom: Parameters<typeof inviteBuilder>[1],
): Promise<{ link: string }> => {
  await inviteBuilder(from, whom);
  return { link: await linkTo(whom.email.trim().toLowerCase()) };
};
const stored = async (email: string) =>
  (await database().select().from(builders).where(eq(builders.email, email)))[0];
/** An account that builds nothing here. */
const elsewhere = async (email: string): Promise<string> => {
  const [made] = await database()
    .insert(builders)
    .values({ email, name: email, passwordHash: await hashPassword('the one before') })
    .returning();
  return made?.id ?? '';
};

describe('letting a builder in', () => {
  it('lets nobody in before their link is opened; who has no account gets one by it, once', async () => {
    const { link } = await invite(place, cy);
    expect(await stored('cy@test.example')).toBeUndefined();
    expect(await buildersOf(place)).toHaveLength(2);
    expect(await invitationsOf(place)).toMatchObject([
      { email: 'cy@test.example', name: 'Cy', role: 'editor' },
    ]);
    expect(await invitationAt(tokenIn(link))).toMatchObject({ email: 'cy@test.example', known: false });
    await expect(joinByInvitation(tokenIn(link), 'short')).rejects.toMatchObject({ status: 422 });
    await joinByInvitation(tokenIn(link), 'a long password');
    const account = await stored('cy@test.example');
    expect(await isPassword(account?.passwordHash, 'a long password')).toBe(true);
    await expect(joinByInvitation(tokenIn(link), 'another password')).rejects.toMatchObject({ status: 410 });
    expect(await invitationAt(tokenIn(link))).toBeUndefined();
    expect(await homeOf(account?.id ?? '')).toMatchObject([{ name: LARKFIELD.name, role: 'editor' }]);
  });

  it('lets in whoever opens the link signed in, not whoever has the address', async () => {
    const others = await elsewhere('cy@test.example');
    const { link } = await invite(place, cy);
    expect(await invitationAt(tokenIn(link))).toMatchObject({ known: true });
    expect(await homeOf(others)).toEqual([]);
    // The link never changes the password of an account that is there.
    await expect(joinByInvitation(tokenIn(link), 'a long password')).rejects.toMatchObject({ code: 'known' });
    const own = await elsewhere('cy@home.example');
    await acceptInvitation(tokenIn(link), { id: own });
    expect(await homeOf(own)).toMatchObject([{ role: 'editor' }]);
    expect(await homeOf(others)).toEqual([]);
    await expect(acceptInvitation(tokenIn(link), { id: others })).rejects.toMatchObject({ status: 410 });
  });

  it('keeps the invitation where who opens it is there already', async () => {
    const { link } = await invite(place, cy);
    await expect(acceptInvitation(tokenIn(link), { id: bo })).rejects.toMatchObject({ status: 409 });
    expect(await invitationsOf(place)).toHaveLength(1);
  });

  it('makes another link no key any more, nor one that is too old or taken back', async () => {
    const { link } = await invite(place, cy);
    const [{ id } = { id: '' }] = await invitationsOf(place);
    await sendInvitationAgain(place, id);
    const next = await linkTo('cy@test.example');
    const gone = async (tried: string): Promise<void> =>
      expect(joinByInvitation(tokenIn(tried), 'a long password')).rejects.toMatchObject({ status: 410 });
    await gone(link);
    await database()
      .update(invitations)
      .set({ expiresAt: new Date(Date.now() - 1000) });
    await gone(next);
    await sendInvitationAgain(place, id);
    const last = await linkTo('cy@test.example');
    await takeBackInvitation({ ...place, applicationId: 'another' }, id).catch(() => undefined);
    expect(await invitationAt(tokenIn(last))).toBeDefined();
    await takeBackInvitation(place, id);
    await gone(last);
  });

  it('says what is wrong beside it, and lets nobody in twice', async () => {
    await expect(inviteBuilder(place, { ...cy, email: 'nowhere', name: '' })).rejects.toMatchObject({
      more: { errors: [{ field: 'email' }, { field: 'name' }] },
    });
    const both = await Promise.allSettled([inviteBuilder(place, cy), inviteBuilder(place, cy)]);
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    await joinByInvitation(tokenIn(await linkTo('cy@test.example')), 'a long password');
    await expect(inviteBuilder(place, cy)).rejects.toMatchObject({ status: 409 });
    expect(await database().$count(memberships)).toBe(3);
  });

  it('ends with the rights of who let them in, who keeps no way back', async () => {
    const asBo = { ...place, builder: { ...place.builder, id: bo } };
    for (const less of ['editor', null] as const) {
      const { link } = await invite(asBo, { ...cy, role: 'owner' });
      expect(await invitationAt(tokenIn(link))).toBeDefined();
      await changeBuilder(place, bo, less);
      expect(await invitationAt(tokenIn(link))).toBeUndefined();
      await expect(joinByInvitation(tokenIn(link), 'a long password')).rejects.toMatchObject({ status: 410 });
      await expect(acceptInvitation(tokenIn(link), { id: bo })).rejects.toMatchObject({ status: 410 });
      // Whose right has just gone lets nobody in any more, also with a request that is on its way.
      await expect(inviteBuilder(asBo, cy)).rejects.toMatchObject({ status: 403 });
      if (less) await changeBuilder(place, bo, 'owner');
    }
  });

  it('goes on where another owner has sent it again, who answers for it then', async () => {
    const asBo = { ...place, builder: { ...place.builder, id: bo } };
    const { link } = await invite(asBo, cy);
    const [{ id } = { id: '' }] = await invitationsOf(place);
    await sendInvitationAgain(place, id);
    await changeBuilder(place, bo, null);
    expect(await invitationAt(tokenIn(link))).toBeUndefined();
    expect(await invitationAt(tokenIn(await linkTo('cy@test.example')))).toBeDefined();
  });

  it('shows its link to nobody but whose address it is', async () => {
    expect(await inviteBuilder(place, { ...cy, role: 'owner' })).toBeUndefined();
    const all = await database().select().from(outbox);
    expect(all).toMatchObject([{ to: 'cy@test.example', forBuilder: true }]);
    await expect(showLink(place.applicationId, place.builder.id, all[0]?.id ?? '')).rejects.toMatchObject({
      status: 404,
    });
    // The token is in the message only.
    const kept = JSON.stringify(await database().select().from(invitations));
    expect(kept).not.toContain(tokenIn(all[0]?.link ?? ''));
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

describe('what owners give', () => {
  it('is releasing, to editors; they have it themselves', async () => {
    const released = async (): Promise<Record<string, boolean>> =>
      Object.fromEntries((await buildersOf(place)).map(({ name, releases }) => [name, releases]));
    await changeBuilder(place, bo, 'editor');
    expect(await released()).toEqual({ ada: true, bo: false });
    await giveRights(place, bo, { releases: true });
    expect(await released()).toEqual({ ada: true, bo: true });
    await changeBuilder(place, bo, 'reviewer');
    expect(await released()).toEqual({ ada: true, bo: false });
  });

  it('is signing in without waiting: once an hour, to others, who are told', async () => {
    await expect(liftBuilderWaits(place, place.builder.id)).rejects.toMatchObject({ code: 'own-waits' });
    await liftBuilderWaits(place, bo);
    const address = `bo-${place.applicationId}@test.example`;
    expect(await database().select().from(outbox)).toMatchObject([{ to: address, forBuilder: true }]);
    await expect(liftBuilderWaits(place, bo)).rejects.toMatchObject({ status: 429, code: 'lifted-lately' });
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
    for (const bad of [
      'short',
      'password1234',
      'qwertyuiop',
      'aaaaaaaaaaaaaaaa',
      `bo-${place.applicationId}`,
    ])
      await expect(changePassword(here, 'the one before', bad, client)).rejects.toMatchObject({
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

  it('now has a different name, and ends the other sessions when asked', async () => {
    const [here] = [await signedIn(), await signedIn(), await signedIn()];
    await expect(renameBuilder(here, ' ')).rejects.toMatchObject({ status: 422 });
    await renameBuilder(here, ' Bo Birch ');
    await endOtherSessions(here);
    expect(await accountOf(here)).toMatchObject({ name: 'Bo Birch', sessions: [{ here: true }] });
  });
});
