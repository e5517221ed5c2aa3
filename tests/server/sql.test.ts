import fc from 'fast-check';
import { sql } from 'drizzle-orm';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { type KnownRecord, levelOn, showField } from '@/core/access';
import { bind, holds, type RequiredResult } from '@/core/condition';
import type { Definition, Entity } from '@/core/model';
import { database } from '@/server/database/client';
import { records } from '@/server/database/schema';
import { knownRecords, listRecords } from '@/server/records/read';
import { formulaSql, passesSql, shownSql } from '@/server/records/sql';
import {
  Draw,
  drawCircumstances,
  drawCondition,
  drawDefinition,
  drawValues,
  drawViewer,
} from '../core/arbitrary';
import { application, dropApplications, emptyDatabase, put, scopeFor } from './setting';
import { found, runs } from '../runs';

beforeAll(emptyDatabase);
beforeEach(dropApplications);

const ALL = { page: 1, size: 100 };
const MUSTS: readonly RequiredResult[] = ['be true', 'be false', 'not be true', 'not be false'];

/** Random records of every entity, some of which point to each other, in the database and as the core has them. */
async function drawStored(draw: Draw, definition: Definition, count: number): Promise<KnownRecord[]> {
  const stored = definition.entities.flatMap((entity) =>
    Array.from({ length: count }, (_, n) => ({ entity, id: `k${n}`, values: drawValues(draw, entity) })),
  );
  for (const { entity, id, values } of stored) await put(definition, entity.id, id, values);
  const lookUp = (of: string, id: string) =>
    stored.find((one) => one.entity.id === of && one.id === id)?.values;
  return stored.map((one) => ({ ...one, lookUp }));
}

const idsOf = (some: readonly { readonly id: string }[]): string[] => some.map(({ id }) => id).sort();

describe('rows and fields in SQL', () => {
  it('agree with the core, on missing values, values of the wrong type, decimals and odd text', async () => {
    let compared = 0;
    await fc.assert(
      fc.asyncProperty(fc.gen(), async (value) => {
        const draw = new Draw(value);
        await dropApplications();
        const definition = drawDefinition(draw);
        await application(definition);
        const stored = await drawStored(draw, definition, 8);
        for (let viewers = 0; viewers < 3; viewers++) {
          const scope = scopeFor(definition, drawViewer(draw), 'live', drawCircumstances(draw));
          const { access } = scope;
          for (const entity of definition.entities) {
            const own = stored.filter((one) => one.entity === entity);
            const open = own.filter((one) => levelOn(access.doors.rows(entity.id), one) > 0);
            const page = await listRecords(scope, entity, true, entity.fields, ALL);
            expect(idsOf(page.records)).toEqual(idsOf(open));
            expect(page.total).toBe(open.length);
            const known = await knownRecords(scope, entity, page.records);
            for (const field of entity.fields) {
              const row = { alias: sql.raw('records'), entity };
              const words = await database()
                .select({
                  id: records.id,
                  words: sql<string | null>`(${shownSql(access, row, field)})::text`,
                })
                .from(records)
                .where(
                  sql`${records.entity} = ${entity.id} and ${formulaSql(row, access.doors.rows(entity.id).see)}`,
                );
              for (const { id, words: said } of words) {
                const record = known.find((one) => one.id === id) as KnownRecord;
                const sees = levelOn(access.doors.field(field.id, 'existing'), record) > 0;
                if (!sees) expect(said).toBeNull();
                else if (field.type.kind === 'record') {
                  const shown = showField(access, field, record.values[field.id] ?? null, record.lookUp);
                  expect(said ?? '').toBe(shown.text);
                }
                compared++;
              }
            }
          }
        }
      }),
      { numRuns: runs(60), endOnFailure: true },
    );
    expect(compared).toBeGreaterThan(found(500));
  });

  it('answer thousands of random conditions as the core does, true, false or in doubt', async () => {
    let compared = 0;
    await fc.assert(
      fc.asyncProperty(fc.gen(), async (value) => {
        const draw = new Draw(value);
        await dropApplications();
        const definition = drawDefinition(draw);
        await application(definition);
        const stored = await drawStored(draw, definition, 12);
        const { access } = scopeFor(definition, drawViewer(draw), 'live', drawCircumstances(draw));
        const entity = draw.one(definition.entities) as Entity;
        const own = stored.filter((one) => one.entity === entity);
        const row = { alias: sql.raw('records'), entity };
        const conditions = draw.many(12, () => drawCondition(draw, entity, 3), 12);
        const formulas = conditions.flatMap((condition) =>
          MUSTS.map((must) => bind(access.held.facts, { definition, entity }, condition, must)),
        );
        const found = await database()
          .select({
            id: records.id,
            answers: sql<boolean[]>`array[${sql.join(
              formulas.map((one) => formulaSql(row, one)),
              sql`, `,
            )}]`,
            // What passes a WHERE, where null is as good as false.
            passed: sql<boolean[]>`array[${sql.join(
              formulas.map((one) => sql`coalesce(${passesSql(row, one)}, false)`),
              sql`, `,
            )}]`,
          })
          .from(records)
          .where(sql`${records.entity} = ${entity.id}`);
        for (const { id, answers, passed } of found) {
          expect(passed).toEqual(answers);
          const record = own.find((one) => one.id === id) as KnownRecord;
          formulas.forEach((one, n) => {
            if (answers[n] !== holds(one, record))
              throw new Error(`${JSON.stringify(one)} of ${JSON.stringify(record.values)}: ${answers[n]}`);
            compared++;
          });
        }
      }),
      { numRuns: runs(60), endOnFailure: true },
    );
    expect(compared).toBeGreaterThan(found(24_000));
  });
});
