import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { type Edit, newLine, removeNamed, removePrivilege } from '@/core/edit';
import { type Line, newUuid, type Role } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { change, draftAt, draftOf, undoStateIn } from '@/server/drafts/draft';
import { release } from '@/server/releasing/release';
import { releasedDefinition, releaseInForce } from '@/server/releases';
import { review } from '@/server/releasing/review';
import { Refused } from '@/server/http/problem';
import { setUp } from '@/server/seed';
import { database } from '@/server/database/client';
import { applications, snapshots } from '@/server/database/schema';
import { person } from './visits';
import { application, dropApplications, emptyDatabase, underNewId } from './setting';
import { and, gt, eq } from 'drizzle-orm';

let ID: string;
let ada: string;
let bo: string;

beforeAll(emptyDatabase);
beforeEach(async () => {
  await dropApplications();
  const definition = underNewId(LARKFIELD);
  ID = definition.id;
  ({ ada, bo } = await application(definition));
});

const stores = LARKFIELD.gates['s_stores']?.lines ?? [];
const block: Line = { id: 'theblock', who: { kind: 'role', role: 'curator', exactly: true }, what: 'block' };
const add = (line: Line): Edit => ({ do: 'addLine', gate: 's_stores', line, at: 0 });
const linesNow = async () => (await draftOf(ID)).definition.gates['s_stores']?.lines ?? [];

