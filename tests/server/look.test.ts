import { eq } from 'drizzle-orm';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { readDefinition, viewerOfRole } from '@/core';
import { LARKFIELD } from '@/demo/definition';
import { database } from '@/server/database/client';
import { auditEvents, memberships, paneRecords, records } from '@/server/database/schema';
import { change } from '@/server/drafts/draft';
import { lookOf } from '@/server/look/look';
import { lookPage } from '@/server/look/look-page';
import { keepChanges, throwAway } from '@/server/look/panes';
import { turnsAt, whyAt } from '@/server/look/why';
import { pageAt } from '@/server/live/screen-page';
import { createRecord } from '@/server/records/write';
import { listRecords, openRecord } from '@/server/records/read';
import type { Workplace } from '@/server/studio/builder';
import { openedScreen } from '@/server/live/session-values';
import { again, installed, person, visitOf } from './visits';
import { application, dropApplications, emptyDatabase, put, scopeFor, underNewId } from './setting';
import { change as write, remove } from './writing';

const item = LARKFIELD.entities[0] as (typeof LARKFIELD.entities)[number];
const EWER = {
  item_accession: 'LM.1.1',
  item_title: 'Blue ewer',
  item_value: '18400',
  item_store: 'Cellar',
  item_branch: 'main-hall',
};
const PANE = '0b0f5a52-6d9e-4f0e-9c3b-6f1a2d3c4e5f';
const OTHER = '1b0f5a52-6d9e-4f0e-9c3b-6f1a2d3c4e5f';

let tamsin: Workplace;
let jonah: Workplace;

beforeAll(emptyDatabase);
beforeEach(async () => {
  await dropApplications();
  const { ada, bo } = await application(LARKFIELD);
  const workplace = (id: string, live: Workplace['live']): Workplace => ({
    builder: { id, name: 'Someone', token: '' },
    applicationId: LARKFIELD.id,
    slug: LARKFIELD.id,
    people: true,
    releases: true,
    name: LARKFIELD.name,
    role: 'owner',
    pins: [],
    live,
  });
  tamsin = workplace(ada, 'none');
  jonah = workplace(bo, 'read');
  for (const kind of ['sample', 'live'] as const) await put(LARKFIELD, 'item', 'ewer', EWER, kind);
  await put(LARKFIELD, 'loan', 'one', { loan_number: 'L1', loan_item: 'ewer', loan_status: 'out' }, 'sample');
});

const look = (params: Record<string, string>, who = tamsin) => lookOf(who, new URLSearchParams(params));
const registrar = { viewer: 'role:registrar', pane: PANE };
const stored = async (kind: 'sample' | 'live') => {
  const rows = await database().select().from(records).where(eq(records.id, 'ewer'));
  return rows.find((one) => one.kind === kind);
};

