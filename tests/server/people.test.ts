import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Assignment, HandingOut, Grants, type Person, rightNow, type Viewer } from '@/core/access';
import type { Definition } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { database } from '@/server/database/client';
import { people, sessions } from '@/server/database/schema';
import { exportPeople, importPeople } from '@/server/studio/people-csv';
import { peopleOf } from '@/server/people/read';
import { createPerson, updatePerson } from '@/server/people/write';
import { Refused } from '@/server/http/problem';
import { openSession } from '@/server/security/sessions';
import { confirmAll } from './visits';
import { application, dropApplications, emptyDatabase, underNewId } from './setting';

let definition: Definition;
let keeper: { builderId: string };

beforeAll(async () => {
  await emptyDatabase();
  definition = underNewId(LARKFIELD);
  keeper = { builderId: (await application(definition)).ada };
});
afterAll(dropApplications);

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const run = (text: string, dry: boolean) => importPeople(definition.id, keeper, bytes(text), dry);
const count = (): Promise<number> => database().$count(people, eq(people.applicationId, definition.id));

const FILE = [
  'email,name,active,home_unit,roles,u_staff,u_trained',
  'ann@x.example,"Ann ""A"", of\nthe desk",yes,mill-annexe,assistant@mill-annexe[2026-01-01T00:00:00.000Z/],yes,2027-01-31',
  "bob@x.example,'=HYPERLINK(1),yes,,volunteer; lender,no,",
  "cat@x.example,'@cat,no,main-hall,,,",
].join('\r\n');

