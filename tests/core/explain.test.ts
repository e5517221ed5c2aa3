import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { explain, type Decided, type Explanation } from '@/core/access/questions/explain';
import { type Access, accessOf } from '@/core/access/deciding/access';
import { compile } from '@/core/access/deciding/compile';
import { rightNow, SIGNED_OUT, viewerOfRole, type Viewer } from '@/core/access/deciding/viewer';
import { isDataDoor } from '@/core/model/tree';
import type { Definition } from '@/core/model/definition';
import { sameAnswer, type Answer } from '@/core/access/deciding/level';
import { newLine } from '@/core/edit/edits/make';
import { gives, type Line } from '@/core/model/gate';
import type { Values } from '@/core/model/value-type';
import { LARKFIELD } from '@/demo/definition';
import { Draw, drawCircumstances, drawDefinition, drawLine, drawRecord, drawViewer } from './arbitrary';
import { found, runs } from '../runs';

const line = (id: string, role: string, what: Line['what'], exactly = false): Line => ({
  id,
  who: { kind: 'role', role, ...(exactly && { exactly }) },
  what,
});
const withGates = (gates: Readonly<Record<string, Line[]>>): Definition => ({
  ...LARKFIELD,
  gates: {
    ...LARKFIELD.gates,
    ...Object.fromEntries(Object.entries(gates).map(([id, lines]) => [id, { lines }])),
  },
});

/** What decided, in one word or two. */
function short(decided: Decided): string {
  switch (decided.by) {
    case 'line':
      return `line ${decided.line.id} of ${decided.gate}`;
    case 'no-line':
      return `no line of ${decided.gate}`;
    case 'handles':
      return `handles of ${decided.door}: ${decided.handles.join(' ')}`;
    case 'no-handle':
      return `no handle of ${decided.door}`;
  }
}

const gated = withGates({
  item_value: [
    line('v1', 'registrar', 'edit'),
    line('v2', 'curator', 'see'),
    line('v3', 'head', 'block', true),
  ],
  area_loans: [line('area', 'registrar', 'see')],
  n_custody: [line('n1', 'assistant', 'edit'), line('n2', 'registrar', 'at-most-see', true)],
  a_item_release: [],
});

function why(definition: Definition, viewer: Viewer, id: string, values?: Values): Explanation {
  const access = accessOf(compile(definition), viewer, rightNow());
  const entity = access.compiled.tree.recordOf(access.element(id));
  return explain(access, id, values && entity && { entity, values });
}

