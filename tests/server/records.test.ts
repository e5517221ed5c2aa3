import { eq } from 'drizzle-orm';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { readDefinition, viewerOfRole } from '@/core';
import { type ChartPoint, SIGNED_OUT, type Viewer } from '@/core/access';
import type { Condition } from '@/core/condition';
import type { Definition, Line, Values } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { database } from '@/server/database/client';
import { records } from '@/server/database/schema';
import { Refused } from '@/server/http/problem';
import { listRecords, openRecord, type RecordScope } from '@/server/records/read';
import { pageAt } from '@/server/live/screen-page';
import { RecordsApi } from '@/server/records/api';
import { WholeList } from '@/server/records/lists';
import { createRecord, updateRecord } from '@/server/records/write';
import { application, dropApplications, emptyDatabase, put, scopeFor, fileOf } from './setting';
import { act, change, remove, seen } from './writing';

const item = LARKFIELD.entities[0] as (typeof LARKFIELD.entities)[number];
const loan = LARKFIELD.entities[1] as (typeof LARKFIELD.entities)[number];
const WRITER = { keep: true };

const line = (role: string, what: Line['what']): Line => ({ id: role, who: { kind: 'role', role }, what });

/** The demo, with the insurance value gated everywhere. */
const GATED: Definition = {
  ...LARKFIELD,
  gates: { ...LARKFIELD.gates, item_value: { lines: [line('registrar', 'edit'), line('curator', 'see')] } },
};

const EWER = {
  item_accession: 'LM.1.1',
  item_title: 'Ewer',
  item_value: '18400',
  item_store: 'Cellar',
  item_branch: 'main-hall',
  item_shown: false,
};

const [volunteer, assistant, registrar, head, curator] = [
  'volunteer',
  'assistant',
  'registrar',
  'head',
  'curator',
].map(viewerOfRole) as [Viewer, Viewer, Viewer, Viewer, Viewer];

beforeAll(emptyDatabase);
beforeEach(async () => {
  await dropApplications();
  await application(GATED);
  await put(GATED, 'item', 'ewer', EWER);
  await put(GATED, 'item', 'shown', { ...EWER, item_title: 'Shown', item_value: '5', item_shown: true });
  await put(GATED, 'item', 'ewer', { ...EWER, item_title: 'Sample' }, 'sample');
  await put(GATED, 'loan', 'one', {
    loan_number: 'L1',
    loan_item: 'ewer',
    loan_borrower: 'Tarn',
    loan_status: 'out',
  });
});

const as = (viewer: Viewer) => scopeFor(GATED, viewer);
const stored = async (id: string) => {
  const [row] = await database().select().from(records).where(eq(records.id, id)).orderBy(records.kind);
  return row;
};
/** What a refusal says, without what the asker sent themself. */
async function refusal(work: Promise<unknown>) {
  const error = await work.then(
    () => undefined,
    (reason: unknown) => reason,
  );
  if (!(error instanceof Refused)) throw new Error(`It was not refused: ${String(error)}`);
  return { status: error.status, code: error.code, errors: error.more.errors?.map(({ detail }) => detail) };
}