describe('a pane', () => {
  it('has its own changes over the sample records, in every query, and nobody else has them', async () => {
    const { scope, writer } = await look(registrar);
    await write(scope, writer, item, 'ewer', { item_title: 'Green ewer' });
    const made = await createRecord(scope, writer, item, {
      item_accession: 'LM.2',
      item_title: 'Another',
      item_branch: 'main-hall',
    });
    const again = (await look(registrar)).scope;
    expect(await openRecord(again, item, 'ewer')).toMatchObject({
      version: 2,
      values: { item_title: 'Green ewer' },
    });
    const words = async (q: string, of = again) =>
      (await listRecords(of, item, true, item.fields, { q, page: 1, size: 10 })).records.map(({ id }) => id);
    expect([await words('green'), await words('blue'), await words('another')]).toEqual([
      ['ewer'],
      [],
      [made.id],
    ]);
    // A loan that points to it is shown with the pane's label, and can be sorted by it.
    const loans = await pageAt(again, 'loans', new URLSearchParams({ 'l_loans.sort': 'loan_item' }));
    expect(JSON.stringify(loans)).toContain('Green ewer');
    const elsewhere = (await look({ ...registrar, pane: OTHER })).scope;
    expect(await words('green', elsewhere)).toEqual([]);
    expect(await stored('sample')).toMatchObject({ version: 1, data: EWER });
    // Nobody but its builder has the pane.
    await expect(look(registrar, { ...jonah })).rejects.toMatchObject({ status: 404 });
  });

  it('decides as a release does, and refuses what that viewer may not do', async () => {
    const { scope, writer } = await look({ viewer: 'role:volunteer', pane: PANE });
    const update = write(scope, writer, item, 'ewer', { item_title: 'x' });
    await expect(update).rejects.toMatchObject({ status: 403 });
    const registrars = await look(registrar);
    await expect(remove(registrars.scope, registrars.writer, item, 'ewer')).rejects.toMatchObject({
      status: 403,
    });
    const head = await look({ viewer: 'role:head', pane: PANE });
    // It is in use in the pane too.
    await expect(remove(head.scope, head.writer, item, 'ewer')).rejects.toMatchObject({
      status: 409,
    });
  });

  it('is thrown away, or kept whole; nothing is kept over what somebody else changed', async () => {
    const { scope, writer } = await look(registrar);
    await write(scope, writer, item, 'ewer', { item_title: 'Green ewer' });
    await throwAway(tamsin, PANE);
    expect(await database().select().from(paneRecords)).toEqual([]);
    const next = await look(registrar);
    await write(next.scope, next.writer, item, 'ewer', { item_title: 'Red ewer' });
    expect(await keepChanges(tamsin, PANE)).toBe(1);
    expect(await stored('sample')).toMatchObject({ version: 2, data: { item_title: 'Red ewer' } });
    expect(await stored('live')).toMatchObject({ version: 1 });
    await write(next.scope, next.writer, item, 'ewer', { item_title: 'Old' });
    const plain = scopeFor(LARKFIELD, viewerOfRole('registrar'), 'sample');
    await write(plain, { keep: true }, item, 'ewer', { item_title: 'New' });
    await expect(keepChanges(tamsin, PANE)).rejects.toMatchObject({ status: 409 });
    expect(await stored('sample')).toMatchObject({ data: { item_title: 'New' } });
  });

  it('is on live records only by right, to read, and in the audit trail', async () => {
    await expect(look({ viewer: 'role:registrar', records: 'live' })).rejects.toMatchObject({
      code: 'live-records',
    });
    const asked = { viewer: 'role:registrar', records: 'live', address: 'items/ewer', pane: OTHER };
    const live = await look(asked, jonah);
    await lookPage(live, 'items/ewer', new URLSearchParams());
    const events = await database().select().from(auditEvents).where(eq(auditEvents.what, 'looked-live'));
    expect(events).toMatchObject([{ builderId: jonah.builder.id, detail: { address: 'items/ewer' } }]);
    const update = write(live.scope, live.writer, item, 'ewer', { item_title: 'x' });
    await expect(update).rejects.toMatchObject({ status: 403, code: 'reading-only' });
    await database().update(memberships).set({ live: 'change' });
  });
});

describe('what a pane sends', () => {
  it('has no value that the viewer may not see, but tells levels and why', async () => {
    const curator = await look({ viewer: 'role:curator' });
    const page = await lookPage(curator, 'items/ewer', new URLSearchParams());
    expect(JSON.stringify(page)).not.toContain('Cellar');
    expect(page.levels['p_item_store']).toEqual({ least: 0, most: 2 });
    expect(page.levels['p_item_title']).toEqual({ least: 2, most: 2 });
    const why = await whyAt(curator, 'p_item_store', 'items/ewer', undefined);
    expect(why).toMatchObject({
      answer: { least: 0, most: 2 },
      decided: { by: 'line', gate: 'p_item_store' },
    });
    const [turn] = await turnsAt(curator, 'p_item_store', 'items/ewer', undefined, 1);
    expect(turn).toMatchObject({ gates: ['p_item_store'], effect: { gaining: [], losing: [] } });
    await change(LARKFIELD.id, tamsin.builder.id, 0, { edit: turn?.edit ?? { do: 'together', edits: [] } });
    const after = await lookPage(await look({ viewer: 'role:curator' }), 'items/ewer', new URLSearchParams());
    expect(JSON.stringify(after.outcome)).toContain('Cellar');
    // The draft as it was is still to be had, as is the release.
    for (const on of ['draft:0', 'release:1']) {
      const before = await lookPage(
        await look({ viewer: 'role:curator', on }),
        'items/ewer',
        new URLSearchParams(),
      );
      expect(JSON.stringify(before.outcome)).not.toContain('Cellar');
    }
  });

  it.each([
    ['signed-out', 'items', { is: 'sign-in' }],
    ['role:volunteer', 'reports/nothing', { is: 'not-there' }],
    ['role:lender', 'items', { is: 'refused' }],
    ['signed-in', '', { is: 'open' }],
    ['role:curator', 'items', { is: 'open' }],
    ['made:{"assignments":[{"role":"registrar","unit":"mill-annexe"}]}', 'items/ewer', { is: 'not-there' }],
    ['made:{"assignments":[{"role":"registrar","unit":"main-hall"}]}', 'items/ewer', { is: 'open' }],
    ['group:g_trained', 'items', { is: 'refused' }],
  ])('%s at /%s', async (viewer, address, outcome) => {
    const page = await lookPage(await look({ viewer }), address, new URLSearchParams());
    expect(page.outcome).toMatchObject(outcome);
  });

  it.each(['', 'nobody', 'person:x', 'kept:x', 'made:{', 'made:{"assignments":1}'])(
    'refuses the viewer %s',
    async (viewer) => {
      await expect(look({ viewer })).rejects.toMatchObject({ status: expect.any(Number) as number });
    },
  );
});