describe('a draft', () => {
  it('keeps every edit, and is the same when it is worked out anew from snapshot and log', async () => {
    for (let n = 0; n < 55; n++)
      await change(ID, ada, n, { edit: add(newLine({ kind: 'person', person: `p${n}` }, 'see')) });
    const now = await draftOf(ID);
    expect(now.revision).toBe(55);
    expect(await draftAt(ID, 54)).not.toEqual(now);
    expect((await draftAt(ID, 55)).definition).toEqual(now.definition);
    expect(
      await database().$count(snapshots, and(eq(snapshots.applicationId, ID), gt(snapshots.revision, 0))),
    ).toBe(1);
  });

  it('makes an edit on an older revision if it still applies, else tells what came between', async () => {
    await change(ID, bo, 0, { edit: add(block) });
    const mine = await change(ID, ada, 0, {
      edit: { do: 'removeLine', gate: 's_stores', line: stores[0] as Line, at: 0 },
    });
    expect(mine.since.map(({ author }) => author)).toEqual(['bo', 'ada']);
    const late = change(ID, ada, 0, { edit: { do: 'follow', gate: 's_stores', lines: stores } });
    const error = await late.catch((reason: unknown) => reason);
    expect(error).toBeInstanceOf(Refused);
    expect((error as Refused).more.members?.['since']).toHaveLength(2);
    expect(await linesNow()).toContainEqual(block);
  });

  it('takes many edits at once, each as a revision of its own', async () => {
    const all = Array.from({ length: 12 }, (_, n) =>
      change(ID, n % 2 ? ada : bo, 0, { edit: add(newLine({ kind: 'person', person: `q${n}` }, 'see')) }),
    );
    await Promise.all(all);
    expect((await draftOf(ID)).revision).toBe(12);
    expect(await linesNow()).toHaveLength(stores.length + 12);
  });

  it("undoes and redoes one's own last standing edit only", async () => {
    await change(ID, ada, 0, { edit: add(newLine({ kind: 'everyone' }, 'see')) });
    await change(ID, bo, 1, { edit: add(block) });
    expect((await change(ID, ada, 2, 'undo')).standing).toEqual({ redo: 1 });
    expect(await linesNow()).toEqual([block, ...stores]);
    await change(ID, ada, 3, 'redo');
    expect(await linesNow()).toHaveLength(stores.length + 2);
    expect(await undoStateIn(ID, bo)).toEqual({ undo: 2 });
    await change(ID, ada, 4, 'undo');
    await expect(change(ID, ada, 5, 'undo')).rejects.toMatchObject({ code: 'nothing-to-undo' });
  });

  it('does once what is sent twice under one name: an edit, and an undo', async () => {
    const [one, two] = [newUuid(), newUuid()];
    const edit = add(newLine({ kind: 'everyone' }, 'see'));
    await change(ID, ada, 0, { edit: add(block) });
    await Promise.all([1, 2, 3].map(() => change(ID, ada, 1, { edit }, { request: one })));
    expect((await draftOf(ID)).revision).toBe(2);
    const answers = await Promise.all([1, 2].map(() => change(ID, ada, 2, 'undo', { request: two })));
    expect(answers.map(({ since }) => since.length)).toEqual([1, 1]);
    expect(await linesNow()).toEqual([block, ...stores]);
  });

  it('stores nothing that cannot be decided, and releases no such thing', async () => {
    const odd = { id: 'odd', what: 'see' } as unknown as Line;
    await expect(change(ID, ada, 0, { edit: add(odd) })).rejects.toBeInstanceOf(Error);
    expect((await draftOf(ID)).revision).toBe(0);
    // Were it there all the same, no release would go out.
    const gates = { ...LARKFIELD.gates, s_stores: { lines: [odd] } };
    await database()
      .update(snapshots)
      .set({ definition: { ...LARKFIELD, id: ID, gates } })
      .where(eq(snapshots.applicationId, ID));
    const bare = underNewId(LARKFIELD);
    const { ada: owner } = await application(bare);
    await database()
      .update(snapshots)
      .set({ definition: { ...bare, gates: { ...bare.gates, s_stores: { lines: [odd] } } } })
      .where(eq(snapshots.applicationId, bare.id));
    await expect(release(bare.id, owner, 0)).rejects.toMatchObject({ code: 'unsound' });
  });

  it('deletes what kept people out only once its maker has confirmed just that', async () => {
    const privilege = LARKFIELD.privileges[0]?.privileges[0]?.id ?? '';
    const shut: Line = { id: 'shut', who: { kind: 'privilege', privilege }, what: 'block' };
    await change(ID, ada, 0, { edit: add(shut) });
    const edit = removePrivilege((await draftOf(ID)).definition, privilege) as Edit;
    const refused = async (confirmed?: string) =>
      change(ID, ada, 1, { edit }, { confirmed }).then(
        () => undefined,
        (error: unknown) => error as Refused,
      );
    // It is asked for by settings, so that these go first.
    const first = await refused();
    const code = first?.more.members?.['code'];
    if (first?.code === 'would-widen') {
      expect(first.detail).toMatch(/would gain access/);
      expect((await refused('another'))?.code).toBe('would-widen');
      expect(await refused(String(code))).toBeUndefined();
    }
    const volunteers: Line = {
      id: 'vol',
      who: { kind: 'role', role: 'volunteer', exactly: true },
      what: 'block',
    };
    await change(ID, bo, 1, { edit: { do: 'addLine', gate: 's_stores', line: volunteers, at: 0 } });
    await change(ID, bo, 2, { edit: add({ id: 'all', who: { kind: 'signed-in' }, what: 'see' }) });
    const { definition, revision } = await draftOf(ID);
    const role = removeNamed(definition, 'roles', 'volunteer') as Edit;
    const id = await person(ID, 'vo@x.example', [{ role: 'volunteer' }]);
    const widened = await change(ID, bo, revision, { edit: role }).then(
      () => undefined,
      (error: unknown) => error as Refused,
    );
    expect(widened).toMatchObject({ code: 'would-widen' });
    expect(widened?.more.members?.['who']).toContain(`person:${id}`);
    expect((await draftOf(ID)).revision).toBe(revision);
    await change(ID, bo, revision, { edit: role }, { confirmed: String(widened?.more.members?.['code']) });
    expect((await draftOf(ID)).revision).toBe(revision + 1);
  });

  it('skips what can no longer be taken back, with a reason, and says what it took back', async () => {
    const line = newLine({ kind: 'signed-in' }, 'see');
    await change(ID, ada, 0, {
      edit: { do: 'changeSettings', from: { signUp: true }, to: { signUp: false } },
    });
    await change(ID, ada, 1, { edit: add(line) });
    await change(ID, bo, 2, { edit: { do: 'removeLine', gate: 's_stores', line, at: 0 } });
    const undone = await change(ID, ada, 3, 'undo');
    expect(undone.said).toMatch(/^Your change to Stores was skipped.*changed in the meantime/);
    expect(undone.said).toMatch(/Undone: .*sign up themselves: no → yes\.$/);
    expect(undone.standing).toEqual({ redo: 1 });
    expect((await draftOf(ID)).definition.signUp).toBe(true);
    await change(ID, ada, 4, 'redo');
    await expect(change(ID, ada, 5, 'undo').then(() => change(ID, ada, 6, 'undo'))).rejects.toMatchObject({
      code: 'nothing-to-undo',
    });
  });

  it('is reviewed with what gives power first, and what follows by its cause', async () => {
    const roleOf = (id: string) => LARKFIELD.roles.find((one) => one.id === id) as Role;
    await person(ID, 'reg@x.example', [{ role: 'registrar' }]);
    await person(ID, 'len@x.example', [{ role: 'lender' }]);
    await change(ID, ada, 0, {
      edit: {
        do: 'changeItem',
        list: 'roles',
        from: roleOf('registrar'),
        to: { ...roleOf('registrar'), handsOut: [{ role: 'head', notHeld: true }] },
      },
    });
    await change(ID, ada, 1, { edit: { do: 'follow', gate: 's_stores', lines: stores } });
    await change(ID, ada, 2, {
      edit: { do: 'changeSettings', from: { name: LARKFIELD.name }, to: { name: 'Another desk' } },
    });
    const found = await review(ID);
    expect(found.power).toEqual([
      {
        about: 'Role Registrar',
        said: 'People with this role can assign Head of collections, even without having it themselves.',
        names: ['reg@x.example'],
        more: 0,
      },
    ]);
    const screen = found.changes.find(({ about }) => about === 'Stores');
    expect(screen?.effect?.moved[0]?.names).toContain('len@x.example');
    // What is on the screen, and leads there, is told as one thing, under its cause.
    const places = screen?.following.flatMap(({ elements }) => elements) ?? [];
    expect(places.length).toBeGreaterThan(2 * (screen?.following.length ?? 0));
    expect(places).toContain('Stores (in the menu)');
    expect(found.following).toEqual([]);
    expect(found.changes.at(-1)).toMatchObject({ about: 'Another desk' });
    await release(ID, ada, 3, { note: 'For the summer' });
    expect((await releaseInForce(ID))?.note).toBe('For the summer');
    expect((await database().select({ name: applications.name }).from(applications))[0]?.name).toBe(
      'Another desk',
    );
    expect((await review(ID)).changes).toEqual([]);
  });

  it('is reviewed for any time and any session, also where it depends on them before and after', async () => {
    const curator = await person(ID, 'cur@x.example', [{ role: 'curator' }]);
    const who: Line['who'] = { kind: 'person', person: curator };
    const at = (day: string): Line => ({
      id: 'weekly',
      who,
      what: 'edit',
      when: { oneOf: { clock: 'weekday' }, values: [day] },
    });
    const stock: Line = {
      id: 'stock',
      who,
      what: 'edit',
      when: { compare: '=', left: { session: 'sv_stock' }, right: { value: true } },
    };
    const today = new Date().toLocaleDateString('en', { weekday: 'long', timeZone: LARKFIELD.timeZone });
    const days = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'];
    const [one, other] = days.filter((day) => day !== today.toLowerCase()) as [string, string];
    await change(ID, ada, 0, { edit: add(at(one)) });
    await release(ID, ada, 1);
    await change(ID, ada, 1, { edit: add(stock) });
    const [told] = (await review(ID)).changes;
    // Curators see it in any case; when it can be changed is not now.
    expect(told).toMatchObject({ about: 'Stores', asksWhen: true });
    await release(ID, ada, 2);
    await change(ID, ada, 2, { edit: { do: 'removeLine', gate: 's_stores', line: stock, at: 0 } });
    await change(ID, ada, 3, { edit: { do: 'removeLine', gate: 's_stores', line: at(one), at: 0 } });
    const gone = await review(ID);
    expect(gone.changes[0]?.effect?.moved).toMatchObject([
      {
        before: { least: 1, most: 2 },
        after: { least: 1, most: 1 },
        names: ['cur@x.example'],
        elsewhen: true,
      },
    ]);
    expect(gone.losing).toBe(1);
    await change(ID, ada, 4, { edit: add(at(other)) });
    await change(ID, ada, 5, { edit: add(stock) });
    // On one day before, on another after: at no time is it both.
    expect((await review(ID)).changes[0]).toMatchObject({
      effect: { moved: [{ elsewhen: true, names: ['cur@x.example'] }] },
      asksWhen: true,
    });
  });

  it('is released at the revision that was reviewed, and then never changes', async () => {
    await change(ID, ada, 0, { edit: add(block) });
    const found = await review(ID);
    expect(found.changes[0]).toMatchObject({
      about: 'Stores',
      done: ['Line added: Curator (directly assigned): block.'],
    });
    await change(ID, bo, 1, { edit: add(newLine({ kind: 'everyone' }, 'see')) });
    await expect(release(ID, ada, found.revision)).rejects.toMatchObject({ status: 409 });
    expect(await release(ID, ada, 2)).toBe(2);
    await change(ID, bo, 2, { edit: { do: 'removeLine', gate: 's_stores', line: block, at: 1 } });
    expect((await releasedDefinition(ID, 2)).gates['s_stores']?.lines).toContainEqual(block);
  });
});

describe('setting up', () => {
  it('without the demo makes one builder with a random password, once, and nothing else', async () => {
    await emptyDatabase();
    const first = await setUp(database(), false);
    expect(first?.password).toMatch(/^(\w{4}-){3}\w{4}$/);
    expect(await setUp(database(), false)).toBeUndefined();
    expect(await database().$count(applications)).toBe(0);
  });
});