describe('writing', () => {
  it('is decided field by field on the stored record, and is refused whole', async () => {
    const before = await stored('ewer');
    const refusedEdits = [
      [curator, { item_title: 'Mine', item_value: '1' }, 403],
      [assistant, { item_title: 'Mine', item_value: '1' }, 422],
      [volunteer, { item_title: 'Mine' }, 403],
      [SIGNED_OUT, { item_title: 'Mine' }, 404],
    ] as const;
    for (const [viewer, input, status] of refusedEdits)
      expect(await refusal(change(as(viewer), WRITER, item, 'ewer', input))).toMatchObject({
        status,
      });
    expect(await stored('ewer')).toEqual(before);
    await change(as(registrar), WRITER, item, 'ewer', { item_value: '020.50' });
    expect(await stored('ewer')).toMatchObject({ version: 2, data: { ...EWER, item_value: '20.5' } });
  });

  it('answers the same for a field that is hidden and one that does not exist', async () => {
    const hidden = await refusal(change(as(assistant), WRITER, item, 'ewer', { item_value: '1' }));
    expect(hidden).toEqual(await refusal(change(as(assistant), WRITER, item, 'ewer', { nothing: '1' })));
    expect(hidden).toEqual(await refusal(change(as(assistant), WRITER, item, 'ewer', { __proto__x: '1' })));
    const sort = (field: string) =>
      listRecords(as(volunteer), item, true, item.fields, {
        page: 1,
        size: 9,
        sort: { field, descending: false },
      });
    expect(await refusal(sort('item_value'))).toEqual(await refusal(sort('nothing')));
  });

  it('tells the second of two writers, and loses nothing', async () => {
    const before = await seen(as(head), item, 'ewer');
    await change(as(registrar), WRITER, item, 'ewer', { item_title: 'First' });
    expect(
      await refusal(updateRecord(as(head), WRITER, item, 'ewer', before, { item_title: 'Second' })),
    ).toMatchObject({ status: 412 });
    const now = await seen(as(registrar), item, 'ewer');
    const both = await Promise.allSettled(
      ['A', 'B'].map((item_title) => updateRecord(as(registrar), WRITER, item, 'ewer', now, { item_title })),
    );
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
  });

  it('tells by the version nothing of what somebody may not see, and lets them write beside it', async () => {
    const assistants = await seen(as(assistant), item, 'ewer');
    await change(as(registrar), WRITER, item, 'ewer', { item_value: '99' });
    expect(await seen(as(assistant), item, 'ewer')).toBe(assistants);
    await updateRecord(as(assistant), WRITER, item, 'ewer', assistants, { item_title: 'Beside' });
    expect(await stored('ewer')).toMatchObject({ data: { item_value: '99', item_title: 'Beside' } });
    expect(await seen(as(assistant), item, 'ewer')).not.toBe(assistants);
  });

  it('takes one request as the chain that it could have been, each step allowed by itself', async () => {
    const shown: Condition = { compare: '=', left: { record: 'item_shown' }, right: { value: true } };
    const registrars = line('registrar', 'edit');
    const chained: Definition = {
      ...GATED,
      gates: { ...GATED.gates, item_value: { lines: [{ ...registrars, when: shown }] } },
    };
    const scope = scopeFor(chained, registrar);
    expect(await refusal(change(scope, WRITER, item, 'ewer', { item_value: '7' }))).toMatchObject({
      status: 422,
    });
    await change(scope, WRITER, item, 'ewer', { item_value: '7', item_shown: true });
    expect(await stored('ewer')).toMatchObject({ data: { item_value: '7', item_shown: true } });
  });

  it('checks values by their type, and says each beside its field', async () => {
    const wrong = { item_title: '', item_value: 'a lot', item_branch: 'Moon', item_shown: 'yes' };
    expect(await refusal(change(as(registrar), WRITER, item, 'ewer', wrong))).toMatchObject({
      status: 422,
      errors: { length: 4 },
    });
    expect(
      await refusal(createRecord(as(registrar), WRITER, item, { item_title: 'No number' })),
    ).toMatchObject({ status: 422 });
  });

  it('lets nothing be pointed to that the writer may not see, nor asks what is pointed to', async () => {
    const make = (loan_item: string) =>
      createRecord(as(assistant), WRITER, loan, { loan_number: 'L2', loan_item, loan_borrower: 'Me' });
    expect((await make('ewer')).values).toMatchObject({ loan_item: 'ewer', loan_status: 'requested' });
    const nobody = scopeFor({ ...GATED, gates: { ...GATED.gates, item: { lines: [] } } }, assistant);
    const guess = (id: string) => refusal(change(nobody, WRITER, loan, 'one', { loan_item: id }));
    expect(await guess('ewer')).toEqual(await guess('nothing'));
    // Also where the door of making asks about the record that is pointed to.
    const stored: Condition = {
      compare: '=',
      left: { record: 'item_store', through: 'loan_item' },
      right: { value: 'Cellar' },
    };
    const asking: Definition = {
      ...GATED,
      gates: {
        ...GATED.gates,
        item: { lines: [] },
        loan_create: { lines: [{ ...line('assistant', 'edit'), when: stored }] },
      },
    };
    const attempt = (loan_item: string) =>
      refusal(
        createRecord(scopeFor(asking, assistant), WRITER, loan, {
          loan_number: 'L3',
          loan_item,
          loan_borrower: 'Me',
        }),
      );
    expect(await attempt('ewer')).toEqual(await attempt('shown'));
    expect(await attempt('ewer')).toEqual(await attempt('nothing'));
  });

  it('names no needed field that its maker may not see', async () => {
    const hidden: Definition = {
      ...GATED,
      gates: { ...GATED.gates, item_accession: { lines: [] } },
    };
    const answer = await createRecord(scopeFor(hidden, registrar), WRITER, item, { item_title: 'New' }).then(
      () => undefined,
      (error: unknown) => error,
    );
    expect(answer).toBeInstanceOf(Refused);
    expect(JSON.stringify(answer)).not.toMatch(/accession/i);
  });

  it('deletes nothing that is pointed to, in one plain answer', async () => {
    expect(await refusal(remove(as(head), WRITER, item, 'ewer'))).toEqual({
      status: 409,
      code: 'in-use',
      errors: undefined,
    });
    expect(await refusal(remove(as(registrar), WRITER, item, 'shown'))).toMatchObject({
      status: 403,
    });
    await remove(as(head), WRITER, item, 'shown');
    expect(await stored('shown')).toBeUndefined();
  });

  it('runs a named action by its own door, whatever the fields are to the viewer', async () => {
    const release = (viewer: Viewer) => act(as(viewer), WRITER, item, 'ewer', 'a_item_release');
    expect(await refusal(release(assistant))).toMatchObject({ status: 404 });
    expect((await release(registrar)).values).toMatchObject({ item_store: null, item_shown: true });
  });

  it('runs an action that is given while something is so, also where it makes it so no more', async () => {
    const blue: Condition = { compare: '=', left: { record: 'item_title' }, right: { value: 'Ewer' } };
    const set = (sets: Values): Definition => ({
      ...GATED,
      entities: GATED.entities.map((entity) => ({
        ...entity,
        actions: entity.actions.map((one) =>
          one.id === 'a_item_release' && one.kind === 'named' ? { ...one, sets } : one,
        ),
      })),
      gates: {
        ...GATED.gates,
        a_item_release: { lines: [{ ...line('registrar', 'edit'), when: blue }] },
        item: { lines: [{ ...line('registrar', 'edit'), when: blue }, line('head', 'edit')] },
      },
    });
    const scope = (definition: Definition) => scopeFor(definition, registrar);
    const run = async (on: RecordScope): Promise<unknown> => {
      const headers = { 'if-match': `"${await seen(on, item, 'ewer')}"` };
      const request = new Request('http://x', { method: 'POST', headers });
      return (await new RecordsApi(on, WRITER).act('item', 'ewer', 'a_item_release', request)).json();
    };
    const gone = scope(set({ item_title: 'Gone', item_store: null }));
    // What is out of sight then is not sent.
    expect(await run(gone)).toEqual({ done: true });
    expect(await stored('ewer')).toMatchObject({ data: { item_title: 'Gone', item_store: null } });
    expect(await refusal(run(gone))).toMatchObject({ status: 404 });
    // By hand it may not be put there.
    await database().update(records).set({ data: EWER }).where(eq(records.id, 'ewer'));
    expect(await refusal(change(gone, WRITER, item, 'ewer', { item_title: 'Gone' }))).toMatchObject({
      status: 403,
    });
    // What a record needs is there afterwards as well.
    expect(await refusal(run(scope(set({ item_title: null }))))).toMatchObject({ status: 422 });
  });

  it('puts no record where the writer could not have put it', async () => {
    const onlyShown: Definition = {
      ...GATED,
      gates: {
        ...GATED.gates,
        s_item: { lines: [line('head', 'edit')] },
        s_items: { lines: [line('head', 'edit')] },
        s_stores: { lines: [] },
        s_fragile: { lines: [] },
        a_item_create: { lines: [line('registrar', 'edit')] },
      },
    };
    const scope = scopeFor(onlyShown, registrar);
    const values = { item_accession: 'X', item_title: 'X', item_branch: 'main-hall' };
    // The catalogue carries what is on display, and a new item is not: it would be out of their sight.
    expect(await refusal(createRecord(scope, WRITER, item, values))).toMatchObject({ status: 403 });
  });

  it('keeps nothing that is only tried', async () => {
    await change(as(registrar), { keep: false }, item, 'ewer', { item_title: 'Tried' });
    expect(await stored('ewer')).toMatchObject({ version: 1, data: EWER });
  });
});

