import Ajv from 'ajv/dist/2020';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ordered } from '@/core/model/ordered';
import { FORMAT } from '@/core/model/definition';
import { jsonSchemaOf } from '@/core/model/json-schema';
import { definitionSchema, NAMED_SHAPES, readDefinition } from '@/core/model/schema';
import { LARKFIELD } from '@/demo/definition';
import { Draw, drawDefinition } from './arbitrary';

const schema = jsonSchemaOf(
  definitionSchema,
  {
    $id: `urn:zinc-gate:definition:${FORMAT}`,
    title: 'A Zinc Gate application’s definition',
    description:
      'The shape of the document; see docs/definition.md. What it names must exist, which bin/zinc check looks at.',
  },
  NAMED_SHAPES,
);
const valid = new Ajv({ strict: false }).compile(schema);

describe('a definition as a file', () => {
  it('has the JSON Schema that is in docs; `npm run schema` writes it anew', async () => {
    await expect(`${JSON.stringify(schema, null, 2)}\n`).toMatchFileSnapshot(
      '../../docs/definition.schema.json',
    );
  });

  it('is as its JSON Schema says, the demo and random ones alike', () => {
    expect(valid(LARKFIELD) ? [] : valid.errors).toEqual([]);
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const definition: unknown = JSON.parse(JSON.stringify(drawDefinition(new Draw(value))));
        expect(valid(definition) ? [] : valid.errors).toEqual([]);
      }),
      { numRuns: 100, endOnFailure: true },
    );
  });

  it.each([
    ['a misspelt key', { ...LARKFIELD, gate: {} }],
    [
      'a line for nobody known',
      { ...LARKFIELD, gates: { larkfield: { lines: [{ id: 'l', who: { kind: 'all' }, what: 'see' }] } } },
    ],
    ['a condition that asks nothing', { ...LARKFIELD, groups: [{ id: 'g', name: 'G', condition: {} }] }],
    ['another format', { ...LARKFIELD, format: 4 }],
  ])('is refused by both for %s', (_, document) => {
    expect([valid(document), readDefinition(document).ok]).toEqual([false, false]);
  });

  it('has its keys in one order, whatever order they were made in', () => {
    const turned = (json: unknown): unknown =>
      Array.isArray(json)
        ? json.map(turned)
        : typeof json === 'object' && json !== null
          ? Object.fromEntries(
              Object.entries(json)
                .reverse()
                .map(([key, value]) => [key, turned(value)]),
            )
          : json;
    expect(JSON.stringify(ordered(turned(LARKFIELD)))).toBe(JSON.stringify(ordered(LARKFIELD)));
    expect(ordered(LARKFIELD)).toEqual(JSON.parse(JSON.stringify(LARKFIELD)));
  });
});
