import fc from 'fast-check';
import { sql } from 'drizzle-orm';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { accessOf, landingOf } from '@/core';
import { type Access, Compiled, HandingOut, type KnownRecord, showField } from '@/core/access';
import { type Condition, holds } from '@/core/condition';
import type { Definition, Entity, Gate, Value, Values } from '@/core/model';
import { database } from '@/server/database/client';
import { records } from '@/server/database/schema';
import { filterFormula, filterTerms } from '@/server/records/filter';
import { listRecords } from '@/server/records/read';
import { formulaSql } from '@/server/records/sql';
import {
  drawCondition,
  drawDefinition,
  drawValues,
  drawViewer,
  Draw,
  drawCircumstances,
} from '../core/arbitrary';
import { application, dropApplications, emptyDatabase, put, scopeFor } from './setting';
import { runs } from '../runs';

beforeAll(emptyDatabase);
beforeEach(dropApplications);

const lookUpOf = ({ lookUp }: KnownRecord, entity: string, id: Value | null): Values | undefined =>
  typeof id === 'string' ? lookUp?.(entity, id) : undefined;

/** What a filter asks of a record that points to others: what each is called, where the viewer is shown that. */
function asShown(access: Access, record: KnownRecord): KnownRecord {
  const values: Record<string, Values[string]> = { ...record.values };
  for (const field of record.entity.fields)
    if (field.type.kind === 'record') {
      const shown = showField(access, field, record.values[field.id] ?? null, record.lookUp);
      const target = lookUpOf(record, field.type.entity, shown.value);
      const label = target?.[access.compiled.tree.need(field.type.entity, 'rows').node.labelField];
      values[field.id] = typeof label === 'string' ? label : null;
    }
  return { ...record, shown: { ...record, values } };
}

/** A condition as somebody would ask it: often of what a pointed-to record is called. */
const drawAsked = (draw: Draw, entity: Entity): Condition =>
  draw.chance(50)
    ? {
        compare: draw.one(['=', '!=', 'contains', 'starts with'] as const),
        left: { record: `${entity.id}_${draw.one(['next', 'next', 'title'])}` },
        right: { value: draw.one(['x', 'y', 'k1', 'k2', '']) },
      }
    : draw.chance(30)
      ? { not: { empty: { record: `${entity.id}_next` } } }
      : drawCondition(draw, entity, 2);

describe('filters', () => {
  it('decide doors on stored values and read only what is asked as it is shown: SQL as the core', async () => {
    let [compared, matched] = [0, 0];
    await fc.assert(
      fc.asyncProperty(fc.gen(), async (value) => {
        const draw = new Draw(value);
        await dropApplications();
        const definition = withPointingDoors(draw, drawDefinition(draw));
        await application(definition);
        const stored = definition.entities.flatMap((entity) =>
          Array.from({ length: 8 }, (_, n) => ({ entity, id: `k${n}`, values: drawValues(draw, entity) })),
        );
        for (const { entity, id, values } of stored) await put(definition, entity.id, id, values);
        const lookUp = (of: string, id: string) =>
          stored.find((one) => one.entity.id === of && one.id === id)?.values;
        const { access } = scopeFor(definition, drawViewer(draw), 'live', drawCircumstances(draw));
        for (const entity of definition.entities) {
          const terms = filterTerms(access, entity);
          const formulas = draw
            .many(6, () => drawAsked(draw, entity), 6)
            .map((one) => filterFormula(access, terms, one));
          const row = { alias: sql.raw('records'), entity };
          const found = await database()
            .select({
              id: records.id,
              answers: sql<boolean[]>`array[${sql.join(
                formulas.map((one) => formulaSql(row, one, access)),
                sql`, `,
              )}]`,
            })
            .from(records)
            .where(sql`${records.entity} = ${entity.id}`);
          for (const { id, answers } of found) {
            const one = stored.find((each) => each.entity === entity && each.id === id);
            const record = asShown(access, { ...one, lookUp } as KnownRecord);
            formulas.forEach((formula, n) => {
              expect([JSON.stringify(formula), answers[n]]).toEqual([
                JSON.stringify(formula),
                holds(formula, record),
              ]);
              compared++;
              if (answers[n] && typeof formula !== 'boolean') matched++;
            });
          }
        }
      }),
      { numRuns: 80, endOnFailure: true },
    );
    expect(compared).toBeGreaterThan(3000);
    expect(matched).toBeGreaterThan(50);
  });

  it('ask nothing of a record before its door, whatever is cheaper', async () => {
    const [base] = fc.sample(
      fc.gen().map((value) => drawDefinition(new Draw(value))),
      { numRuns: 1, seed: 7 },
    );
    const definition = closedBut(base as Definition);
    await application(definition);
    await put(definition, 'e', 'seen', { e_title: 'x', e_owner: 'ada' });
    for (let n = 0; n < 20; n++) await put(definition, 'e', `hidden${n}`, { e_title: 'x', e_owner: 'bo' });
    const scope = scopeFor(definition, { kind: 'signed-in', assignments: [] });
    const entity = definition.entities[0] as Entity;
    const asked = await countingReads(async () => {
      const query = { filter: 'record.title starts with "x"', q: 'x', page: 1, size: 10 };
      const found = await listRecords(scope, entity, true, entity.fields, query);
      expect(found.records.map(({ id }) => id)).toEqual(['seen']);
    });
    // Of the one record that is open, by the page and by the count, each for the filter and the search.
    expect(asked).toBeGreaterThan(0);
    expect(asked).toBeLessThan(20);
  });
});

