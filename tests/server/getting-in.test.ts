import { eq, sql } from 'drizzle-orm';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Condition } from '@/core/condition';
import type { Definition, Line, Role } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { database } from '@/server/database/client';
import {
  assignments,
  auditEvents,
  confirmations,
  memberships,
  notes,
  outbox,
  people,
  signInAttempts,
} from '@/server/database/schema';
import { Refused } from '@/server/http/problem';
import { joinOrLeave, signUp } from '@/server/live/joining';
import { PeopleManagement } from '@/server/live/people-management';
import { sendNote } from '@/server/live/notes';
import { pressSessionButton } from '@/server/live/session-values';
import { startStandIn } from '@/server/live/acting-as';
import { lockAgain, unlock, unlockedOn } from '@/server/live/unlock';
import { choosePassword, showLink } from '@/server/people/links';
import { listRecords } from '@/server/records/read';
import { scopeOf } from '@/server/live/visit';
import { liftWaitsOf, updatePerson } from '@/server/people/write';
import { limited, networkOf, untoldTries, waitAfter } from '@/server/security/attempts';
import { hashPassword } from '@/server/security/password';
import { signInToLive } from '@/server/security/sign-in';
import { application, dropApplications, emptyDatabase, put, underNewId } from './setting';
import { again, installed, keyTo, person, visitOf } from './visits';

const HERE = { address: '10.0.0.1', device: undefined };

let definition: Definition;
let ada: string;

/** Releases the demo, changed, as an application of its own. */
async function released(change: (base: Definition) => Definition = (base) => base): Promise<void> {
  definition = change(underNewId(LARKFIELD));
  ({ ada } = await application(definition));
}

beforeAll(emptyDatabase);
beforeEach(async () => {
  await dropApplications();
  await database().execute(sql`truncate sign_in_attempts, devices, lifted_waits`);
  await installed();
});

const code = async (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'done',
    (error: unknown) => (error instanceof Refused ? error.code : String(error)),
  );

const everyone = (id: string): Line => ({ id, who: { kind: 'everyone' }, what: 'edit' });

describe('unlocking', () => {
  const ITEM = { item_title: 'Ewer', item_accession: 'LM.1', item_store: 'Cellar', item_branch: 'main-hall' };
  let visitor: Awaited<ReturnType<typeof visitOf>>;

  beforeEach(async () => {
    await released((base) => ({
      ...base,
      unlock: { privilege: base.privileges[0]?.privileges[0]?.id ?? '', minutes: 10 },
      closed: {
        ...base.closed,
        p_item_lender: { show: 'explained', text: 'Ask.' },
        p_item_value: { show: 'locked' },
      },
    }));
    for (const id of ['one', 'two']) await put(definition, 'item', id, ITEM);
    visitor = await visitOf(
      definition.id,
      await person(definition.id, 'vi@x.example', [{ role: 'volunteer' }]),
    );
  });

  /** Elements that are shown closed to the volunteer, on an item. */
  const closedOn = () =>
    visitor.access.compiled.tree.elements.filter((one) => {
      const show = visitor.access.compiled.closed(one.id)?.show;
      return show === 'locked' || show === 'explained';
    });

  it('opens one element on one record that both may see, and nothing else; told, and locked again', async () => {
    const holder = definition.roles.find((role) =>
      role.privileges.includes(definition.unlock?.privilege ?? ''),
    ) as Role;
    await person(definition.id, 'un@x.example', [{ role: holder.id }, { role: 'head' }], {
      passwordHash: await hashPassword('a right password'),
    });
    const credentials = { email: 'un@x.example', password: 'a right password' };
    const known = (id: string) => ({
      id,
      entity: definition.entities[0] as Definition['entities'][0],
      values: ITEM,
    });
    let opened = 0;
    for (const element of closedOn()) {
      for (const record of ['', 'none', 'one two'])
        expect(await code(unlock(visitor, element.id, record, credentials, HERE))).toBe('not-there');
      const before = visitor.access.level(element, known('one'));
      if (before > 0 || visitor.access.compiled.tree.recordOf(element)?.id !== 'item') continue;
      const done = await code(unlock(visitor, element.id, 'one', credentials, HERE));
      if (done !== 'done') continue;
      opened++;
      const now = await again(visitor);
      expect(now.access.level(element, known('one'))).toBeGreaterThan(0);
      expect(now.access.level(element, known('two'))).toBe(0);
      expect(await unlockedOn(now, ['one'])).toMatchObject([{ element: element.id, by: 'un@x.example' }]);
      expect(await unlockedOn(now, ['two'])).toEqual([]);
      await lockAgain(now, element.id, 'one');
      expect((await again(visitor)).access.level(element, known('one'))).toBe(0);
    }
    expect(opened).toBeGreaterThan(0);
  });

  it('ends with the right of who unlocked it: their role, their account, or the record', async () => {
    const holder = definition.roles.find((role) =>
      role.privileges.includes(definition.unlock?.privilege ?? ''),
    ) as Role;
    const passwordHash = await hashPassword('a right password');
    const by = await person(definition.id, 'un@x.example', [{ role: holder.id }, { role: 'head' }], {
      passwordHash,
    });
    const credentials = { email: 'un@x.example', password: 'a right password' };
    let element: string | undefined;
    for (const { id } of closedOn())
      if ((await code(unlock(visitor, id, 'one', credentials, HERE))) === 'done') element ??= id;
    const isOpen = async (): Promise<boolean> =>
      (await again(visitor)).unlocked.some((one) => one.element === element);
    expect(await isOpen()).toBe(true);
    for (const active of [false, true]) {
      await database().update(people).set({ active }).where(eq(people.id, by));
      expect(await isOpen()).toBe(active);
    }
    await database().execute(sql`update records set id = 'three' where id = 'one'`);
    expect(await isOpen()).toBe(false);
    await database().execute(sql`update records set id = 'one' where id = 'three'`);
    expect(await isOpen()).toBe(true);
    await database().delete(assignments).where(eq(assignments.personId, by));
    expect(await isOpen()).toBe(false);
  });

  it('leaves what was unlocked on no record by an earlier version closed', async () => {
    await database().execute(
      sql`update sessions set unlocked = ${JSON.stringify([{ element: 'item_store', what: 'edit', by: 'x', until: Date.now() + 1e6 }])}::jsonb`,
    );
    expect((await again(visitor)).circumstances.unlocked).toEqual([]);
  });
});