describe('why', () => {
  it.each<[string, Definition, Viewer, string, string]>([
    ['a screen has a line', LARKFIELD, viewerOfRole('curator'), 's_items', 'line s_items_3 of s_items'],
    ['no line speaks of the viewer', LARKFIELD, SIGNED_OUT, 's_items', 'no line of s_items'],
    ['a container takes it', LARKFIELD, viewerOfRole('lender'), 'p_item_value', 'no line of s_item'],
    ['a section caps it', gated, viewerOfRole('registrar'), 'p_item_value', 'line n2 of n_custody'],
    [
      'the data’s own lines take it',
      gated,
      viewerOfRole('assistant'),
      'p_item_value',
      'no line of item_value',
    ],
    [
      'the data’s own block takes it',
      gated,
      viewerOfRole('head'),
      'l_items_item_value',
      'line v3 of item_value',
    ],
    [
      'the data’s own line narrows it',
      gated,
      viewerOfRole('curator'),
      'l_items_item_value',
      'line v2 of item_value',
    ],
    ['an area takes it', gated, viewerOfRole('assistant'), 'm_loans', 'no line of area_loans'],
    [
      'an action is closed to all',
      gated,
      viewerOfRole('registrar'),
      'b_release_item',
      'no line of a_item_release',
    ],
    [
      'no button opens the action',
      LARKFIELD,
      viewerOfRole('volunteer'),
      'a_item_delete',
      'no handle of a_item_delete',
    ],
    ['handles hold the data open', LARKFIELD, SIGNED_OUT, 'item', 'handles of item: l_catalogue'],
    ['no screen shows the data', LARKFIELD, SIGNED_OUT, 'item_store', 'no handle of item_store'],
    [
      'the screen has lines, its menu item follows',
      LARKFIELD,
      viewerOfRole('lender'),
      'm_stores',
      'no line of s_stores',
    ],
    [
      'whoever adds records sees none of them, so that the form is for reading',
      withGates({
        s_report: [],
        s_reports: [],
        report_grade: [line('g', 'conservator', 'edit')],
        a_report_create: [line('c', 'conservator', 'edit')],
      }),
      viewerOfRole('conservator'),
      'new_report_grade',
      'no handle of report',
    ],
  ])('%s', (_, definition, viewer, element, decided) => {
    expect(short(why(definition, viewer, element).decided)).toBe(decided);
  });

  it('says that a field stays empty which points to what the viewer may not know by name', () => {
    const closed = withGates({ item_title: [line('t', 'auditor', 'see')] });
    const named = (definition: Definition) =>
      why(definition, viewerOfRole('registrar'), 'p_loan_item').nameClosed;
    expect(named(closed)).toEqual({ entity: 'item', always: true });
    expect(named(LARKFIELD)).toBeUndefined();
  });

  it('tells the way from the application to the element, then its doors', () => {
    const { steps, answer } = why(gated, viewerOfRole('curator'), 'l_items_item_value');
    expect(steps.map(({ element, gate }) => `${element} ${gate}`)).toEqual([
      'larkfield own',
      'area_items follows',
      's_items own',
      's_items_main follows',
      'l_items follows',
      'l_items_item_value follows',
      'item follows',
      'item_value own',
    ]);
    expect(answer).toEqual({ least: 1, most: 1 });
  });

  it('names what decides: taking it away, or adding what is missing, changes the answer', () => {
    const named = { given: 0, taken: 0, missing: 0 };
    const check = (draw: Draw): void => {
      const drawn = drawDefinition(draw);
      const { tree } = compile(drawn);
      const target = draw.one(tree.elements);
      const everyone = { lines: [newLine({ kind: 'everyone' }, 'edit')] };
      const lines = draw.many(3, () => drawLine(draw, tree.recordOf(target)));
      const definition: Definition = { ...drawn, gates: { app: everyone, [target.id]: { lines } } };
      const [viewer, at] = [drawViewer(draw), drawCircumstances(draw)];
      for (const { id, screen, list, kind } of tree.elements) {
        // What is about a list on a record's screen is about two records, of which one is not known.
        if (screen?.binds && (kind === 'list' || kind === 'button' || list)) continue;
        // A chart is about all records of its list, and about none that is at hand.
        if (kind === 'chart') continue;
        const entity = tree.recordOf(tree.get(id) ?? target);
        const record = entity && draw.chance(50) ? drawRecord(draw, definition, entity) : undefined;
        const accessWith = (some: readonly Line[]): Access => {
          const gates = { ...definition.gates, [target.id]: { lines: some } };
          return accessOf(compile({ ...definition, gates }), viewer, at);
        };
        const answerWith = (some: readonly Line[]): Answer => {
          const access = accessWith(some);
          return record ? access.answerOn(access.element(id), record) : access.answer(access.element(id));
        };
        const { answer, decided } = explain(accessOf(compile(definition), viewer, at), id, record);
        expect(answer).toEqual(answerWith(lines));
        if (!('gate' in decided) || decided.gate !== target.id) continue;
        // What depends comes of several lines together.
        if (answer.least < answer.most) continue;
        // Where no screen gives it either, nothing that is named is alone in the way.
        if (!('gate' in explain(accessWith(everyone.lines), id, record).decided)) continue;
        // Without what is named, and those that would leave the same by themselves; for a door, what takes something on
        // other records too: what screens give of it is asked of those as well.
        const taking = lines.filter((one) => !gives(one));
        const none = record && isDataDoor({ kind }) ? taking : decided.by === 'no-line' ? decided.also : [];
        const reasons = decided.by === 'no-line' ? none : [decided.line, ...decided.also];
        const without = lines.filter((one) => !reasons.includes(one));
        if (decided.by === 'no-line') named.missing++;
        else named[gives(decided.line) ? 'given' : 'taken']++;
        const others =
          decided.by === 'no-line' ? [...without, newLine({ kind: 'everyone' }, 'edit')] : without;
        expect([id, target.id, sameAnswer(answer, answerWith(others))]).toEqual([id, target.id, false]);
      }
    };
    fc.assert(
      fc.property(fc.gen(), (value) => check(new Draw(value))),
      { numRuns: runs(1000), endOnFailure: true },
    );
    expect(Math.min(...Object.values(named))).toBeGreaterThanOrEqual(found(1));
  });

  it('is told for one record, where it depends on the record', () => {
    const at = (shown: boolean) => why(LARKFIELD, SIGNED_OUT, 'item_title', { item_shown: shown }).answer;
    expect([at(true), at(false)]).toEqual([
      { least: 1, most: 1 },
      { least: 0, most: 0 },
    ]);
    expect(why(LARKFIELD, SIGNED_OUT, 'item_title').answer).toEqual({ least: 0, most: 1 });
  });
});