/** How often `work` has the database read a text value of a record, by a reader that counts. */
async function countingReads(work: () => Promise<void>): Promise<number> {
  const on = database();
  const { rows } = await on.execute<{ text: string }>(
    sql`select pg_get_functiondef('zg_text(jsonb)'::regprocedure) as text`,
  );
  await on.execute(sql`create sequence if not exists asked_of`);
  await on.execute(sql`select setval('asked_of', 1)`);
  await on.execute(sql`create or replace function zg_text(value jsonb) returns text language plpgsql cost 0.0001 as $$
    begin perform nextval('asked_of'); return value #>> '{}'; end $$`);
  try {
    await work();
    const found = await on.execute<{ last_value: string }>(sql`select last_value from asked_of`);
    return Number(found.rows[0]?.last_value) - 1;
  } finally {
    await on.execute(sql.raw(rows[0]?.text ?? ''));
    await on.execute(sql`drop sequence asked_of`);
  }
}

/** Doors of fields that ask about the field that points to another record. */
function withPointingDoors(draw: Draw, definition: Definition): Definition {
  const gates = { ...definition.gates };
  const open = (): Gate => ({ lines: [{ id: draw.id('line'), who: { kind: 'everyone' }, what: 'edit' }] });
  // Closed to most, nothing would ever match, and nothing would be compared but refusals.
  if (draw.chance(80)) gates[definition.id] = open();
  for (const { id } of definition.entities) {
    if (draw.chance(80)) gates[id] = open();
    for (const name of ['price', 'title', 'colour'])
      if (draw.chance(30)) gates[`${id}_${name}`] = open();
      else if (draw.chance(60)) {
        const when: Condition = draw.one<Condition>([
          { not: { empty: { record: `${id}_next` } } },
          { empty: { record: `${id}_next` } },
          { compare: '=', left: { record: `${id}_next` }, right: { value: draw.one(['k1', 'k2']) } },
        ]);
        gates[`${id}_${name}`] = {
          lines: [{ id: draw.id('line'), who: { kind: 'everyone' }, what: 'edit', when }],
        };
      }
  }
  return { ...definition, gates };
}

const isOwner = (name: string): Condition => ({
  compare: '=',
  left: { record: 'e_owner' },
  right: { value: name },
});

/** Everybody sees the records of e whose owner is ada, with all fields. */
function closedBut(definition: Definition): Definition {
  const everyone = (id: string, when?: Condition) => ({
    lines: [{ id, who: { kind: 'everyone' as const }, what: 'see' as const, ...(when && { when }) }],
  });
  return {
    ...definition,
    gates: {
      app: everyone('l0'),
      // Dearer than the filter, so that PostgreSQL would ask this last.
      e: everyone('l1', { any: ['ada', 'adah', 'adam', 'adan'].map(isOwner) }),
      e_title: everyone('l2'),
    },
  };
}

describe('two people who are alike', () => {
  it('are answered as if each were alone: the same requests, in any order, at any time', () => {
    let asked = 0;
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const definition = drawDefinition(draw);
        const shared = new Compiled(definition);
        const some = draw.many(
          6,
          () => {
            const viewer = drawViewer(draw);
            const named =
              viewer.kind === 'signed-in' && viewer.attributes
                ? {
                    ...viewer,
                    person: draw.id('person'),
                    attributes: { ...viewer.attributes, name: draw.id('Name '), email: draw.id('mail') },
                  }
                : viewer;
            return { viewer: named, at: { ...drawCircumstances(draw), moment: draw.upTo(4e12) } };
          },
          2,
        );
        const entity = draw.one(definition.entities);
        const conditions = draw.many(4, () => drawUserQuestion(draw, entity), 2);
        for (let n = 0; n < 12; n++) {
          const { viewer, at } = draw.one(some);
          const answers = (access: Access) => ({
            filters: conditions.map((one) => filterFormula(access, filterTerms(access, entity), one)),
            handsOut: [...new HandingOut(access.held, 'nobody').roles.keys()],
            landing: landingOf(access, undefined)?.id,
            levels: access.compiled.tree.elements.map((one) => access.answer(one)),
          });
          expect(answers(accessOf(shared, viewer, at))).toEqual(
            answers(accessOf(new Compiled(definition), viewer, at)),
          );
          asked++;
        }
      }),
      { numRuns: runs(100), endOnFailure: true },
    );
    expect(asked).toBe(12 * runs(100));
  });
});

/** What somebody may ask of themselves and the time, where no line does. */
function drawUserQuestion(draw: Draw, entity: Entity): Condition {
  return draw.one<Condition>([
    { compare: '=', left: { record: `${entity.id}_owner` }, right: { user: draw.one(['name', 'email']) } },
    { compare: '<', left: { record: `${entity.id}_due` }, right: { clock: 'today', plus: draw.upTo(30) } },
    { compare: '=', left: { user: 'home_unit' }, right: { record: `${entity.id}_place` } },
    { compare: '<', left: { clock: 'now' }, right: { value: '2026-03-01T00:00:00' } },
  ]);
}
