import { and, asc, eq } from 'drizzle-orm';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { madeUp } from '@/core/making';
import { readValue, type Definition, type Entity } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { auditData, type DataAt } from '@/server/data/at';
import { importSheet } from '@/server/data/import';
import { addMadeUp } from '@/server/data/made-up';
import { dataRows, distinctIn, filledIn } from '@/server/data/rows';
import { takeOverSamples } from '@/server/data/take-over';
import { addRow, changeRows, deleteRows } from '@/server/data/write';
import { database } from '@/server/database/client';
import { auditEvents, records } from '@/server/database/schema';
import { readSheet } from '@/server/making/read-sheet';
import { recordsFile } from '@/server/records/file';
import { application, dropApplications, emptyDatabase, put, underNewId } from './setting';

let definition: Definition;
let ada: string;
const entityOf = (id: string): Entity => {
  const found = definition.entities.find((one) => one.id === id);
  if (!found) throw new Error(`The demo has ${id}`);
  return found;
};
const at = (entity: string, kind: DataAt['kind'] = 'sample'): DataAt => ({
  applicationId: definition.id,
  kind,
  definition,
  entity: entityOf(entity),
  workplace: {
    builder: { id: ada, name: 'Ada', token: '' },
    applicationId: definition.id,
    slug: definition.id,
    name: definition.name,
    role: 'owner',
    pins: [],
    live: 'change',
    people: true,
    releases: true,
  },
  ...(kind === 'live' && { release: 1 }),
});
const sheet = (text: string) => readSheet('items.csv', new TextEncoder().encode(text));
const stored = async (kind: DataAt['kind'] = 'sample') =>
  database()
    .select({ id: records.id, version: records.version, data: records.data })
    .from(records)
    .where(and(eq(records.applicationId, definition.id), eq(records.kind, kind)))
    .orderBy(asc(records.createdAt), asc(records.id));

beforeAll(emptyDatabase);
beforeEach(async () => {
  await dropApplications();
  definition = underNewId(LARKFIELD);
  ({ ada } = await application(definition));
  await put(
    definition,
    'item',
    'ewer',
    {
      item_accession: 'A1',
      item_title: 'Blue ewer',
      item_value: '90',
      item_branch: 'main-hall',
      item_condition: 'fragile',
    },
    'sample',
  );
  await put(
    definition,
    'item',
    'bowl',
    { item_accession: 'A2', item_title: 'Bowl', item_value: '1000', item_branch: 'main-hall' },
    'sample',
  );
  await put(
    definition,
    'loan',
    'one',
    { loan_number: 'L1', loan_item: 'ewer', loan_borrower: 'Tarn' },
    'sample',
  );
});

