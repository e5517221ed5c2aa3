import { readdirSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { describe, expect, it } from 'vitest';
import { accessOf, compile, viewerOfRole } from '@/core';
import type { KnownRecord } from '@/core/access';
import { type Definition, treeOf } from '@/core/model';
import {
  CoverageNotes,
  FieldNumbers,
  marked,
  MarkFinder,
  NOT_THERE,
  Predictor,
  sweepMoments,
  sweepRecords,
} from '@/core/sweep';
import { LARKFIELD } from '@/demo/definition';
import { ROUTES } from '@/server/proving/sweep/routes';
import { ownId, planCopy } from '@/server/proving/sweep/copy';
import { Comparing } from '@/server/proving/sweep/compare';
import { type Answer, Asker } from '@/server/proving/sweep/asker';
import type { Case } from '@/server/proving/sweep/cases';

const LIVE = 'src/app/live/[app]';
const files = readdirSync(LIVE, { recursive: true, encoding: 'utf8' }).filter((file) =>
  /(^|\/)(route|page)\.tsx?$/.test(file),
);

const copy = planCopy({ ...LARKFIELD, gates: LARKFIELD.gates }, []);
const known = knownIn(copy.definition, copy.records);

function knownIn(definition: Definition, records: typeof copy.records): KnownRecord[] {
  const tree = treeOf(definition);
  return records.map(({ entity, ...one }) => ({ ...one, entity: tree.need(entity, 'rows').node }));
}

/** What an element's id is in the copy. */
const mark = (own: string): string => [...copy.ids].find(([, id]) => id === own)?.[0] ?? own;

const asVolunteer = (): { predictor: Predictor; comparing: Comparing } => {
  const comparing = new Comparing(copy);
  const access = accessOf(compile(copy.definition), viewerOfRole('volunteer'), { moment: 0 });
  const people = new Set<number>();
  const predictor = new Predictor({
    access,
    records: known,
    finder: comparing.marks,
    signedOut: false,
    standsIn: false,
    people,
  });
  return { comparing, predictor };
};

describe('a sweep', () => {
  it('knows every route of released applications, and no other', () => {
    expect(files.length).toBeGreaterThan(20);
    expect(Object.keys(ROUTES).sort()).toEqual(files.sort());
    // What is not swept only takes something in, or is the same for everybody: it reads no records.
    for (const [file, how] of Object.entries(ROUTES))
      if (typeof how === 'object')
        expect(readFileSync(`${LIVE}/${file}`, 'utf8')).not.toMatch(/liveRecords|pageAt|WholeList/);
  });

  it('has records on both sides of every condition that asks of them, each with marks of its own', () => {
    const records = sweepRecords(LARKFIELD, [{ attributes: { email: 'ada@x.example' } }], 0);
    const loans = records
      .filter(({ entity }) => entity === 'loan')
      .map(({ values }) => values['loan_status']);
    expect(new Set(loans).size).toBeGreaterThan(1);
    const items = records.filter(({ entity }) => entity === 'item').map(({ values }) => values);
    expect(items.map((one) => one['item_away'])).toEqual(expect.arrayContaining([true, false, null]));
    expect(items.some((one) => one['item_lender_email'] === 'ada@x.example')).toBe(true);
    const marks = records.flatMap(({ values }) =>
      Object.values(values).filter((value) => typeof value === 'string' && value.startsWith('Zq')),
    );
    expect(new Set(marks).size).toBe(marks.length);
  });

  it('finds marks however values are written', () => {
    const fields = new FieldNumbers(copy.definition);
    const finder = new MarkFinder(copy.definition, copy.records, fields);
    const [first] = copy.records;
    if (!first) throw new Error('There are no records');
    const value = Number(first.values[mark('item_value')]).toLocaleString('en-GB');
    const due = copy.records.find(({ entity }) => entity === mark('loan'))?.values[mark('loan_due')];
    const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: 'UTC' });
    const texts = [
      `{"a":"${String(first.values[mark('item_title')])}"}`,
      `£${value}.00`,
      String(due),
      day.format(new Date(String(due))),
      first.id,
      marked(LARKFIELD, (id) => treeOf(LARKFIELD).get(id)?.number ?? 0).areas[0]?.name ?? '',
    ];
    const forms = (text: string): string[] => [
      text,
      Buffer.from(text).toString('base64'),
      Buffer.from(`{"a":${JSON.stringify(text)}}`).toString('base64url'),
      Buffer.from(text).toString('hex'),
      [...text].map((one) => `\\u${one.charCodeAt(0).toString(16).padStart(4, '0')}`).join(''),
      [...text].map((one) => `%${one.charCodeAt(0).toString(16)}`).join(''),
      [...text].map((one) => `&#${one.charCodeAt(0)};`).join(''),
      encodeURIComponent(JSON.stringify({ text })),
    ];
    for (const text of texts)
      for (const form of /^[ -~]*$/.test(text) ? forms(text) : [text])
        expect([form, finder.findInAnyForm(form).size]).toEqual([form, 1]);
    expect(finder.findInAnyForm('{"id":"7a319500-0123","n":73195,"year":1583}').size).toBe(0);
  });

  it('says which lines counted for nobody who was asked as, and which conditions were seen one way only', () => {
    const notes = new CoverageNotes(copy.definition, known);
    const at = Date.UTC(2026, 2, 14, 12);
    const add = (role: string, session = {}): void =>
      notes.add(accessOf(compile(copy.definition), viewerOfRole(role), { moment: at, session }));
    add('lender');
    const first = notes.told();
    const gates = (all: readonly { readonly gate: string }[]) =>
      new Set(all.map(({ gate }) => ownId(copy, gate)));
    expect([first.viewers, first.records]).toEqual([1, known.length]);
    expect(gates(first.neverCounted)).toContain('b_approve_loan');
    expect(first.oneSided).toContainEqual(
      expect.objectContaining({ gate: mark('p_item_store'), seen: 'false' }),
    );
    for (const { id } of copy.definition.roles) add(id);
    add('volunteer', { sv_stock: true });
    const all = notes.told();
    expect(gates(all.neverCounted)).not.toContain('b_approve_loan');
    expect(gates(all.oneSided)).not.toContain('p_item_store');
    // It is Saturday, and the courier is booked in opening hours: that is seen at another time.
    expect(all.oneSided).toContainEqual(expect.objectContaining({ gate: mark('b_courier'), seen: 'false' }));
    for (const moment of sweepMoments(copy.definition, at))
      notes.add(accessOf(compile(copy.definition), viewerOfRole('volunteer'), { moment }));
    expect(gates(notes.told().oneSided)).not.toContain('b_courier');
  });

  it('tells of what is sent too much, what lacks, counts, and what should have been refused', () => {
    const { predictor, comparing } = asVolunteer();
    const items = copy.definition.entities.find(({ id }) => id === mark('item'));
    if (!items) throw new Error('There are no items');
    const predicted = predictor.all(items);
    const reads: Case = {
      asking: { path: `/live/${copy.slug}/api/records/${mark('item')}` },
      reads: 'api',
      predicted,
    };
    const answer = (body: string, more: Partial<Answer> = {}): Answer => ({
      status: 200,
      location: '',
      headers: 'Cache-Control\nno-store',
      body,
      ...more,
    });
    const whats = (one: Case, given: Answer): string[] => [
      ...new Set(comparing.surprises(one, given, predictor).map(({ what }) => what)),
    ];
    const right = known
      .filter(({ entity }) => entity.id === mark('item'))
      .map(({ id, values }) => [id, values[mark('item_title')], values[mark('item_accession')]]);
    const whole = (total: number, more = ''): string =>
      JSON.stringify({ total, right, values: [...predicted.marks.values()].length, more });
    const closed = ['item_lender', 'item_lender_email', 'item_away'].map(mark);
    const all = JSON.stringify(
      known
        .filter(({ entity }) => entity.id === mark('item'))
        .map(({ id, values }) => [id, Object.entries(values).filter(([field]) => !closed.includes(field))]),
    );
    // The addresses of their screens.
    const addresses = [...predicted.marks.values()].flatMap((one) =>
      one.of === 'element' ? `-ze${one.number}ez` : [],
    );
    const total = `"addresses":"${addresses.join(' ')}","total":${predicted.totals[0] ?? 0}`;
    expect(whats(reads, answer(`${total}${all}`))).toEqual([]);
    expect(whats(reads, answer(`${total}${all}${String(known[0]?.values[mark('item_lender')])}`))).toEqual([
      'shows',
    ]);
    expect(whats(reads, answer(`${total}"total":99${all}`))).toEqual(['counts']);
    expect(whats(reads, answer(whole(predicted.totals[0] ?? 0)))).toContain('lacks');
    expect(whats(reads, answer('', { status: 404 }))).toEqual(['answers']);
    expect(
      whats(
        reads,
        answer(`${total}${all}`, {
          headers: `Cache-Control\nno-store\nX-About\n${nameOf(mark('s_schedule'))}`,
        }),
      ),
    ).toEqual(['shows']);
    // The id of what is closed is as telling as its name, and the address of a screen too.
    expect(whats(reads, answer(`${total}${all}{"${mark('item_lender')}":null}`))).toEqual(['shows']);
    expect(
      whats(
        reads,
        answer(`${total}${all}"/${treeOf(copy.definition).need(mark('s_schedule'), 'screen').node.address}"`),
      ),
    ).toEqual(['shows']);
    const hidden: Case = {
      asking: { path: 'x' },
      reads: 'api',
      predicted: NOT_THERE,
      alike: { to: 'x', but: 'one' },
    };
    comparing.nextViewer();
    expect(whats(hidden, answer('{"is":"one"}', { status: 404 }))).toEqual([]);
    expect(
      whats({ ...hidden, alike: { to: 'x', but: 'other' } }, answer('{"is":"other"}', { status: 404 })),
    ).toEqual([]);
    expect(whats(hidden, answer('{"may not":"one"}', { status: 404 }))).toEqual(['answers']);
    expect(whats({ ...hidden, alike: { to: 'y', but: '' } }, answer('', { status: 403 }))).toEqual([
      'answers',
    ]);
    expect(whats(reads, answer(`${total}${all}`, { headers: 'Cache-Control\nprivate' }))).toEqual([
      'answers',
    ]);
    const refused: Case = { asking: { method: 'DELETE', path: 'x' }, refused: true };
    expect(whats(refused, answer(''))).toEqual(['did']);
    expect(whats(refused, answer('', { status: 403 }))).toEqual([]);
  });
});

const nameOf = (id: string): string => treeOf(copy.definition).get(id)?.name ?? '';

describe('a connection that breaks', () => {
  it('ends no sweep: it is asked again, what changes something on records as they were, and counted', async () => {
    let asked = 0;
    const server = createServer((request, response) => {
      asked++;
      if (asked === 1) request.socket.destroy();
      else if (asked === 2) response.writeHead(503).end();
      else response.end('here');
    });
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const { port } = server.address() as { port: number };
    const asker = new Asker(new URL(`http://127.0.0.1:${port}`), 'x', 'http://x', 1);
    let putBack = 0;
    try {
      const answer = await asker.ask({ method: 'POST', path: '/', body: {} }, () =>
        Promise.resolve(putBack++),
      );
      expect(answer).toMatchObject({ status: 200, body: 'here' });
      expect([asked, putBack, asker.askedAgain]).toEqual([3, 2, 2]);
    } finally {
      asker.end();
      server.close();
    }
  });
});
