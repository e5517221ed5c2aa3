import { sql } from 'drizzle-orm';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { viewerKey } from '@/core';
import type { Edit } from '@/core/edit';
import type { Definition, Id } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { database } from '@/server/database/client';
import { assignments, people, proofs } from '@/server/database/schema';
import { change } from '@/server/drafts/draft';
import { exportExpectations, importExpectations } from '@/server/proving/expected-csv';
import {
  addExpectations,
  expectWhatIs,
  listExpectations,
  removeExpectations,
} from '@/server/proving/expectations';
import type { NewExpectation } from '@/contract/schemas/proving';
import { updatePerson } from '@/server/people/write';
import { newestProof } from '@/server/proving/newest';
import { proofOf, setFindingAside } from '@/server/proving/proof';
import { prove, toBeProved } from '@/server/proving/prove';
import { compareSignOff } from '@/server/proving/compare-sign-offs';
import type { Condition } from '@/core/condition';
import { listSignOffs, signOff, signOffById } from '@/server/proving/sign-offs';
import { application, dropApplications, emptyDatabase, put, underNewId } from './setting';

beforeAll(emptyDatabase);

let definition: Definition;
let ada: string;
let bo: string;
let volunteer: string;

beforeEach(async () => {
  await dropApplications();
  definition = underNewId(LARKFIELD);
  ({ ada, bo } = await application(definition));
  const [row] = await database()
    .insert(people)
    .values({ applicationId: definition.id, name: 'Wren', email: 'wren@test.example' })
    .returning();
  volunteer = row?.id ?? '';
  await database().insert(assignments).values({ personId: volunteer, roleId: 'volunteer' });
});

const line = (role: Id): Edit => ({
  do: 'addLine',
  gate: 's_loan',
  at: 0,
  line: { id: `line_${role}`, who: { kind: 'role', role }, what: 'see' },
});
const edit = (base: number, author: string, made: Edit) =>
  change(definition.id, author, base, { edit: made }, { confirmed: 'yes' });
const wanted = (
  viewer: string,
  element: Id,
  more: Partial<NewExpectation['of'][number]> = {},
): NewExpectation => ({
  name: 'What is meant',
  reason: 'It was agreed',
  of: [{ viewer, element, ...more }],
});
const MADE = viewerKey(
  'made',
  JSON.stringify({ assignments: [{ role: 'volunteer' }], attributes: {}, session: {} }),
);

