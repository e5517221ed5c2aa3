import fc from 'fast-check';
import { sql } from 'drizzle-orm';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { all, any, holds, surely, type Formula } from '@/core/access/formula';
import { levelOn } from '@/core/access/rule';
import { database } from '@/server/database/client';
import { records } from '@/server/database/schema';
import { listRecords, targetsOf } from '@/server/records/read';
import { formulaSql, shownSql } from '@/server/records/sql';
import { showField } from '@/core/access/resolve';
import { Draw, drawDefinition, drawValues, drawViewer } from '../core/arbitrary';
import { application, dropApplications, emptyDatabase, put, scopeFor } from './setting';

beforeAll(emptyDatabase);
beforeEach(dropApplications);

const ALL = { page: 1, size: 100 };

describe('rows and fields in SQL', () => {
  it('agree with the core, on missing values, values of the wrong type, decimals and odd text', async () => {
    let compared = 0;
    await fc.assert(
      fc.asyncProperty(fc.gen(), async (value) => {
        const draw = new Draw(value);
        await dropApplications();
        const definition = drawDefinition(draw);
        await application(definition);
        const stored = definition.entities.flatMap((entity) =>
          Array.from({ length: 8 }, (_, n) => ({ entity, id: `k${n}`, values: drawValues(draw, entity) })),
        );
        for (const { entity, id, values } of stored) await put(definition, entity.id, id, values);
        for (let viewers = 0; viewers < 3; viewers++) {
          const scope = scopeFor(definition, drawViewer(draw));
          const { access } = scope;
          for (const entity of definition.entities) {
            const own = stored.filter((one) => one.entity === entity);
            const open = own.filter(({ values }) => levelOn(access.doors.rows(entity.id), values) > 0);
            const page = await listRecords(scope, entity, true, entity.fields, ALL);
            expect(page.records.map(({ id }) => id).sort()).toEqual(open.map(({ id }) => id).sort());
            expect(page.total).toBe(open.length);
            const lookUp = await targetsOf(scope, entity, page.records);
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
                const values = own.find((one) => one.id === id)?.values ?? {};
                const sees = levelOn(access.doors.field(field.id, 'existing'), values) > 0;
                if (!sees) expect(said).toBeNull();
                else if (field.type.kind === 'record')
                  expect(said ?? '').toBe(
                    showField(access, field, values[field.id] ?? null, { lookUp }).text,
                  );
                compared++;
              }
            }
          }
        }
      }),
      { numRuns: 40 },
    );
    expect(compared).toBeGreaterThan(1000);
  });

  it('agree on thousands of random formulas', async () => {
    const [drawn] = fc.sample(
      fc.gen().map((value) => new Draw(value)),
      1,
    );
    const draw = drawn as Draw;
    const definition = drawDefinition(draw);
    const entity = definition.entities[0] as (typeof definition.entities)[number];
    await application(definition);
    const stored = Array.from({ length: 60 }, (_, n) => ({ id: `k${n}`, values: drawValues(draw, entity) }));
    for (const { id, values } of stored) await put(definition, entity.id, id, values);
    const leaf = fc
      .constantFrom(
        ...entity.fields.flatMap(({ id }) =>
          ['x', 'red', '10.5', '-0.01', 'é̂ ', '', true, false].map((equals) => ({ field: id, equals })),
        ),
      )
      .map((condition): Formula => surely(condition));
    const { formula } = fc.letrec<{ formula: Formula }>((tie) => ({
      formula: fc.oneof(
        { maxDepth: 4 },
        leaf,
        fc.boolean(),
        fc.array(tie('formula'), { maxLength: 3 }).map((parts) => all(...parts)),
        fc.array(tie('formula'), { maxLength: 3 }).map((parts) => any(...parts)),
      ),
    }));
    const row = { alias: sql.raw('records'), entity };
    await fc.assert(
      fc.asyncProperty(formula, async (one) => {
        const found = await database()
          .select({ id: records.id })
          .from(records)
          .where(sql`${records.entity} = ${entity.id} and ${formulaSql(row, one)}`);
        const expected = stored.filter(({ values }) => holds(one, values));
        expect(found.map(({ id }) => id).sort()).toEqual(expected.map(({ id }) => id).sort());
      }),
      { numRuns: 2000 },
    );
  });
});
