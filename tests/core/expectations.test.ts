import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { accessOf, compile, readViewerKey, viewerOfRole } from '@/core';
import { kindsOf, sameAnswer } from '@/core/access';
import { SIGNED_IN, SIGNED_OUT } from '@/core/access/deciding/viewer';
import { answerTo, brokenOf, levelsText, readLevels } from '@/core/expectations';
import type { Id } from '@/core/model';
import { EXPECTATIONS } from '@/demo/expectations';
import { LARKFIELD } from '@/demo/definition';
import { drawDefinition, Draw } from './arbitrary';
import { runs } from '../runs';

const viewer = (key: string) => {
  const read = readViewerKey(key);
  if (read?.kind === 'signed-out') return SIGNED_OUT;
  if (read?.kind === 'signed-in') return SIGNED_IN;
  return read?.kind === 'role' ? viewerOfRole(read.id) : undefined;
};
const asked = { viewer, record: () => undefined, now: Date.UTC(2026, 2, 14, 12) };
const numbered = EXPECTATIONS.map((one, n) => ({ id: String(n), ...one }));

describe('expectations', () => {
  it('of the demo are forty, and hold', () => {
    expect(EXPECTATIONS).toHaveLength(40);
    expect(brokenOf(LARKFIELD, numbered, asked)).toEqual([]);
  });

  it('break by the change that is against them, and by nothing else', () => {
    const opened = {
      ...LARKFIELD,
      gates: {
        ...LARKFIELD.gates,
        item_value: { lines: [{ id: 'new', who: { kind: 'signed-in' as const }, what: 'see' as const }] },
      },
    };
    const broken = brokenOf(opened, numbered, asked).map(({ id }) => EXPECTATIONS[Number(id)]);
    expect(broken.length).toBeGreaterThan(0);
    expect(broken.every((one) => one?.element === 'item_value')).toBe(true);
  });

  it('about what is gone break, and say that it is', () => {
    const [one] = numbered;
    if (!one) throw new Error('There is none');
    for (const gone of [
      { ...one, viewer: 'person:gone' },
      { ...one, element: 'gone' },
      { ...one, record: { entity: 'item', id: 'gone' } },
    ])
      expect(brokenOf(LARKFIELD, [gone], asked)).toEqual([{ id: one.id, is: undefined }]);
  });

  it('hold between what is least and most of any moment, whatever is expected', () => {
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const definition = drawDefinition(draw);
        const { elements } = compile(definition).tree;
        const one = draw.one(elements);
        const { key } = draw.one(kindsOf(definition).filter(({ key: each }) => viewer(each)));
        const about = { viewer: key, element: one.id as Id };
        const always = answerTo(definition, about, asked);
        const then = answerTo(definition, { ...about, moment: draw.upTo(2 ** 31 - 1) * 1000 }, asked);
        if (!always || !then) throw new Error('It is there');
        expect(always.least).toBeLessThanOrEqual(then.least);
        expect(always.most).toBeGreaterThanOrEqual(then.most);
        const whom = viewer(key);
        if (!whom) throw new Error('They are there');
        const now = accessOf(compile(definition), whom, { moment: asked.now, whenever: true }).answer(one);
        expect(sameAnswer(now, always)).toBe(true);
      }),
      { numRuns: runs(300), endOnFailure: true },
    );
  });

  it('are written and read as levels', () => {
    for (const text of ['none', 'see', 'edit', 'none..see', 'none..edit', 'see..edit']) {
      const levels = readLevels(text);
      expect(levels && levelsText(levels)).toBe(text);
    }
    for (const text of ['', 'some', 'edit..see', 'see..', 'see..see..see'])
      expect([text, readLevels(text)]).toEqual([text, undefined]);
  });
});