describe('what one supposes while looking', () => {
  const line = (LARKFIELD.gates['s_piece']?.lines ?? [])[0];

  it('takes a line’s condition as true or false, on sample records only, and for nobody else', async () => {
    const opens = async (taken?: Record<string, boolean>, more: Record<string, string> = {}) => {
      const asked = { viewer: 'role:lender', ...more, ...(taken && { taken: JSON.stringify(taken) }) };
      const page = await lookPage(await look(asked, jonah), 'pieces/ewer', new URLSearchParams());
      return page.outcome.is;
    };
    const id = line?.id ?? '';
    expect(await opens()).toBe('refused');
    // The screen's own gate is one thing; its record's rows, which lists hold open as well, another.
    const taken = { ...Object.fromEntries(conditionsOnPieces().map((one) => [one, true])), [id]: true };
    expect(await opens(taken)).toBe('open');
    expect(await opens({ ...taken, [id]: false })).not.toBe('open');
    expect(await opens()).toBe('refused');
    await expect(opens(taken, { records: 'live' })).rejects.toMatchObject({ code: 'taken' });
  });

  /** The lines with a condition anywhere: a lender's pieces follow from several of them. */
  const conditionsOnPieces = (): string[] =>
    Object.values(LARKFIELD.gates).flatMap(({ lines }) =>
      lines.filter((one) => one.when).map((one) => one.id),
    );

  it('sets what opening a screen sets, in the pane and in a release, for its time', async () => {
    const opening = underNewId({
      ...LARKFIELD,
      areas: LARKFIELD.areas.map((area) => ({
        ...area,
        screens: area.screens.map((screen) =>
          screen.id === 's_items' ? { ...screen, sets: [{ value: 'sv_stock', to: true }] } : screen,
        ),
      })),
    });
    expect(readDefinition(JSON.parse(JSON.stringify(opening))).ok).toBe(true);
    const unfit = JSON.stringify(opening).replace(
      '"sets":[{"value":"sv_stock","to":true}]',
      '"sets":[{"value":"sv_stock","to":"x"}]',
    );
    expect(readDefinition(JSON.parse(unfit)).ok).toBe(false);
    const { ada } = await application(opening);
    const asked = new URLSearchParams({ viewer: 'role:registrar' });
    const looking = await lookOf(
      { ...tamsin, applicationId: opening.id, builder: { ...tamsin.builder, id: ada } },
      asked,
    );
    const page = await lookPage(looking, 'items', new URLSearchParams());
    expect(page.sets).toEqual({ sv_stock: true });
    expect((await lookPage(looking, 'loans', new URLSearchParams())).sets).toBeUndefined();

    await installed();
    const id = await person(opening.id, 'stock@x.example', [{ role: 'registrar' }]);
    const visit = await visitOf(opening.id, id);
    expect(visit.circumstances.session).toEqual({});
    expect(await openedScreen(visit, 's_loans')).toBe(false);
    expect(await openedScreen(visit, 's_items')).toBe(true);
    expect((await again(visit)).circumstances.session).toEqual({ sv_stock: true });
    expect(await openedScreen(await visitOf(opening.id), 's_items')).toBe(false);
  });
});
