import Ajv from 'ajv/dist/2020';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { ordered } from '@/core/model/ordered';
import { readDefinition } from '@/core/model/schema';
import { LARKFIELD } from '@/demo/definition';
import { Draw, drawDefinition } from './arbitrary';

const schema: unknown = JSON.parse(
  readFileSync(new URL('../../docs/definition.schema.json', import.meta.url), 'utf8'),
);
const valid = new Ajv({ strict: false }).compile(schema as object);

describe('a definition as a file', () => {
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
    ['another format', { ...LARKFIELD, format: 3 }],
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
