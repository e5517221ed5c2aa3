import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { viewerKey } from '@/core';
import type { Edit } from '@/core/edit';
import type { Definition, Id } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { database } from '@/server/database/client';
import { assignments, people } from '@/server/database/schema';
import { change } from '@/server/drafts/draft';
import { exportExpectations, importExpectations } from '@/server/proving/expected-csv';
import { addExpectations, expectWhatIs, listExpectations, type Wanted } from '@/server/proving/expectations';
import { newestProof } from '@/server/proving/newest';
import { proofOf, setFindingAside } from '@/server/proving/proof';
import { prove } from '@/server/proving/prove';
import { compareSignOff, signOff, signOffById } from '@/server/proving/sign-offs';
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
const wanted = (viewer: string, element: Id, more: Partial<Wanted['of'][number]> = {}): Wanted => ({
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
    expect(names.sort()).toEqual(['Made up: Volunteer', 'Registrar', 'Volunteer', 'Volunteer', 'Wren']);
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
    expect(await importExpectations(definition.id, bo, csv)).toBe(2);
    const plain = (all: typeof before) => all.map(({ id: _, by: __, at: ___, ...one }) => one);
    const after = await listExpectations(definition.id);
    expect(after).toHaveLength(4);
    for (const one of plain(before))
      expect(plain(after).filter((other) => sameAs(one, other))).toHaveLength(2);
    const head = 'viewer,element,record,at,expect,name,reason';
    for (const [row, fault] of [
      ['role:volunteer,s_loan,,,much,,', /Line 3: “much” is no level/],
      ['role:volunteer,s_loan,,yesterday,see,,', /Line 3: “yesterday” is no moment/],
      ['role:volunteer,s_loan,loan,,see,,', /Line 3: “loan” is no record/],
      ['role:nobody,s_loan,,,see,,', /the viewer role:nobody is not there/],
      ['role:volunteer,s_gone,,,see,,', /the element s_gone is not there/],
      ['made:{,s_loan,,,see,,', /the viewer made:\{ is not there/],
    ] as const)
      await expect(
        importExpectations(definition.id, ada, `${head}\nrole:registrar,s_loan,,,see,,\n${row}\n`),
      ).rejects.toThrow(fault);
    await expect(importExpectations(definition.id, ada, 'who,what\n')).rejects.toThrow(/Line 1: the column/);
    expect(await listExpectations(definition.id)).toHaveLength(4);
  });
});

const sameAs = (a: object, b: object): boolean => JSON.stringify(a) === JSON.stringify(b);

describe('findings', () => {
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
      /not found any more/,
    );
  });
});

describe('what was signed off', () => {
  it('stays as it was; what differs is told under the edit that did it, or the change of the person', async () => {
    const id = await signOff(definition.id, ada, 'March review', 0);
    const { sha256 } = await signOffById(definition.id, id);
    expect(await compareSignOff(definition.id, id)).toMatchObject({ cells: [], gained: 0, lost: 0 });
    await edit(0, bo, line('volunteer'));
    await edit(1, ada, { ...line('assistant'), gate: 's_schedule' } as Edit);
    await database().insert(assignments).values({ personId: volunteer, roleId: 'auditor' });
    const { cells, gained, lost } = await compareSignOff(definition.id, id);
    const cause = (viewer: string, element: Id) =>
      cells.find((one) => one.viewer === viewer && one.element === element)?.by;
    expect(cause('role:volunteer', 's_loan')).toMatchObject({
      revision: 1,
      says: expect.stringMatching(/^Loan details\. .*Volunteer/) as string,
    });
    expect(cause('role:assistant', 's_schedule')).toMatchObject({ revision: 2 });
    expect(cause(viewerKey('person', volunteer), 's_schedule')).toEqual({ person: true });
    expect(cells.every(({ gains }) => gains)).toBe(true);
    expect([gained, lost]).toEqual([cells.length, 0]);
    expect(await signOffById(definition.id, id)).toMatchObject({ sha256, isWhole: true });
  });
});
