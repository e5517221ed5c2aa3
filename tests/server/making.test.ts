import { eq, sql } from 'drizzle-orm';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import {
  applicationFrom,
  emptyApplication,
  guessSheets,
  namesOf,
  titled,
  type SheetChoice,
} from '@/core/making';
import { LARKFIELD } from '@/demo/definition';
import { database } from '@/server/database/client';
import { applications, auditEvents, records, releases } from '@/server/database/schema';
import { change, draftOf } from '@/server/drafts/draft';
import { addressNow } from '@/server/former-address';
import { deleteApplication, changeAddress } from '@/server/making/application-lifecycle';
import { copyApplication, definitionFrom, firstRecords, makeApplication } from '@/server/making/make';
import { readSheet } from '@/server/making/read-sheet';
import { recordsFile } from '@/server/records/file';
import { homeOf, noteSeen } from '@/server/studio/home';
import type { Workplace } from '@/server/studio/builder';
import { application, dropApplications, emptyDatabase, put, underNewId } from './setting';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const read = (text: string | Uint8Array) =>
  readSheet('plots.csv', typeof text === 'string' ? bytes(text) : text);
const MANNERS = { name: 'Plots', language: 'en-GB', currency: 'GBP', timeZone: 'Europe/London' };

describe('a CSV file', () => {
  it.each([
    ['commas', 'a,b\n1,"x, y"\n', [['1', 'x, y']]],
    ['semicolons', 'a;b\n1;2,5\n', [['1', '2,5']]],
    ['tabs', 'a\tb\r\n1\t2\r\n', [['1', '2']]],
    ['a mark at its start', '\ufeffa,b\n1,2', [['1', '2']]],
    [
      'empty rows',
      'a,b\n\n1,2\n,\n3,4\n\n',
      [
        ['1', '2'],
        ['3', '4'],
      ],
    ],
    ['a comma at the end of its header', 'a,b,\n1,2\n', [['1', '2']]],
    ['lines in a cell', 'a,b\n"one\ntwo",2\n', [['one\ntwo', '2']]],
    ['semicolons within a quoted name', '"a;b;c",d\n1,2\n', [['1', '2']]],
  ])('is read with %s', async (_, text, rows) => {
    expect((await read(text)).rows.map(({ cells }) => cells)).toEqual(rows);
  });

  it('tells the line of each row, also after lines in a cell', async () => {
    const { rows } = await read('a,b\n"one\ntwo",2\n3,4\n');
    expect(rows.map(({ line }) => line)).toEqual([2, 4]);
  });

  it.each<[string, string | Uint8Array, RegExp]>([
    ['nothing in it', '', /is empty/],
    ['only a header', 'a,b\n', /no rows/],
    ['a quote that never closes', 'a,b\n1,2\n"3,4\n5,6\n', /line 3 is never closed\. Close or/],
    ['a quote within a cell', 'a,b\n1,2 "x"\n', /line 2 has a quote inside a cell\. Double the quote/],
    ['the same header twice', 'a,b,a\n1,2,3\n', /columns 1 and 3 are both called a .* Rename one/],
    ['a column without a name', 'a,,c\n1,2,3\n', /column 2 has no name in line 1/],
    [
      'too many columns',
      `${Array.from({ length: 3000 }, (_, n) => `c${n}`).join()}\n1\n`,
      /3,000 columns; at most 200/,
    ],
    ['more cells than columns', 'a,b\n1,2\n1,2,3\n', /line 3 has 3 cells but the header has 2/],
    [
      'Latin-1',
      Uint8Array.from([...bytes('a,b\n1,2\ncaf'), 0xe9, ...bytes(',3\n')]),
      /line 3 is not in UTF-8\. Save/,
    ],
    ['UTF-16', Uint8Array.from([0xff, 0xfe, 0x61, 0]), /UTF-16/],
    ['a workbook', bytes('PK\u0003\u0004…'), /workbook/],
    ['a null character', 'a,b\n1,\u00002\n', /line 2 contains a null character/],
  ])('is refused with %s, and says where and what to do', async (_, text, says) => {
    await expect(read(text)).rejects.toThrow(says);
    await expect(read(text)).rejects.toMatchObject({
      status: 422,
      detail: expect.stringMatching(/^plots\.csv: /),
    });
  });
});