describe('opening an account', () => {
  beforeEach(() => released((base) => ({ ...base, signUp: true })));
  const ask = async (name: string, email = 'New@x.example', client = HERE) =>
    signUp(await visitOf(definition.id), definition, { name, email }, client);
  const find = async (email: string) =>
    (await database().select().from(people).where(eq(people.email, email)))[0];

  it('gives it to whoever opens the newest link, with the password that they choose there', async () => {
    await ask('Stranger');
    const first = await keyTo(definition.id, 'new@x.example');
    expect(await find('new@x.example')).toMatchObject({ confirmed: false, passwordHash: null });
    await ask('Nell');
    const second = await keyTo(definition.id, 'new@x.example');
    expect(await code(choosePassword(definition.id, first, 'a long password'))).toBe('link-used');
    expect(await code(choosePassword(definition.id, second, 'short'))).toBe('values');
    expect(await code(choosePassword(definition.id, second, 'a long password'))).toBe('done');
    expect(await find('new@x.example')).toMatchObject({ confirmed: true, name: 'Nell' });
    expect(await code(choosePassword(definition.id, second, 'another password'))).toBe('link-used');
    await signInToLive(definition.id, ' NEW@x.example ', 'a long password', HERE);
  });

  it('is asked for by one source so many times, and then waits', async () => {
    const answers: string[] = [];
    for (let n = 0; n < 25; n++) answers.push(await code(ask('Many', `m${n}@x.example`)));
    expect(answers.filter((one) => one === 'done')).toHaveLength(20);
    expect(answers.at(-1)).toBe('too-many-attempts');
    expect(await code(ask('Another', 'o@x.example', { address: '10.0.0.2', device: undefined }))).toBe(
      'done',
    );
    // Whoever asks much is not slowed down at signing in by it, nor who sits beside them.
    expect(await code(limited('live x', HERE, async () => 'in'))).toBe('done');
  });

  it('ends the link that a builder has seen with their right to it', async () => {
    await ask('Nell');
    const key = await keyTo(definition.id, 'new@x.example');
    const shown = async () => {
      const [{ id } = { id: '' }] = await database().select().from(outbox);
      return showLink(definition.id, ada, id);
    };
    await database().update(memberships).set({ people: true });
    expect(await shown()).toContain(key);
    await shown();
    await database().update(memberships).set({ people: false });
    expect(await code(choosePassword(definition.id, key, 'a long password'))).toBe('link-used');
    await database().update(memberships).set({ people: true });
    expect(await code(choosePassword(definition.id, key, 'a long password'))).toBe('done');
  });

  it('does not use a link up for another application, and gives a new one for one that is too old', async () => {
    await ask('Nell');
    const key = await keyTo(definition.id, 'new@x.example');
    const mine = definition;
    await released((base) => ({ ...base, signUp: true }));
    expect(await code(choosePassword(definition.id, key, 'a long password'))).toBe('link-used');
    definition = mine;
    await database()
      .update(confirmations)
      .set({ expiresAt: new Date(0) });
    expect(await code(choosePassword(definition.id, key, 'a long password'))).toBe('link-used');
    await ask('Nell');
    const next = await keyTo(definition.id, 'new@x.example');
    expect(await code(choosePassword(definition.id, next, 'a long password'))).toBe('done');
  });

  it('of one link used twice at once lets one in, and counts messages that are asked for at once', async () => {
    await ask('Nell');
    const key = await keyTo(definition.id, 'new@x.example');
    const both = await Promise.all(
      ['first password', 'second password'].map((one) => code(choosePassword(definition.id, key, one))),
    );
    expect(both.sort()).toEqual(['done', 'link-used']);
    const asked = await Promise.all(Array.from({ length: 12 }, () => code(ask('Ned', 'ned@x.example'))));
    expect(asked.filter((one) => one === 'done')).toHaveLength(5);
  });

  it('gives nobody a name that a condition compares', async () => {
    const named: Condition = { compare: '=', left: { user: 'name' }, right: { value: 'The Director' } };
    await released((base) => ({
      ...base,
      signUp: true,
      groups: [...base.groups, { id: 'directors', name: 'Directors', condition: named }],
    }));
    await ask('The Director');
    await choosePassword(definition.id, await keyTo(definition.id, 'new@x.example'), 'a long password');
    expect(await find('new@x.example')).toMatchObject({ name: 'new@x.example' });
  });
});

