import { type Access, accessOf } from '@/core/access/deciding/access';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '@/core/access/deciding/compile';
import { matrixOf, unpacked } from '@/core/access/questions/cells';
import { isKind } from '@/core/access/deciding/viewer';
import { seenOf } from '@/core/access/deciding/level';
import { explain } from '@/core/access/questions/explain';
import { resolve, type KnownRecord } from '@/core/access/sent/resolve';
import { levelOn } from '@/core/access/deciding/rule';
import { holds } from '@/core/condition/formula';
import { findFaults } from '@/core/model/faults';
import { gives } from '@/core/model/gate';
import { readDefinition } from '@/core/model/schema';
import type { AppElement } from '@/core/model/tree';
import type { Definition, Entity } from '@/core/model/definition';
import type { Values } from '@/core/model/value-type';
import {
  Draw,
  drawCircumstances,
  drawDefinition,
  drawLine,
  drawOneOf,
  drawRecord,
  drawSomebody,
  drawViewer,
} from './arbitrary';
import { LARKFIELD } from '@/demo/definition';
import { PlainReading } from './plain-reading';
import { runs } from '../runs';

/** Runs `check` on random definitions, viewers and records. */
function everywhere(check: (draw: Draw) => void, numRuns = 250): void {
  fc.assert(
    fc.property(fc.gen(), (value) => check(new Draw(value))),
    { numRuns: runs(numRuns), endOnFailure: true },
  );
}

/** The list that a button is about as a whole. */
const listOf = (element: AppElement): string | undefined =>
  element.kind === 'button' && 'list' in element.node.effect ? element.node.effect.list : undefined;

/** A record of the entity that the element is decided on: the row's, else the screen's; for doors, their own. */
function recordFor(draw: Draw, definition: Definition, element: AppElement): KnownRecord {
  const { tree } = compile(definition);
  const about = tree.get(listOf(element) ?? '') ?? element;
  return drawRecord(draw, definition, tree.recordOf(about) ?? (definition.entities[0] as Entity));
}