let ada: string;
let bo: string;
beforeAll(emptyDatabase);
beforeEach(async () => {
  await dropApplications();
  ({ ada, bo } = await application(underNewId(LARKFIELD)));
});

const TODAY = '2026-11-26';
async function fromPlots(
  slug: string,
  tell?: (done: number, of: number) => void,
  signal?: AbortSignal,
): Promise<string> {
  const rows = Array.from({ length: 4500 }, (_, n) => `P${n},${n % 3 ? 'yes' : 'no'},${n}.5`);
  const sheets = [await read(`plot,water,size\n${rows.join('\n')}\n`)];
  const choices = guessSheets(sheets, TODAY).map((columns, s): SheetChoice => ({
    ...namesOf(sheets[s]?.name ?? ''),
    columns: columns.map(({ name, as, needed }) => ({ name: titled(name), as, needed })),
  }));
  const made = applicationFrom(MANNERS, sheets, choices);
  const { definition } = made;
  await makeApplication(
    ada,
    { slug, definition, records: firstRecords(made, sheets, choices, TODAY), from: 'csv' },
    tell,
    signal,
  );
  return definition.id;
}
const placeOf = (applicationId: string, slug: string): Workplace => ({
  builder: { id: ada, name: 'ada', token: '' },
  applicationId,
  slug,
  name: 'Plots',
  role: 'owner',
  pins: [],
  live: 'none',
  people: true,
  releases: true,
});
const count = (id: string) => database().$count(records, eq(records.applicationId, id));

describe('making an application', () => {
  it('refuses a currency that nobody knows, but not in a copy: what is stored stays as it is', async () => {
    const definition = emptyApplication({ ...MANNERS, currency: 'QQQ' });
    await expect(makeApplication(ada, { slug: 'odd', definition, from: 'file' })).rejects.toThrow(
      /QQQ is not a currency/,
    );
    await makeApplication(ada, { slug: 'odd', definition, from: 'copy' });
    expect((await draftOf(definition.id)).definition.currency).toBe('QQQ');
  });

  it('stores it with its records in their order, unreleased, and tells how far it is', async () => {
    const told: number[] = [];
    const id = await fromPlots('plots', (done, of) => {
      expect(of).toBe(4500);
      told.push(done);
    });
    expect(told).toEqual([2000, 4000, 4500]);
    const [row] = await database().select().from(applications).where(eq(applications.id, id));
    expect(row).toMatchObject({ slug: 'plots', name: 'Plots', release: null, headRevision: 0 });
    const { definition } = await draftOf(id);
    const [entity] = definition.entities;
    if (!entity) throw new Error('No entity');
    const lines: string[] = [];
    for await (const piece of recordsFile({ applicationId: id, definition, entity, kind: 'sample' }))
      lines.push(...piece.trim().split('\r\n'));
    expect(lines).toHaveLength(4501);
    expect(lines[0]).toBe('id,Plot,Water,Size');
    expect(lines.slice(1).map((line) => line.split(',')[1])).toEqual(
      Array.from({ length: 4500 }, (_, n) => `P${n}`),
    );
    expect(lines[1]).toMatch(/^[0-9A-Z]{12},P0,no,0\.5$/);
  });

  it('leaves nothing where it is stopped', async () => {
    const stop = new AbortController();
    await expect(fromPlots('plots', () => stop.abort(), stop.signal)).rejects.toThrow();
    expect(await database().$count(applications)).toBe(1);
    const { rows } = await database().execute(sql`select 1 from records limit 1`);
    expect(rows).toEqual([]);
  });

  it.each([
    ['a taken address', 'taken', /already uses the address taken/],
    ['one that the studio keeps', 'new', /reserved/],
    ['capital letters', 'Plots', /lower-case letters/],
    ['a path', 'a/b', /lower-case letters/],
    ['nothing', '', /lower-case letters/],
    ['too many letters', 'a'.repeat(61), /at most 60/],
  ])('refuses %s as its address', async (_, slug, says) => {
    await fromPlots('taken');
    await expect(fromPlots(slug)).rejects.toThrow(says);
  });

  it('gives one address to one of two that ask at once', async () => {
    const both = await Promise.allSettled([fromPlots('plots'), fromPlots('plots')]);
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
  });

  it('copies the draft and the sample records, and nobody', async () => {
    const id = await fromPlots('plots');
    const { definition } = await draftOf(id);
    await put(definition, definition.entities[0]?.id ?? '', 'LIVE', {}, 'live');
    await copyApplication(ada, { applicationId: id, definition }, 'Plots, copy', 'copy');
    const [copy] = await database().select().from(applications).where(eq(applications.slug, 'copy'));
    const copied = (await draftOf(copy?.id ?? '')).definition;
    expect({ ...copied, id: 0, name: 0, gates: 0 }).toEqual({ ...definition, id: 0, name: 0, gates: 0 });
    expect(copied.gates[copied.id]).toEqual(definition.gates[id]);
    expect(await count(copied.id)).toBe(4500);
    // What is changed in one is not changed in the other.
    await change(copied.id, ada, 0, {
      edit: { do: 'changeSettings', from: { name: 'Plots, copy' }, to: { name: 'Other' } },
    });
    expect((await draftOf(id)).definition.name).toBe('Plots');
  });

  it('takes a definition file, and refuses one that is not sound with its place', () => {
    const made = definitionFrom(LARKFIELD, 'Again');
    expect(made).toMatchObject({ name: 'Again', roles: LARKFIELD.roles });
    expect(made.id).not.toBe(LARKFIELD.id);
    // What it says nothing of is not open by that.
    const { s_stores: _, ...gates } = LARKFIELD.gates;
    expect(definitionFrom({ ...LARKFIELD, gates }, 'X').gates['s_stores']).toEqual({ lines: [] });
    expect(() => definitionFrom({ ...LARKFIELD, roles: 'all' }, 'X')).toThrow(/roles: must be a list/);
    expect(() => definitionFrom('text', 'X')).toThrow(/the document/);
  });
});