describe('looking after people', () => {
  const keeping =
    (role: Partial<Role>) =>
    (base: Definition): Definition => ({
      ...base,
      roles: base.roles.map((one) =>
        one.id === 'keeper'
          ? {
              ...one,
              handsOut: [
                { role: 'volunteer', notHeld: true },
                { role: 'lender', notHeld: true },
              ],
              ...role,
            }
          : one,
      ),
    });
  const keeper = async () =>
    visitOf(definition.id, await person(definition.id, 'kay@x.example', [{ role: 'keeper' }]));

  it('lets a keeper set nothing that conditions compare, unless the builder allows it for the role', async () => {
    await released(keeping({}));
    const mine = PeopleManagement.of(await keeper());
    // A new address is its owner's: until they open the link, the account is nobody.
    const { id } = await mine.create({ name: 'New', email: 'lender@x.example' });
    expect((await database().select().from(people).where(eq(people.id, id)))[0]).toMatchObject({
      confirmed: false,
      passwordHash: null,
    });
    for (const input of [
      { homeUnit: 'main-hall' },
      { attributes: { u_staff: true } },
      { attributes: { u_trained: '2030-01-01' } },
    ]) {
      expect(await code(mine.create({ name: 'X', email: 'x@x.example', ...input }))).toBe('compared');
      expect(await code(mine.update(id, input))).toBe('compared');
    }
    expect(await code(mine.update(id, { email: 'other@x.example' }))).toBe('compared');
    await released(keeping({ setsCompared: true }));
    const allowed = PeopleManagement.of(await keeper());
    const made = await allowed.create({ name: 'New', email: 'a@x.example', homeUnit: 'main-hall' });
    expect(await code(allowed.update(made.id, { attributes: { u_staff: true } }))).toBe('done');
  });

  it('gives and takes single roles, and loses nothing that somebody else gives at the same time', async () => {
    await released(keeping({}));
    const id = await person(definition.id, 'pat@x.example', [{ role: 'volunteer' }]);
    const mine = PeopleManagement.of(await keeper());
    const builder = { builderId: ada };
    await Promise.all([
      mine.update(id, { give: [{ role: 'lender' }], take: [{ role: 'volunteer' }] }),
      database().transaction((tx) =>
        updatePerson(tx, definition.id, definition, builder, id, { give: [{ role: 'auditor' }] }),
      ),
    ]);
    const held = await database().select().from(assignments).where(eq(assignments.personId, id));
    expect(held.map(({ roleId }) => roleId).sort()).toEqual(['auditor', 'lender']);
    expect(await code(mine.update(id, { take: [{ role: 'volunteer' }] }))).toBe('changed-meanwhile');
    expect(await code(mine.update(id, { take: [{ role: 'auditor' }] }))).toBe('not-yours-to-give');
  });

  it('rests on what holds once all is locked: the keeper’s own roles, and the release', async () => {
    await released(keeping({}));
    const id = await person(definition.id, 'pat@x.example');
    const visit = await keeper();
    const mine = PeopleManagement.of(visit);
    // Their role is taken away between looking and writing.
    await database()
      .delete(assignments)
      .where(eq(assignments.personId, visit.person?.id ?? ''));
    expect(await code(mine.update(id, { give: [{ role: 'lender' }] }))).toBe('not-there');
    await database()
      .insert(assignments)
      .values({ personId: visit.person?.id ?? '', roleId: 'keeper' });
    await database().execute(sql`update applications set release = 2 where id = ${definition.id}`);
    expect(await code(mine.update(id, { give: [{ role: 'lender' }] }))).toBe('changed-meanwhile');
    expect(await database().$count(assignments, eq(assignments.personId, id))).toBe(0);
  });

  it('does not let an account that a line names, or that holds more, go to another address', async () => {
    const uncompared = (base: Definition): Definition => ({
      ...keeping({})(base),
      groups: [],
      conditions: [],
      gates: Object.fromEntries(
        Object.entries(base.gates).map(([id, gate]) => [
          id,
          {
            lines: gate.lines.filter(
              (one) => one.when === undefined && one.who.kind !== 'unit' && one.who.kind !== 'group',
            ),
          },
        ]),
      ),
      areas: base.areas.map((area) => ({
        ...area,
        screens: area.screens.map((screen) => ({
          ...screen,
          sections: screen.sections.map((section) => ({
            ...section,
            parts: section.parts.map((part) => {
              if (part.kind !== 'list') return part;
              const { filter: _, ...rest } = part;
              return rest;
            }),
          })),
        })),
      })),
    });
    let named = '';
    await released(uncompared);
    const [plain, above] = [
      await person(definition.id, 'plain@x.example', [{ role: 'volunteer' }]),
      await person(definition.id, 'above@x.example', [{ role: 'head' }]),
    ];
    const mine = PeopleManagement.of(await keeper());
    expect(await code(mine.update(plain, { email: 'moved@x.example' }))).toBe('done');
    expect((await database().select().from(people).where(eq(people.id, plain)))[0]).toMatchObject({
      confirmed: false,
      passwordHash: null,
    });
    expect(await code(mine.update(above, { email: 'mine@x.example' }))).toBe('above-you');
    expect(await code(mine.sendLink(above))).toBe('above-you');
    await released((base) => {
      const made = uncompared(base);
      named = crypto.randomUUID();
      const line: Line = { id: 'l_named', who: { kind: 'person', person: named }, what: 'edit' };
      return { ...made, gates: { ...made.gates, item_value: { lines: [line] } } };
    });
    await person(definition.id, 'named@x.example', [{ role: 'volunteer' }], { id: named });
    const next = PeopleManagement.of(await keeper());
    expect(await code(next.update(named, { email: 'mine@x.example' }))).toBe('compared');
  });
});

