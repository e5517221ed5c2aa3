import { accessOf } from '@/core/access/deciding/access';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '@/core/access/deciding/compile';
import { sameAnswer, type Level } from '@/core/access/deciding/level';
import { viewerOfRole, type Viewer } from '@/core/access/deciding/viewer';
import { levelReaderFor } from '@/core/edit/proposing/aim';
import { applyEdit } from '@/core/edit/edits/apply';
import { inverseOf } from '@/core/edit/edits/edit';
import { proposeRange, type RangeProposal, type RangeWanted } from '@/core/edit/proposing/range';
import type { Definition } from '@/core/model/definition';
import { LARKFIELD } from '@/demo/definition';
import { Draw, drawCircumstances, drawDefinition, drawViewer } from './arbitrary';
import { runs } from '../runs';

function proposed<Key>(definition: Definition, wanted: RangeWanted<Key>): RangeProposal {
  const steps = proposeRange(definition, wanted);
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

function made(definition: Definition, edits: RangeProposal['edits']): Definition {
  const result = applyEdit(definition, { do: 'together', edits });
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
}

describe('a range of cells', () => {
  it('gets the level but for the cells that cannot have it, in one edit that can be taken back', () => {
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const definition = drawDefinition(draw);
        const at = drawCircumstances(draw);
        const { tree } = compile(definition);
        const element = draw.one(tree.elements).id;
        const viewers = [0, 1, 2].map((key) => ({ key, viewer: drawViewer(draw) }));
        const level = draw.one([0, 1, 2] as const);
        const wanted = {
          elements: [element],
          viewers,
          level,
          others: [{ key: 3, viewer: drawViewer(draw) }],
          at,
        };
        const { edits, left } = proposed(definition, wanted);
        const after = made(definition, edits);
        const without = viewers.filter(({ viewer }) => {
          const [was, is] = [definition, after].map((one) => accessOf(compile(one), viewer, at));
          if (!was || !is) return true;
          return levelReaderFor(was, was.element(element), level)(is, is.element(element)) !== level;
        });
        expect(without).toHaveLength(left);
        const back = applyEdit(after, inverseOf({ do: 'together', edits }));
        expect(back.ok && back.value).toEqual(definition);
      }),
      { numRuns: runs(200), endOnFailure: true },
    );
  });

  const at = { moment: Date.UTC(2026, 10, 25, 12) };
  const columns = LARKFIELD.roles.map(({ id }) => ({ key: id, viewer: viewerOfRole(id) }));

  it.each<[string, string[], Level]>([
    ['area_lenders', ['volunteer', 'assistant'], 0],
    ['s_items', ['lender', 'keeper'], 1],
    ['item_value', ['curator', 'auditor'], 0],
    ['p_item_title', ['volunteer'], 2],
  ])('of %s changes no other column where it need not', (element, roles, level) => {
    const chosen = columns.filter(({ key }) => roles.includes(key));
    const others = columns.filter(({ key }) => !roles.includes(key));
    const wanted = { elements: [element], viewers: chosen, level, others, at };
    const after = compile(made(LARKFIELD, proposed(LARKFIELD, wanted).edits));
    const before = compile(LARKFIELD);
    const answer = (of: typeof before, viewer: Viewer) => {
      const access = accessOf(of, viewer, at);
      return access.answer(access.element(element));
    };
    for (const { key, viewer } of others)
      expect([key, sameAnswer(answer(before, viewer), answer(after, viewer))]).toEqual([key, true]);
  });
});