describe('keeping applications', () => {
  it('leads from a former address to the present one, and gives it to nobody else', async () => {
    const id = await fromPlots('plots');
    await changeAddress(placeOf(id, 'plots'), 'gardens');
    await changeAddress(placeOf(id, 'gardens'), 'fields');
    expect(await Promise.all(['plots', 'gardens', 'fields'].map(addressNow))).toEqual([
      'fields',
      'fields',
      undefined,
    ]);
    await expect(fromPlots('plots')).rejects.toThrow(/Another application/);
    // Its own may be taken again.
    await changeAddress(placeOf(id, 'fields'), 'plots');
    expect(await Promise.all(['plots', 'fields'].map(addressNow))).toEqual([undefined, 'plots']);
    await expect(changeAddress(placeOf(id, 'fields'), 'other')).rejects.toThrow(/in the meantime/);
  });

  it('deletes all of it once its name is written, and keeps what happened to it', async () => {
    const id = await fromPlots('plots');
    await expect(deleteApplication(placeOf(id, 'plots'), 'plots')).rejects.toMatchObject({
      more: { errors: [{ field: 'name' }] },
    });
    expect(await count(id)).toBe(4500);
    await deleteApplication(placeOf(id, 'plots'), ' Plots ');
    expect(await count(id)).toBe(0);
    const told = await database().select().from(auditEvents).where(eq(auditEvents.applicationId, id));
    expect(told.map(({ what }) => what)).toEqual(['application-made', 'application-deleted']);
    await expect(deleteApplication(placeOf(id, 'plots'), 'Plots')).rejects.toMatchObject({ status: 404 });
    // The address is free again.
    await fromPlots('plots');
  });

  it('tells at home how each stands, and who else is there', async () => {
    const id = await fromPlots('plots');
    await change(id, ada, 0, {
      edit: { do: 'changeSettings', from: { name: 'Plots' }, to: { name: 'Beds' } },
    });
    const [other] = await database().select().from(releases);
    expect(await homeOf(ada)).toMatchObject([
      {
        name: 'Beds',
        slug: 'plots',
        role: 'owner',
        release: null,
        revision: 1,
        since: 1,
        people: 0,
        lastChange: { by: 'ada' },
        here: [],
      },
      { name: LARKFIELD.name, release: 1, since: 0, lastChange: null, here: [] },
    ]);
    await noteSeen(other?.applicationId ?? '', bo);
    expect((await homeOf(ada))[1]?.here).toEqual(['bo']);
    expect(await homeOf(bo)).toMatchObject([{ name: LARKFIELD.name, here: [] }]);
  });
});
