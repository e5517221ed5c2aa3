import fc from 'fast-check';
import { expect, it } from 'vitest';
import { applyEdit, difference } from '@/core';
import type { Definition } from '@/core/model';
import { sameJson } from '@/core/model/same-json';
import { withSameParts } from '@/core/model/same-parts';
import { LARKFIELD } from '@/demo/definition';
import { runs } from '../runs';

/** Values that are often partly the same, and have ids, some of them twice. */
const { value: VALUES } = fc.letrec<{ value: unknown }>((tie) => ({
  value: fc.oneof(
    { depthSize: 'medium' },
    fc.constantFrom(0, 1, null, 'x', ''),
    fc.array(tie('value'), { maxLength: 3 }),
    fc.record({ id: fc.constantFrom('a', 'b', 'c'), of: tie('value') }, { requiredKeys: ['id'] }),
    fc.dictionary(fc.constantFrom('p', 'q', 'of'), tie('value'), { maxKeys: 3 }),
  ),
}));

it('is the same value; and the other one itself just where they are the same', () => {
  fc.assert(
    fc.property(VALUES, VALUES, (other, value) => {
      const made = withSameParts(other, value);
      expect(made).toEqual(value);
      expect(made === other).toBe(sameJson(other, value));
      const twice = { one: other, two: [value] };
      expect(withSameParts(twice, structuredClone(twice))).toBe(twice);
    }),
    { numRuns: runs(1000) },
  );
});

it('keeps all of a definition but what an edit changed, and leaves what differs as it is', () => {
  const line = { id: 'new', who: { kind: 'everyone' }, what: 'see' } as const;
  const edited = applyEdit(LARKFIELD, { do: 'addLine', gate: 's_stores', line, at: 0 });
  if (!edited.ok) throw new Error('It does not apply');
  const loaded = structuredClone(edited.value);
  const made: Definition = withSameParts(LARKFIELD, loaded);
  expect(made.areas).toBe(LARKFIELD.areas);
  expect(made.entities).toBe(LARKFIELD.entities);
  const kept = Object.entries(made.gates).filter(([id, gate]) => gate === LARKFIELD.gates[id]);
  expect(kept).toHaveLength(Object.keys(LARKFIELD.gates).length - 1);
  expect(difference(LARKFIELD, made)).toEqual(difference(LARKFIELD, loaded));
});