describe('records as a table', () => {
  it('are searched in all that they show, and sorted by what they hold', async () => {
    const ids = async (entity: string, query: string) =>
      (await dataRows(at(entity), new URLSearchParams(query))).rows.map(({ id }) => id);
    expect(await ids('item', 'q=EWER')).toEqual(['ewer']);
    expect(await ids('item', 'q=fragile')).toEqual(['ewer']);
    expect(await ids('item', 'q=main+hall')).toEqual(['ewer', 'bowl']);
    expect(await ids('loan', 'q=blue')).toEqual(['one']);
    // As numbers, not as texts.
    expect(await ids('item', 'sort=-item_value')).toEqual(['bowl', 'ewer']);
    const meeting = (entity: string, filter: string) => ids(entity, String(new URLSearchParams({ filter })));
    expect(await meeting('item', 'record.insurance_value >= 1000')).toEqual(['bowl']);
    expect(await meeting('loan', 'record.item.title contains "ewer"')).toEqual(['one']);
    expect(await meeting('item', 'user.email = "a@b.example"')).toEqual([]);
    await expect(meeting('item', 'record.nothing = 1')).rejects.toMatchObject({ code: 'filter' });
    await expect(ids('item', 'sort=nothing')).rejects.toMatchObject({ status: 422 });
    const { rows } = await dataRows(at('loan'), new URLSearchParams());
    expect(rows[0]?.labels).toEqual({ loan_item: 'Blue ewer' });
    expect(await filledIn(at('item'))).toMatchObject({
      all: 2,
      filled: { item_title: 2, item_condition: 1 },
    });
    expect(await distinctIn(at('item'), 'item_title')).toEqual(['Blue ewer', 'Bowl']);
  });

  it('are written as the application would write them: all that is wrong beside its field', async () => {
    await expect(addRow(at('item'), { item_title: 'Jar', item_value: 'much' })).rejects.toMatchObject({
      more: { errors: [{ field: 'item_accession' }, { field: 'item_value' }, { field: 'item_branch' }] },
    });
    const { id } = await addRow(at('item'), {
      item_title: 'Jar',
      item_accession: 'A3',
      item_branch: 'main-hall',
    });
    await changeRows(
      at('item'),
      [
        { id, version: 1 },
        { id: 'ewer', version: 1 },
      ],
      { item_value: '007.50' },
    );
    const now = await stored();
    expect(now.filter(({ data }) => data['item_value'] === '7.5').map((one) => one.version)).toEqual([2, 2]);
    // Somebody who saw the record before does not write over it, and of many none is written.
    await expect(
      changeRows(
        at('item'),
        [
          { id: 'bowl', version: 1 },
          { id, version: 1 },
        ],
        { item_value: '1' },
      ),
    ).rejects.toMatchObject({ status: 409 });
    expect((await stored()).find((one) => one.id === 'bowl')?.version).toBe(1);
    await expect(
      addRow(at('loan'), { loan_number: 'L2', loan_item: 'nowhere', loan_borrower: 'x' }),
    ).rejects.toMatchObject({
      more: { errors: [{ field: 'loan_item' }] },
    });
  });

  it('are deleted all or none, and not where another points to them', async () => {
    const both = [
      { id: 'ewer', version: 1 },
      { id: 'bowl', version: 1 },
    ];
    await expect(deleteRows(at('item'), both)).rejects.toMatchObject({ code: 'in-use' });
    expect(await stored()).toHaveLength(3);
    await deleteRows(at('item'), both.slice(1));
    expect(await stored()).toHaveLength(2);
  });

  it('are in the audit trail where they are live, and refused by a release that has been deleted', async () => {
    await addRow(at('item', 'live'), { item_title: 'Jar', item_accession: 'A3', item_branch: 'main-hall' });
    await auditData(at('item'), 'data-added', {});
    expect(await database().select().from(auditEvents)).toMatchObject([
      { what: 'data-added', builderId: ada },
    ]);
    await expect(addRow({ ...at('item', 'live'), release: 7 }, { item_title: 'Jar' })).rejects.toMatchObject({
      code: 'released-meanwhile',
    });
  });
});