describe('expectations', () => {
  it('are made for a role, a person and who is put together, on a record and at a time; an edit breaks them', async () => {
    await put(definition, 'loan', 'one', { loan_number: 'L1', loan_status: 'out' }, 'sample');
    const all = [
      wanted('role:volunteer', 's_loan'),
      wanted(viewerKey('person', volunteer), 's_loan'),
      wanted(MADE, 's_loan', { moment: Date.UTC(2026, 2, 14) }),
      wanted('role:volunteer', 'p_loan_fee', { record: { entity: 'loan', id: 'one' } }),
      wanted('role:registrar', 's_loan'),
    ];
    expect(await addExpectations(definition.id, ada, all)).toBe(5);
    const names = (await listExpectations(definition.id)).map(({ viewerName }) => viewerName);
    expect(names.sort()).toEqual(['Custom: Volunteer', 'Registrar', 'Volunteer', 'Volunteer', 'Wren']);
    await prove(definition.id);
    expect((await newestProof(definition.id))?.broken).toEqual([]);
    await edit(0, bo, line('volunteer'));
    await prove(definition.id);
    const proof = await proofOf(definition.id);
    expect(proof?.revision).toBe(1);
    const listed = await listExpectations(definition.id);
    const broken = listed.filter(({ id }) => proof?.broken.some((one) => one.id === id));
    expect(broken.map(({ viewer }) => viewer).sort()).toEqual(
      [MADE, viewerKey('person', volunteer), 'role:volunteer'].sort(),
    );
    expect(proof?.broken.every(({ since }) => since?.author.startsWith('bo') ?? false)).toBe(true);
    // What is there now is what is meant.
    await expectWhatIs(
      definition.id,
      ada,
      broken.map(({ id }) => id),
      'Meant so',
    );
    await prove(definition.id);
    expect((await newestProof(definition.id))?.broken).toEqual([]);
  });

  it('go out as CSV and come in again; a file with a fault adds none, and is told by its line', async () => {
    await addExpectations(definition.id, ada, [
      { ...wanted('role:volunteer', 's_loan'), name: 'A "name", with marks', reason: '=1+1' },
      wanted(MADE, 's_loan', { moment: Date.UTC(2026, 2, 14), expect: 'none..see' }),
    ]);
    const csv = await exportExpectations(definition.id);
    const before = await listExpectations(definition.id);
    // What is expected already is not expected twice.
    expect(await importExpectations(definition.id, bo, csv)).toBe(0);
    expect(await listExpectations(definition.id)).toEqual(before);
    await removeExpectations(
      definition.id,
      before.map(({ id }) => id),
    );
    expect(await importExpectations(definition.id, bo, csv)).toBe(2);
    const plain = (all: typeof before) => all.map(({ id: _, by: __, at: ___, ...one }) => one);
    const after = await listExpectations(definition.id);
    for (const one of plain(before))
      expect(plain(after).filter((other) => sameAs(one, other))).toHaveLength(1);
    const head = 'viewer,element,record,at,expect,name,reason';
    for (const [row, fault] of [
      ['role:volunteer,s_loan,,,much,,', /Line 3: “much” is not a level/],
      ['role:volunteer,s_loan,,yesterday,see,,', /Line 3: “yesterday” is not a valid date and time/],
      ['role:volunteer,s_loan,loan,,see,,', /Line 3: “loan” is not/],
      ['role:nobody,s_loan,,,see,,', /Nothing was saved, because the viewer/],
      ['role:volunteer,s_gone,,,see,,', /the element s_gone does not exist/],
      ['made:{,s_loan,,,see,,', /the viewer made:\{ does not exist/],
    ] as const)
      await expect(
        importExpectations(definition.id, ada, `${head}\nrole:registrar,s_loan,,,see,,\n${row}\n`),
      ).rejects.toThrow(fault);
    await expect(importExpectations(definition.id, ada, 'who,what\n')).rejects.toThrow(/Line 1: the column/);
    expect(await listExpectations(definition.id)).toHaveLength(2);
  });
});

const sameAs = (a: object, b: object): boolean => JSON.stringify(a) === JSON.stringify(b);

describe('findings', () => {
  it('are looked for again after each change, and each day, since with the days some things are over', async () => {
    expect(await toBeProved()).toEqual([definition.id]);
    await prove(definition.id);
    expect(await toBeProved()).toEqual([]);
    await database()
      .update(proofs)
      .set({ at: sql`now() - interval '25 hours'` });
    expect(await toBeProved()).toEqual([definition.id]);
    await prove(definition.id);
    expect(await toBeProved()).toEqual([]);
  });

  it('are kept for each revision with the edit they came with; what is set aside comes back when its lines change', async () => {
    await prove(definition.id);
    const [first] = (await proofOf(definition.id))?.findings ?? [];
    if (!first) throw new Error('The demo has findings');
    await setFindingAside(definition.id, ada, first.key, 'Assistants know the fees');
    const aside = async () =>
      (await proofOf(definition.id))?.findings.find(({ key }) => key === first.key)?.aside?.reason;
    expect(await aside()).toBe('Assistants know the fees');
    await edit(0, bo, { ...line('volunteer'), gate: 's_evenings' } as Edit);
    await prove(definition.id);
    expect(await aside()).toBe('Assistants know the fees');
    await edit(1, bo, { ...line('auditor'), gate: first.places[0] ?? '' } as Edit);
    await prove(definition.id);
    const now = (await proofOf(definition.id))?.findings.find(({ key }) => key === first.key);
    expect(now?.aside).toBeUndefined();
    await edit(2, bo, {
      do: 'addLine',
      gate: 's_stores',
      at: 0,
      line: { id: 'x', who: { kind: 'role', role: 'gone' }, what: 'see' },
    });
    await prove(definition.id);
    const gone = (await proofOf(definition.id))?.findings.find(({ kind }) => kind === 'names-what-is-gone');
    expect(gone?.since).toMatchObject({ revision: 3 });
    await expect(setFindingAside(definition.id, ada, 'no such finding', 'x')).rejects.toThrow(
      /no longer exists/,
    );
  });
});

const compared = (id: string, other?: string) =>
  compareSignOff(definition.id, id, other, () => undefined, new AbortController().signal);
/** One of those who look after people gives the volunteer a role. */
const give = (role: Id) =>
  database().transaction((tx) =>
    updatePerson(tx, definition.id, definition, { builderId: bo }, volunteer, { give: [{ role }] }),
  );

describe('what was signed off', () => {
  it('stays as it was; what differs is told under the edit that did it, or the change of the person', async () => {
    const id = await signOff(definition.id, ada, 'March review', 0);
    const { sha256 } = await signOffById(definition.id, id);
    const none = { first: [], count: 0 };
    expect(await compared(id)).toEqual({
      cells: [],
      gained: 0,
      lost: 0,
      otherwise: none,
      definition: none,
      people: none,
    });
    await edit(0, bo, line('volunteer'));
    await edit(1, ada, { ...line('assistant'), gate: 's_schedule' } as Edit);
    await give('auditor');
    await edit(2, ada, { ...line('auditor'), gate: 's_people' } as Edit);
    const { cells, gained, lost } = await compared(id);
    const cause = (viewer: string, element: Id) => {
      const found = cells.find((one) => one.viewer === viewer && one.element === element);
      return { edit: found?.edit, person: found?.person };
    };
    expect(cause('role:volunteer', 's_loan')).toMatchObject({
      edit: {
        author: 'bo',
        revision: 1,
        says: expect.stringMatching(/^Loan details\. .*Volunteer/) as string,
      },
      person: undefined,
    });
    expect(cause('role:assistant', 's_schedule')).toMatchObject({ edit: { author: 'ada', revision: 2 } });
    const person = viewerKey('person', volunteer);
    expect(cause(person, 's_schedule')).toMatchObject({
      edit: undefined,
      person: { author: 'bo', says: 'was assigned Auditor' },
    });
    // Neither would have done it by itself.
    expect(cause(person, 's_people')).toMatchObject({ edit: { revision: 3 }, person: { author: 'bo' } });
    expect(cells.every(({ gains }) => gains)).toBe(true);
    expect([gained, lost]).toEqual([cells.length, 0]);
    expect(await signOffById(definition.id, id)).toMatchObject({ sha256, isWhole: true });
  });

  it('differs in records, in the definition and in people too, and tells that an old revision was signed', async () => {
    await edit(0, bo, line('volunteer'));
    const id = await signOff(definition.id, ada, 'Late', 0);
    expect((await listSignOffs(definition.id)).map(({ wasOld }) => wasOld)).toEqual([true]);
    const { otherwise: before } = await compared(id);
    const [from] = definition.gates['s_piece']?.lines ?? [];
    if (!from) throw new Error('The demo has a line there');
    const shown = { compare: '=', left: { record: 'item_shown' }, right: { value: true } } as const;
    const when = { all: [from.when as Condition, shown] };
    await edit(1, ada, { do: 'changeLine', gate: 's_piece', from, to: { ...from, when } });
    const { otherwise, definition: changes } = await compared(id);
    expect(otherwise.count).toBeGreaterThan(before.count);
    expect(otherwise.first.some(({ what, who }) => what === 'records' && who.length > 0)).toBe(true);
    expect(changes.first.map(({ about }) => about)).toHaveLength(2);
    await give('auditor');
    expect((await compared(id)).people.first).toMatchObject([{ says: 'was assigned Auditor' }]);
  });

  it('is compared with a later one; what is given back meanwhile is told as what it comes to', async () => {
    const first = await signOff(definition.id, ada, 'March review', 0);
    await edit(0, bo, line('volunteer'));
    await edit(1, ada, { ...line('volunteer'), do: 'removeLine' } as Edit);
    await give('auditor');
    const second = await signOff(definition.id, ada, 'June review', 2);
    await edit(2, bo, line('assistant'));
    const { cells } = await compared(first, second);
    expect(cells.length).toBeGreaterThan(0);
    expect(cells.every(({ edit: made, person }) => made === undefined && person?.author === 'bo')).toBe(true);
    // The other way round it is told what was otherwise, and not by what.
    const back = await compared(second, first);
    expect(back.lost).toBe(cells.length);
    expect(back.cells.every(({ edit: made, person }) => made === undefined && person === undefined)).toBe(
      true,
    );
  });

  it('says how far comparing is, and stops when told to', async () => {
    const id = await signOff(definition.id, ada, 'March review', 0);
    for (let n = 0; n < 40; n++)
      await edit(n, bo, {
        do: 'addLine',
        gate: 's_loan',
        at: 0,
        line: { id: `line_${n}`, who: { kind: 'role', role: 'volunteer' }, what: n % 2 ? 'see' : 'edit' },
      });
    const stop = new AbortController();
    let told = 0;
    const comparing = compareSignOff(
      definition.id,
      id,
      undefined,
      (done, of) => {
        expect(done).toBeGreaterThanOrEqual(told);
        expect(done).toBeLessThanOrEqual(of);
        told = done;
        stop.abort();
      },
      stop.signal,
    );
    await expect(comparing).rejects.toThrow(/abort/i);
    expect(told).toBeGreaterThan(0);
  });
});