describe('people as CSV', () => {
  it('are told line by line first, then read, all or nothing, and come out as they went in', async () => {
    expect((await run(FILE, true)).lines.map(({ line, does }) => [line, does])).toEqual([
      [3, 'new'],
      [4, 'new'],
      [5, 'new'],
    ]);
    expect(await count()).toBe(0);
    const broken = `${FILE}\r\nann@x.example,Twice,yes,,,,\r\ndan@x.example,Dan,yes,nowhere,registrar@gone; x y,maybe,soon`;
    const wrong = (await run(broken, false)).lines.filter(({ does }) => does === 'wrong');
    expect(wrong.map(({ line }) => line)).toEqual([6, 7]);
    expect(wrong[1]?.says.join(' ')).toMatch(
      /u_staff: enter yes or no.*“registrar@gone” does not match.*“x y” does not match/,
    );
    expect(await count()).toBe(0);
    expect((await run(FILE, false)).counts).toEqual({ new: 3, changes: 0, same: 0, wrong: 0 });
    const [ann, bob] = await peopleOf(definition.id);
    expect([ann?.name, bob?.name]).toEqual(['=HYPERLINK(1)', '@cat']);
    const file = await exportPeople(definition.id);
    expect(file).toContain("'=HYPERLINK(1)");
    expect(file).not.toMatch(/(^|,)[=@+-]/m);
    expect((await run(file, true)).lines.map(({ does }) => does)).toEqual(['same', 'same', 'same']);
  });

  it('takes columns, roles, units and options by the names that they have, as well as by their ids', async () => {
    const header = 'Email address,Name,Home unit,Role,Staff,TRAINED UNTIL';
    const row = 'eve@x.example,Eve,mill annexe,Head of collections; Assistant @ Mill Annexe,yes,2027-01-31';
    const [told] = (await run(`${header}\r\n${row}\r\n`, true)).lines;
    expect(told).toMatchObject({ does: 'new', says: ['Eve, Head of collections; Assistant@Mill Annexe'] });
    const nobody = await run('email,name,roles\r\neve@x.example,Eve,Head of nothing @ Mill Annexe\r\n', true);
    expect(nobody.lines[0]?.says.join()).toMatch(
      /“Head of nothing @ Mill Annexe” does not match.*Volunteer, /,
    );
  });

  it('says what would change, and leaves what the file has no column for', async () => {
    const { lines: told } = await run('email,u_trained\r\nann@x.example,2028-01-01\r\n', true);
    expect(told[0]).toMatchObject({ does: 'changes', says: ['u_trained: 2027-01-31 → 2028-01-01'] });
    await expect(run('name\r\nAnn\r\n', true)).rejects.toThrow(/column email is missing/);
    await expect(run('email,salary\r\na@x.example,1\r\n', true)).rejects.toThrow(
      /columns salary are not known/,
    );
    await expect(run('email\r\n"a', true)).rejects.toThrow(/not valid CSV/);
    await expect(run('email;name\r\na@x.example;A\r\n', true)).rejects.toThrow(/semicolons/);
    const many = Array.from({ length: 3000 }, (_, n) => `c${n}`).join(',');
    await expect(run(`email,${many}\r\n`, true)).rejects.toThrow(/c4 and 2995 more/);
    await expect(run('email,email\r\na@x.example,b\r\n', true)).rejects.toThrow(/twice/);
  });

  it('reads periods without a zone in the application’s, and none in a year that cannot be kept', async () => {
    const given = async (period: string) => {
      const { lines } = await run(`email,roles\r\nann@x.example,assistant[${period}]\r\n`, true);
      return lines[0]?.says.join(' ');
    };
    // Larkfield is in London: summer time.
    expect(await given('2026-07-01/2026-07-02T12:00')).toContain(
      'Assistant[2026-06-30T23:00:00.000Z/2026-07-02T11:00:00.000Z]',
    );
    for (const bad of ['0000-01-01/', '+275760-09-13T00:00:00Z/', '2026-02-30/', '2026-01-01T25:00:00Z/'])
      expect(await given(bad)).toMatch(/^roles: “assistant\[.*” is not/);
  });

  it('lets people sign in while many are read, and is all or nothing to the last line', async () => {
    await confirmAll(definition.id);
    const header = 'email,name,roles';
    const rows = Array.from({ length: 8000 }, (_, n) => `n${n}@x.example,N ${n},volunteer`);
    const [before, ann] = [await count(), (await peopleOf(definition.id))[0]];
    let longest = 0;
    let done = false;
    const importing = run([header, ...rows, 'ann@x.example,Ann,registrar'].join('\r\n'), false).finally(
      () => (done = true),
    );
    while (!done) {
      const begun = performance.now();
      // What signing in writes: a session that points to the person whom the import changes.
      await openSession({ audience: 'live', applicationId: definition.id, personId: ann?.id ?? '' });
      longest = Math.max(longest, performance.now() - begun);
    }
    await importing;
    await database().delete(sessions);
    expect(await count()).toBe(before + 8000);
    // Ten times what one takes alone, on a slow machine; before, it waited for the whole import.
    expect(longest).toBeLessThan(2000);
    await expect(
      run(`${header}\r\nnew@x.example,New,\r\nnew2@x.example,,nothing\r\n`, false),
    ).resolves.toMatchObject({ counts: { wrong: 1 } });
    expect(await count()).toBe(before + 8000);
    // Cancelled half-way, nothing of it is there.
    const cancelling = new AbortController();
    const more = Array.from({ length: 4000 }, (_, n) => `c${n}@x.example,C ${n},volunteer`);
    const cancelled = importPeople(
      definition.id,
      keeper,
      bytes([header, ...more].join('\r\n')),
      false,
      cancelling,
    );
    setTimeout(() => cancelling.abort(), 800);
    await expect(cancelled).rejects.toThrow(/abort/i);
    expect(await count()).toBe(before + 8000);
  });
});

describe('accounts', () => {
  it('switching off ends the sessions of that person, and what they have unlocked for others', async () => {
    const [a, b] = await Promise.all(
      ['eve@x.example', 'fay@x.example'].map((email) =>
        database().transaction((tx) =>
          createPerson(tx, definition.id, definition, keeper, { name: email, email }),
        ),
      ),
    );
    await openSession({ audience: 'live', applicationId: definition.id, personId: a ?? '' });
    await openSession({ audience: 'live', applicationId: definition.id, personId: b ?? '' });
    const held = { element: 'x', record: 'r', what: 'see' as const, until: Date.now() + 60_000 };
    await database()
      .update(sessions)
      .set({
        unlocked: [
          { ...held, by: a ?? '' },
          { ...held, by: 'somebody' },
        ],
      })
      .where(eq(sessions.personId, b ?? ''));
    await database().transaction((tx) =>
      updatePerson(tx, definition.id, definition, keeper, a ?? '', { active: false }),
    );
    const left = await database().select().from(sessions);
    expect(left.map(({ personId, unlocked }) => [personId, unlocked.map(({ by }) => by)])).toEqual([
      [b, ['somebody']],
    ]);
  });

  it('are new with the roles that every new person gets, one for each address', async () => {
    const make = (email: string) =>
      database().transaction((tx) =>
        createPerson(tx, definition.id, definition, keeper, { name: 'Gus', email }),
      );
    await make('Gus@X.example');
    const gus = (await peopleOf(definition.id)).find((one) => one.attributes['email'] === 'gus@x.example');
    expect(gus?.assignments).toEqual([{ role: 'lender' }]);
    await expect(make('gus@x.EXAMPLE')).rejects.toBeInstanceOf(Refused);
  });
});

describe('handing out', () => {
  const withKeeper = (handsOut: NonNullable<Definition['roles'][number]['handsOut']>): Definition => ({
    ...LARKFIELD,
    roles: LARKFIELD.roles.map((role) => (role.id === 'keeper' ? { ...role, handsOut } : role)),
  });
  const handing = (of: Definition, ...assignments: Assignment[]): HandingOut => {
    const viewer: Viewer = { kind: 'signed-in', person: 'me', assignments };
    return new HandingOut(new Grants(of, viewer, rightNow()), 'me');
  };
  const person = (id: string, home: string | null, ...roles: string[]): Person => ({
    id,
    name: id,
    active: true,
    assignments: roles.map((role) => ({ role })),
    attributes: { home_unit: home },
  });

  it.each([
    [
      'what is granted without holding it',
      [{ role: 'registrar', notHeld: true }],
      ['keeper'],
      { role: 'registrar' },
      true,
    ],
    ['nothing above what they hold', [{ role: 'registrar' }], ['keeper'], { role: 'registrar' }, false],
    ['what they hold themselves', [{ role: 'registrar' }], ['keeper', 'head'], { role: 'registrar' }, true],
    [
      'nothing that is not named',
      [{ role: 'registrar', notHeld: true }],
      ['keeper'],
      { role: 'volunteer' },
      false,
    ],
  ])('gives %s', (_, handsOut, roles, given, may) => {
    const mine = handing(withKeeper(handsOut), ...roles.map((role) => ({ role })));
    expect(mine.mayHandOut(given)).toBe(may);
  });

  it('stays within the units in which it is held, and never reaches oneself', () => {
    const of = withKeeper([{ role: 'volunteer', notHeld: true }]);
    const mine = handing(of, { role: 'keeper', unit: 'mill-annexe' });
    expect(mine.mayHandOut({ role: 'volunteer', unit: 'mill-annexe' })).toBe(true);
    for (const unit of ['main-hall', 'larkfield-all', undefined])
      expect(mine.mayHandOut({ role: 'volunteer', unit })).toBe(false);
    expect(mine.mayLookAfter(person('a', 'mill-annexe'))).toBe(true);
    expect(mine.mayLookAfter(person('a', 'main-hall'))).toBe(false);
    expect(mine.mayLookAfter(person('a', null))).toBe(false);
    expect(mine.mayLookAfter(person('me', 'mill-annexe'))).toBe(false);
  });

  it('leaves alone who holds more, and what conditions compare', () => {
    const mine = handing(withKeeper([{ role: 'volunteer', notHeld: true }]), { role: 'keeper' });
    expect(mine.holdsNoMore(person('a', null, 'volunteer'))).toBe(true);
    expect(mine.holdsNoMore(person('a', null, 'volunteer', 'assistant'))).toBe(false);
    expect([...mine.compared].sort()).toEqual(['email', 'home_unit', 'u_staff', 'u_trained']);
  });
});