describe('wrong tries', () => {
  const account = 'live x somebody@x.example';
  const wrong = (client = HERE) => code(limited(account, client, async () => undefined));
  const right = (client = HERE) => code(limited(account, client, async () => 'in'));
  const later = (seconds: number) =>
    database().execute(sql`update sign_in_attempts set at = at - make_interval(secs => ${seconds})`);

  it('wait longer each time, by account and source; refused ones do not count', async () => {
    expect([4, 5, 6, 9, 40].map((n) => waitAfter(n, { free: 5, longest: 900 }))).toEqual([0, 1, 2, 16, 900]);
    for (let n = 0; n < 5; n++) expect(await wrong()).toBe('wrong-credentials');
    await later(-60);
    for (let n = 0; n < 20; n++) expect(await wrong()).toBe('too-many-attempts');
    expect(await database().$count(signInAttempts)).toBe(5);
    await later(62);
    expect(await right()).toBe('done');
    expect(await wrong()).toBe('wrong-credentials');
  });

  it.each([
    ['10.0.0.1', '10.0.0.1'],
    ['::ffff:10.0.0.1', '10.0.0.1'],
    ['2001:db8:0:7:1:2:3:4', '2001:db8:0:7::/64'],
    ['2001:0DB8:0000:0007:ffff::1', '2001:db8:0:7::/64'],
    ['2001:db8::1', '2001:db8:0:0::/64'],
    ['::1', '0:0:0:0::/64'],
    ['fe80::1%eth0', 'fe80:0:0:0::/64'],
  ])('come from %s, which is %s', (address, network) => expect(networkOf(address)).toBe(network));

  it('are counted where many come at once', async () => {
    const many = await Promise.all(Array.from({ length: 30 }, () => wrong()));
    expect(many.filter((one) => one === 'wrong-credentials')).toHaveLength(5);
  });

  it('of others do not stop a device that signed in before, nor anybody for ever', async () => {
    await released();
    const id = await person(definition.id, 'dee@x.example', [], {
      passwordHash: await hashPassword('a right password'),
    });
    const { device } = await signInToLive(definition.id, 'dee@x.example', 'a right password', HERE);
    const attack = (n: number) =>
      code(
        signInToLive(definition.id, 'dee@x.example', 'guess', {
          address: `10.1.${n >> 2}.1`,
          device: undefined,
        }),
      );
    for (let n = 0; n < 44; n++) await attack(n);
    const known = { address: '10.1.0.1', device };
    expect(await code(signInToLive(definition.id, 'dee@x.example', 'a right password', known))).toBe('done');
    expect(await attack(50)).toBe('too-many-attempts');
    await later(11);
    // Elsewhere they wait ten seconds at most.
    const elsewhere = { address: '10.9.9.9', device: undefined };
    expect(await code(signInToLive(definition.id, 'dee@x.example', 'a right password', elsewhere))).toBe(
      'done',
    );
    const told = await database().execute<{ subject: string }>(sql`select subject from outbox`);
    expect(told.rows).toEqual([{ subject: 'Failed attempts to sign in to your account' }]);
    expect(id).not.toBe('');
  });

  it('across many accounts from one source make that source wait', async () => {
    const spray = (n: number) => code(limited(`live x ${n}`, HERE, async () => undefined));
    const answers: string[] = [];
    for (let n = 0; n < 40; n++) answers.push(await spray(n));
    expect(answers.filter((one) => one === 'wrong-credentials')).toHaveLength(30);
    expect(
      await code(limited('live x 99', { address: '10.0.0.2', device: undefined }, async () => 'in')),
    ).toBe('done');
  });

  it('are told to whose account it is, once', async () => {
    for (let n = 0; n < 5; n++) await wrong();
    expect(await untoldTries(account)).toBe(5);
    expect(await untoldTries(account)).toBe(0);
  });

  it('are in the audit trail, with whose account it is if there is one, and never as they were written', async () => {
    await released();
    const passwordHash = await hashPassword('a right password');
    const id = await person(definition.id, 'dee@x.example', [], { passwordHash });
    for (const email of ['dee@x.example', 'my secret'])
      await code(signInToLive(definition.id, email, 'guess', HERE));
    const kept = await database().execute<{ detail: object }>(
      sql`select detail from audit_events where application_id = ${definition.id} order by at`,
    );
    expect(kept.rows.map(({ detail }) => detail)).toEqual([
      { from: HERE.address, person: id },
      { from: HERE.address },
    ]);
  });

  it('are lifted once an hour, for others, who are told; their source still counts them', async () => {
    await released();
    const passwordHash = await hashPassword('a right password');
    const dee = await person(definition.id, 'dee@x.example', [], { passwordHash });
    const keeper = await person(definition.id, 'kip@x.example');
    const guess = () => code(signInToLive(definition.id, 'dee@x.example', 'guess', HERE));
    const lift = (by: string) => code(liftWaitsOf(definition.id, { personId: by }, dee));
    for (let n = 0; n < 5; n++) await guess();
    expect(await lift(dee)).toBe('own-waits');
    expect(await lift(keeper)).toBe('done');
    for (let n = 0; n < 5; n++) expect(await guess()).toBe('wrong-credentials');
    await later(-60);
    expect(await guess()).toBe('too-many-attempts');
    expect(await lift(keeper)).toBe('lifted-lately');
    await later(62);
    const told = await database().execute<{ to: string }>(
      sql`select "to" from outbox where subject like '%wait%'`,
    );
    expect(told.rows).toEqual([{ to: 'dee@x.example' }]);
    expect(await database().$count(signInAttempts)).toBe(10);
    // With an hour gone it can be lifted again; where the tries came from is as slow as before.
    await database().execute(sql`update lifted_waits set at = at - interval '61 minutes'`);
    expect(await lift(keeper)).toBe('done');
    for (let n = 0; n < 30; n++) await code(limited(`live x ${n}`, HERE, async () => undefined));
    expect(await guess()).toBe('too-many-attempts');
  });
});