describe('compiled access', () => {
  it('equals the plain reading of the design, element by element and record by record', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const [viewer, at] = [drawSomebody(draw), drawCircumstances(draw)];
      const access = accessOf(compile(definition), viewer, at);
      const reading = new PlainReading(definition, viewer, at);
      for (const element of access.compiled.tree.elements) {
        // Its door is about other records than the one that its screen shows.
        if (listOf(element) && element.screen?.binds) continue;
        const record = recordFor(draw, definition, element);
        const level = access.level(element, record);
        if (element.kind === 'chart') {
          // No more than its list could show, of fields that could be seen: of which records, is not known here.
          const { list, by, of = by } = element.node;
          const beside = [list, by, of].map((id) => access.answer(access.element(id)));
          const most = Math.min(reading.level(element, record), ...beside.map((one) => one.most));
          expect(level <= most).toBe(true);
          if (beside.every((one) => one.least === one.most))
            expect([element.id, level]).toEqual([element.id, most]);
          continue;
        }
        expect([element.kind, element.id, level]).toEqual([
          element.kind,
          element.id,
          reading.level(element, record),
        ]);
        const { least, most } = access.answer(element);
        expect(least <= level && level <= most).toBe(true);
      }
    }, 500);
  });

  it('gives nothing of data without a field for the unit by a role that is held in a unit, also where no record is known', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const [viewer, at] = [drawSomebody(draw), drawCircumstances(draw)];
      if (viewer.kind === 'signed-out') return;
      const less = { ...viewer, assignments: viewer.assignments.filter(({ unit }) => unit === undefined) };
      const compiled = compile(definition);
      const [access, without] = [viewer, less].map((one) => accessOf(compiled, one, at)) as [Access, Access];
      const [row, other] = [viewer, less].map((one) => matrixOf(compiled, [one], at));
      for (const element of compiled.tree.elements) {
        const entity = compiled.tree.recordOf(element);
        if (!['rows', 'data-field', 'list', 'column', 'field'].includes(element.kind)) continue;
        if (!entity || entity.unitField !== undefined) continue;
        const [mine, most] = [access.answer(element).most, without.answer(element).most];
        expect([element.id, mine <= most]).toEqual([element.id, true]);
        expect(unpacked(row?.[element.number] ?? 0).most).toBe(mine);
        expect(unpacked(other?.[element.number] ?? 0).most).toBe(most);
      }
    });
  });

  it('gives each of the people of a kind at least its least, and at most its most', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const compiled = compile(definition);
      const { moment, session } = drawCircumstances(draw);
      const viewer = drawViewer(draw);
      if (!isKind(viewer) || viewer.kind === 'signed-out') return;
      const kind = accessOf(compiled, viewer, { moment });
      const [one] = matrixOf(compiled, [viewer], { moment }).subarray(0, 1);
      expect(one === undefined ? undefined : unpacked(one)).toEqual(kind.answer(kind.element('app')));
      for (let n = 0; n < 5; n++) {
        const somebody = accessOf(compiled, drawOneOf(draw, viewer), { moment, ...(session && { session }) });
        for (const element of compiled.tree.elements) {
          const record = recordFor(draw, definition, element);
          const level = somebody.level(element, record);
          const on = kind.answerOn(element, record);
          expect([element.id, on.least <= level, level <= on.most]).toEqual([element.id, true, true]);
          const without = kind.answer(element);
          expect([element.id, without.least <= level, level <= without.most]).toEqual([
            element.id,
            true,
            true,
          ]);
        }
      }
    }, 150);
  });

  it('opens data to a viewer exactly where some screen shows it, when its door follows', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const access = accessOf(compile(definition), drawViewer(draw), drawCircumstances(draw));
      const { tree, handles } = access.compiled;
      for (const entity of definition.entities) {
        const record = drawRecord(draw, definition, entity);
        for (const field of entity.fields) {
          if (definition.gates[field.id] || field.neverFollows) continue;
          const shown = handles.handlesOf(access.element(field.id)).some((id) => {
            const { list, screen } = access.element(id);
            if (screen?.binds?.record === 'new' && !list) return false;
            if (list && !holds(access.doors.carried(list), record)) return false;
            // On a record's screen it depends on that record whether the list is there: then it holds nothing open.
            const around = access.outerRule(access.element(id));
            if (around && around.see !== true) return false;
            return access.level(access.element(id), record) > 0;
          });
          const door = levelOn(access.doors.field(field.id, 'existing'), record);
          expect([field.id, door > 0]).toEqual([field.id, shown]);
        }
      }
      expect(tree.elements.length).toBeGreaterThan(0);
    });
  });

  it('lets no handle be wider than its door', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const access = accessOf(compile(definition), drawViewer(draw), drawCircumstances(draw));
      for (const element of access.compiled.tree.elements) {
        const door = access.compiled.handles.doorOf(element);
        if (!door || (element.kind === 'field' && element.screen?.binds?.record === 'new')) continue;
        if (listOf(element) && element.screen?.binds) continue;
        const record = recordFor(draw, definition, element);
        const target = access.element(door.id);
        const makes = target.kind === 'screen' && target.node.binds?.record === 'new';
        const through = makes ? access.answer(target).most : levelOn(access.rule(target), record);
        const leads = door.kind === 'screen' && through > 0 ? 2 : through;
        expect(levelOn(access.rule(element), record)).toBeLessThanOrEqual(leads);
      }
    });
  });

  it('leaves nothing that only leads somewhere for reading: it is there and works, or it is not there', () => {
    everywhere((draw) => {
      const access = accessOf(compile(drawDefinition(draw)), drawViewer(draw), drawCircumstances(draw));
      for (const element of access.compiled.tree.elements) {
        if (element.kind !== 'menu-item' && !(element.kind === 'button' && element.node.effect.do === 'open'))
          continue;
        const { least, most } = access.answer(element);
        expect([element.id, least === 1 || most === 1]).toEqual([element.id, false]);
      }
    });
  });

  it.each([
    ['a block line never widens anyone', 'block', (was: number, is: number) => is <= was],
    ['a giving line never narrows anyone', 'give', (was: number, is: number) => is >= was],
    ['hiding one thing never opens another', 'hide', (was: number, is: number) => is <= was],
  ] as const)('%s', (_, what, keeps) => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const { tree } = compile(definition);
      const own = tree.elements.filter((element) => definition.gates[element.id]);
      const target = draw.one(what === 'hide' ? tree.elements : own);
      const lines = definition.gates[target.id]?.lines ?? [];
      const line = drawLine(draw, tree.recordOf(target));
      const kind =
        what === 'give' ? draw.one(['see', 'edit'] as const) : draw.one(['block', 'at-most-see'] as const);
      const after = {
        ...definition,
        gates: {
          ...definition.gates,
          [target.id]: { lines: what === 'hide' ? [] : [...lines, { ...line, what: kind }] },
        },
      };
      // A door of data that had followed is another door once it has lines: then only it and its handles count.
      const [viewer, at] = [drawViewer(draw), drawCircumstances(draw)];
      const [was, is] = [accessOf(compile(definition), viewer, at), accessOf(compile(after), viewer, at)];
      for (const element of tree.elements) {
        const record = recordFor(draw, definition, element);
        const now = is.level(is.element(element.id), record);
        expect(keeps(was.level(element, record), now)).toBe(true);
      }
    });
  });

  it('sends of a screen only what the viewer has, and values only where they are open', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const access = accessOf(compile(definition), drawViewer(draw), drawCircumstances(draw));
      const screen = draw.one(access.compiled.tree.screens());
      const entity = definition.entities.find((one) => one.id === screen.binds?.entity);
      const marked: Values = Object.fromEntries(
        (entity?.fields ?? []).map((field) => [field.id, `secret-${field.id}`]),
      );
      const record =
        screen.binds?.record === 'existing' && entity ? { id: 'k1', entity, values: marked } : undefined;
      const sent = JSON.stringify(resolve(access, screen, record) ?? null);
      for (const field of entity?.fields ?? []) {
        if (!record) expect(sent).not.toContain('secret-');
        else if (levelOn(access.doors.field(field.id, 'existing'), record) === 0)
          expect(sent).not.toContain(`secret-${field.id}`);
      }
      for (const element of access.compiled.tree.within(access.element(screen.id)).slice(1))
        if (access.answer(element).most === 0) expect(sent).not.toContain(`"id":"${element.id}"`);
    });
  });

  it('can explain every answer: a step is as low as the answer, and the deciding line speaks of the viewer', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const viewer = drawViewer(draw);
      const access = accessOf(compile(definition), viewer, drawCircumstances(draw));
      const element = draw.one(access.compiled.tree.elements);
      const record = draw.chance(50) ? recordFor(draw, definition, element) : undefined;
      const { answer, steps, decided } = explain(access, element.id, record);
      expect(answer).toEqual(record ? access.answerOn(element, record) : access.answer(element));
      // A column is for reading, so that nothing need be in the way of editing.
      if (seenOf(element.kind, answer).most < seenOf(element.kind, { least: 2, most: 2 }).most)
        expect(steps.some(({ result }) => result.most <= answer.most)).toBe(true);
      if (decided.by !== 'line') return;
      const step = steps.find((one) => one.element === decided.gate);
      expect(step?.lines).toContain(decided.line);
      if (answer.least === 2) expect(gives(decided.line)).toBe(true);
    });
  });
});

describe('what is shared between viewers who are alike', () => {
  it('tells a session value that is empty from one that is not known yet', () => {
    const when = { empty: { session: 'sv_stock' } };
    const definition: Definition = {
      ...LARKFIELD,
      gates: {
        ...LARKFIELD.gates,
        s_stores: { lines: [{ id: 'x', who: { kind: 'everyone' }, what: 'edit', when }] },
      },
    };
    const compiled = compile(definition);
    const answer = (session?: Values) => {
      const access = accessOf(
        compiled,
        { kind: 'signed-in', assignments: [] },
        { moment: 0, ...(session && { session }) },
      );
      return access.answer(access.element('s_stores'));
    };
    const unknown = { least: 0, most: 2 };
    expect([answer(), answer({ sv_stock: null }), answer()]).toEqual([
      unknown,
      { least: 2, most: 2 },
      unknown,
    ]);
  });
});

describe('the document', () => {
  it('is read back as it was, and random ones are sound', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      expect(findFaults(definition)).toEqual([]);
      const read = readDefinition(JSON.parse(JSON.stringify(definition)));
      expect(read.ok ? read.value : read.problems).toEqual(definition);
    });
  });
});