describe('reading', () => {
  it('gives a signed-out visitor what the public catalogue carries, and no more', async () => {
    const page = await listRecords(as(SIGNED_OUT), item, true, item.fields, { page: 1, size: 9 });
    expect(page.records.map(({ id }) => id)).toEqual(['shown']);
    expect(await openRecord(as(SIGNED_OUT), item, 'ewer')).toBeUndefined();
  });

  it('shows neither label nor id of a record that is closed, nor finds or sorts by it', async () => {
    const closed = scopeFor({ ...GATED, gates: { ...GATED.gates, item: { lines: [] } } }, assistant);
    const api = new RecordsApi(closed, WRITER);
    const record: unknown = await (await api.read('loan', 'one')).json();
    const found = await api.list('loan', new URLSearchParams('q=ewer'));
    const sorted = await api.list('loan', new URLSearchParams('sort=loan_item'));
    for (const sent of [record, found, sorted]) expect(JSON.stringify(sent)).not.toMatch(/ewer/i);
    expect(record).toMatchObject({ values: { loan_item: null }, labels: {} });
    expect(found).toMatchObject({ total: 0 });
    const outcome = await pageAt(closed, 'loans/one', new URLSearchParams());
    expect(JSON.stringify(outcome)).not.toMatch(/ewer/i);
  });

  it('searches only what the viewer sees, and keeps sample and live apart', async () => {
    const find = async (viewer: Viewer, q: string) =>
      (await listRecords(as(viewer), item, true, item.fields, { page: 1, size: 9, q })).records.map(
        ({ id }) => id,
      );
    expect(await find(registrar, 'cellar')).toHaveLength(2);
    expect(await find(viewerOfRole('auditor'), 'cellar')).toHaveLength(2);
    expect(await find(SIGNED_OUT, 'cellar')).toEqual([]);
    expect(await find(registrar, 'sample')).toEqual([]);
    const loans = async (viewer: Viewer, q: string) =>
      (await listRecords(as(viewer), loan, true, loan.fields, { page: 1, size: 9, q })).total;
    expect(await loans(registrar, 'ewer')).toBe(1);
  });

  it('shows in a list of the screen’s record only what points to it; no export or change reaches further', async () => {
    await put(GATED, 'loan', 'two', { loan_number: 'L2', loan_item: 'shown', loan_status: 'out' });
    const limited: Definition = {
      ...GATED,
      entities: GATED.entities.map((one) => {
        if (one.id !== 'loan') return one;
        const whole = (['export', 'bulk'] as const).map((kind) => ({ kind, id: `loan_${kind}`, name: kind }));
        return { ...one, actions: [...one.actions, ...whole] };
      }),
      areas: GATED.areas.map((area) => ({
        ...area,
        screens: area.screens.map((screen) =>
          screen.id !== 's_item'
            ? screen
            : {
                ...screen,
                sections: [
                  ...screen.sections,
                  {
                    id: 'n_own',
                    name: 'Its loans',
                    parts: [
                      {
                        kind: 'list' as const,
                        id: 'l_own',
                        name: 'Its loans',
                        entity: 'loan',
                        of: 'loan_item',
                        columns: [{ id: 'l_own_number', field: 'loan_number' }],
                        buttons: [],
                      },
                      {
                        kind: 'button' as const,
                        id: 'b_own',
                        name: 'Export',
                        effect: { do: 'export' as const, list: 'l_own' },
                      },
                      {
                        kind: 'button' as const,
                        id: 'b_many',
                        name: 'Many',
                        effect: { do: 'bulk' as const, list: 'l_own' },
                      },
                    ],
                  },
                ],
              },
        ),
      })),
      gates: {
        ...GATED.gates,
        ...Object.fromEntries(
          ['loan_export', 'loan_bulk', 'n_own'].map((id) => [id, { lines: [line('registrar', 'edit')] }]),
        ),
      },
    };
    const scope = scopeFor(limited, registrar);
    const page = await pageAt(scope, 'items/ewer', new URLSearchParams());
    if (page.is !== 'open') throw new Error('It opens');
    expect(page.page.lists['l_own']?.rows.map(({ id }) => id)).toEqual(['one']);
    const whole = await WholeList.find(scope, 'l_own', 'export', 'ewer');
    expect((await fileOf(whole)).split('\r\n').filter(Boolean)).toEqual(['Loan no.', 'L1']);
    // Without the record, or with one that is closed, there is nothing to export.
    const bare = await WholeList.find(scope, 'l_own', 'export', 'nowhere').then(fileOf, () => 'Loan no.\r\n');
    expect(bare.trim()).toBe('Loan no.');
    const many = await WholeList.find(scope, 'l_own', 'bulk', 'ewer');
    await expect(
      many.change(WRITER, [{ id: 'two', version: '1' }], { loan_number: 'L9' }),
    ).rejects.toBeInstanceOf(Refused);
  });

  it('counts in a chart what its list shows and its reader may see, and sends nothing of the rest', async () => {
    await put(GATED, 'item', 'bowl', {
      ...EWER,
      item_title: 'Bowl',
      item_value: '100',
      item_condition: 'fragile',
    });
    await put(GATED, 'item', 'jar', {
      ...EWER,
      item_title: 'Jar',
      item_value: '50.5',
      item_condition: 'fragile',
    });
    const chart = (id: string, by: string, of?: string) => ({
      kind: 'chart' as const,
      id,
      name: id,
      list: 'l_items',
      by,
      as: 'bars' as const,
      ...(of === undefined ? { shows: 'count' as const } : { shows: 'sum' as const, of }),
    });
    const drawn: Definition = {
      ...GATED,
      areas: GATED.areas.map((area) => ({
        ...area,
        screens: area.screens.map((screen) => ({
          ...screen,
          sections: screen.sections.map((section) =>
            section.parts.some(({ id }) => id === 'l_items')
              ? {
                  ...section,
                  parts: [
                    ...section.parts,
                    chart('k_count', 'item_condition'),
                    chart('k_value', 'item_condition', 'item_value'),
                  ],
                }
              : section,
          ),
        })),
      })),
    };
    expect(readDefinition(drawn)).toMatchObject({ ok: true });
    const address = 'items';
    const chartsFor = async (viewer: Viewer, query = '') => {
      const outcome = await pageAt(scopeFor(drawn, viewer), address, new URLSearchParams(query));
      return outcome.is === 'open' ? outcome.page.charts : outcome.is;
    };
    const of = (points: readonly ChartPoint[] | undefined) => points?.map(({ label, text }) => [label, text]);
    const all = await chartsFor(registrar);
    if (typeof all !== 'object') throw new Error('It opens');
    expect(of(all['k_count'])).toEqual([
      ['Fragile', '2'],
      ['none', '2'],
    ]);
    expect(of(all['k_value'])).toEqual([
      ['Fragile', '£150.50'],
      ['none', '£18,405.00'],
    ]);
    // As its list is searched.
    const found = await chartsFor(registrar, 'l_items.q=bowl');
    expect(typeof found === 'object' && of(found['k_count'])).toEqual([['Fragile', '1']]);
    // The insurance value is closed to a volunteer: neither the chart of it nor its sums are sent.
    const less = await chartsFor(volunteer);
    expect(typeof less === 'object' && Object.keys(less)).toEqual(['k_count']);
    expect(JSON.stringify(less)).not.toContain('150');
  });
});