describe('what one does as oneself', () => {
  it('sends so many notes a day, also at once', async () => {
    await released();
    const visit = await visitOf(definition.id, await person(definition.id, 'no@x.example'));
    const many = await Promise.all(
      Array.from({ length: 30 }, () => code(sendNote(visit, { address: '/x', text: 'x' }))),
    );
    expect(many.filter((one) => one === 'done')).toHaveLength(20);
    expect(await database().$count(notes)).toBe(20);
  });

  it('joins only roles that may be joined, and not while standing in for somebody', async () => {
    await released((base) => ({
      ...base,
      roles: base.roles.map((one) => (one.id === 'volunteer' ? { ...one, joinable: true } : one)),
      standIn: { privilege: base.privileges[0]?.privileges[0]?.id ?? '', minutes: 10, changes: true },
    }));
    const holder = definition.roles.find((role) =>
      role.privileges.includes(definition.standIn?.privilege ?? ''),
    ) as Role;
    const id = await person(definition.id, 'jo@x.example', [{ role: holder.id }]);
    const other = await person(definition.id, 'ot@x.example', [{ role: 'volunteer' }]);
    const visit = await visitOf(definition.id, id);
    expect(await code(joinOrLeave(visit, definition, 'head', true))).toBe('not-there');
    expect(await code(joinOrLeave(visit, definition, 'volunteer', true))).toBe('done');
    expect(await code(joinOrLeave(visit, definition, 'volunteer', true))).toBe('done');
    expect(await database().$count(assignments, eq(assignments.roleId, 'volunteer'))).toBe(2);
    await startStandIn(visit, other);
    const standing = await again(visit);
    expect(standing.person?.id).toBe(other);
    expect(await code(joinOrLeave(standing, definition, 'volunteer', false))).toBe('standing-in');
    expect(await code(sendNote(standing, { address: '/x', text: 'x' }))).toBe('standing-in');
    expect(await code(pressSessionButton(standing, 'x'))).toBe('standing-in');
    expect(() => PeopleManagement.of(standing)).toThrow(/acting as/);
    // Standing in ends once the right to it is gone.
    await database().delete(assignments).where(eq(assignments.personId, id));
    expect((await again(visit)).person?.id).toBe(id);
    const ended = await database().$count(auditEvents, eq(auditEvents.what, 'stand-in-ended'));
    expect(ended).toBe(1);
  });

  it('asks of itself in a filter, though somebody alike asked before', async () => {
    await released((base) => ({
      ...base,
      gates: {
        ...base.gates,
        [base.id]: { lines: [everyone('l0')] },
        item: { lines: [everyone('l1')] },
        item_lender: { lines: [everyone('l2')] },
        item_title: { lines: [everyone('l3')] },
      },
    }));
    await put(definition, 'item', 'a', { item_title: 'amy@x.example' });
    await put(definition, 'item', 'b', { item_title: 'ben@x.example' });
    const entity = definition.entities[0] as Definition['entities'][0];
    for (const [name, id] of [
      ['amy', 'a'],
      ['ben', 'b'],
      ['amy', 'a'],
    ]) {
      const email = `${name}@x.example`;
      const [known] = await database().select().from(people).where(eq(people.email, email));
      const visit = await visitOf(definition.id, known?.id ?? (await person(definition.id, email)));
      const query = { filter: 'record.title = user.email', page: 1, size: 5 };
      const found = await listRecords(scopeOf(visit), entity, true, entity.fields, query);
      expect(found.records.map((one) => one.id)).toEqual([id]);
    }
  });
});