describe('a CSV file', () => {
  const HEAD = 'Accession no.,Title,Insurance value,Branch,Colour';
  it('is told dry, with the line of what does not fit; then all of it is taken in, or nothing', async () => {
    const file = await sheet(
      `${HEAD}\nX1,Lamp,"1,200",Main Hall,red\nX2,Jar,much,Nowhere,\n,Pot,5,main hall,\n`,
    );
    const told = await importSheet(at('item'), file, { dry: true, leaveOut: false });
    expect(told).toMatchObject({
      added: 3,
      changed: 0,
      columns: [{}, {}, {}, {}, { name: 'Colour', field: null }],
      wrong: [
        { line: 3, column: 'Insurance value' },
        { line: 3, column: 'Branch' },
        { line: 3, column: 'Branch', says: 'Branch is required.' },
        { line: 4, column: 'Accession no.', says: 'Accession no. is required.' },
      ],
    });
    await expect(importSheet(at('item'), file, { dry: false, leaveOut: false })).rejects.toMatchObject({
      status: 422,
    });
    expect(await stored()).toHaveLength(3);
    await importSheet(at('item'), file, { dry: false, leaveOut: true });
    const lamp = (await stored()).find(({ data }) => data['item_title'] === 'Lamp');
    expect(lamp?.data).toMatchObject({ item_value: '1200', item_branch: 'main-hall' });
    const none = await sheet('Colour\nred\n');
    await expect(importSheet(at('item'), none, { dry: true, leaveOut: false })).rejects.toMatchObject({
      code: 'columns',
    });
  });

  it('that was taken out changes what it names, and comes in again elsewhere as it was', async () => {
    const out = async (entity: string): Promise<string> => {
      let text = '';
      for await (const piece of recordsFile({
        applicationId: definition.id,
        definition,
        entity: entityOf(entity),
        kind: 'sample',
      }))
        text += piece;
      return text;
    };
    const [items, loans] = [await out('item'), await out('loan')];
    const again = await importSheet(at('item'), await sheet(items), { dry: false, leaveOut: false });
    expect(again).toMatchObject({ added: 0, changed: 0, wrongCount: 0 });
    const renamed = await sheet('id,Title\newer,Renamed\n');
    expect(await importSheet(at('item'), renamed, { dry: true, leaveOut: false })).toMatchObject({
      changed: 1,
    });
    await importSheet(at('item', 'live'), await sheet(items), { dry: false, leaveOut: false });
    await importSheet(at('loan', 'live'), await sheet(loans), { dry: false, leaveOut: false });
    const value = ({ data }: { data: Record<string, unknown> }) =>
      Object.fromEntries(Object.entries(data).filter(([, one]) => one !== null));
    expect((await stored('live')).map(value)).toEqual((await stored()).map(value));
    const twice = await sheet('id,Title\newer,One\newer,Two\n');
    expect(await importSheet(at('item'), twice, { dry: true, leaveOut: false })).toMatchObject({
      wrong: [{ line: 3, column: 'id' }, {}, {}],
    });
  });

  it('leaves nothing where it is stopped', async () => {
    const rows = Array.from({ length: 5000 }, (_, n) => `Y${n},Pot,5,Main Hall`).join('\n');
    const file = await sheet(`Accession no.,Title,Insurance value,Branch\n${rows}\n`);
    const stop = new AbortController();
    const going = importSheet(
      at('item'),
      file,
      { dry: false, leaveOut: false },
      () => stop.abort(),
      stop.signal,
    );
    await expect(going).rejects.toThrow();
    expect(await stored()).toHaveLength(3);
  });
});

describe('sample records', () => {
  it('are taken over as live ones, where nothing is live yet', async () => {
    expect(await takeOverSamples(at('item', 'live'))).toBe(3);
    expect((await stored('live')).map(({ data }) => data)).toEqual((await stored()).map(({ data }) => data));
    await expect(takeOverSamples(at('item', 'live'))).rejects.toMatchObject({ code: 'not-empty' });
  });
});

describe('made-up records', () => {
  it('fit their fields, are the same for the same seed, and point to what is there', async () => {
    const make = (entity: string, seed: number) => [
      ...madeUp(definition, entityOf(entity), {
        seed,
        count: 60,
        pointedTo: { item: ['ewer'] },
        today: '2026-11-26',
      }),
    ];
    expect(make('item', 7)).toEqual(make('item', 7));
    expect(make('item', 7)).not.toEqual(make('item', 8));
    for (const entity of definition.entities)
      for (const values of make(entity.id, 3))
        for (const field of entity.fields)
          if (field.type.kind !== 'record' || field.type.entity === 'item')
            expect(readValue(field, values[field.id] ?? null)).toEqual({ value: values[field.id] ?? null });
    await addMadeUp(at('loan'), 1, 20);
    const loans = (await stored()).filter(({ data }) => 'loan_number' in data);
    expect(loans).toHaveLength(21);
    for (const { data } of loans) expect(['ewer', 'bowl']).toContain(data['loan_item']);
    await expect(addMadeUp(at('loan', 'live'), 1, 20)).rejects.toMatchObject({ code: 'sample-only' });
  });
});
