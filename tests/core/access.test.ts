import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '@/core/access/compile';
import { explain } from '@/core/access/explain';
import { resolve } from '@/core/access/resolve';
import { answerOf, levelOn } from '@/core/access/rule';
import { findFaults } from '@/core/model/faults';
import { gives } from '@/core/model/gate';
import { readDefinition } from '@/core/model/schema';
import type { Element } from '@/core/model/tree';
import type { Entity } from '@/core/model/definition';
import type { Values } from '@/core/model/value';
import { Draw, drawDefinition, drawLine, drawValues, drawViewer } from './arbitrary';
import { PlainReading } from './plain-reading';

/** Runs `check` on random definitions, viewers and records. */
function everywhere(check: (draw: Draw) => void, numRuns = 500): void {
  fc.assert(
    fc.property(fc.gen(), (value) => check(new Draw(value))),
    { numRuns },
  );
}

/** The entity whose record an element is decided on: the row's, else the screen's; for doors, its own. */
function entityAbout(element: Element, entities: readonly Entity[]): Entity {
  const byId = (id: string | undefined): Entity | undefined => entities.find((one) => one.id === id);
  const has = (one: Entity): boolean =>
    [one, ...one.fields, ...one.actions].some(({ id }) => id === element.id);
  const inList = element.list?.entity ?? (element.kind === 'list' ? element.node.entity : undefined);
  return byId(inList) ?? byId(element.screen?.binds?.entity) ?? entities.find(has) ?? (entities[0] as Entity);
}

describe('compiled access', () => {
  it('equals the plain reading of the design, element by element and record by record', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const viewer = drawViewer(draw);
      const access = compile(definition).access(viewer);
      const reading = new PlainReading(definition, viewer);
      for (const element of access.compiled.tree.elements) {
        const values = drawValues(draw, entityAbout(element, definition.entities));
        const level = levelOn(access.rule(element), values);
        expect([element.kind, element.id, level]).toEqual([
          element.kind,
          element.id,
          reading.level(element, values),
        ]);
        expect(access.level(element, values)).toBe(level);
        const { least, most } = access.answer(element);
        expect(least <= level && level <= most).toBe(true);
      }
    }, 2000);
  });

  it('opens data to a viewer exactly where some screen shows it, when its door follows', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const access = compile(definition).access(drawViewer(draw));
      const { tree, handles } = access.compiled;
      for (const entity of definition.entities) {
        const values = drawValues(draw, entity);
        for (const field of entity.fields) {
          if (definition.gates[field.id] || field.neverFollows) continue;
          const shown = handles.handlesOf(access.element(field.id)).some((id) => {
            const { list, screen } = access.element(id);
            if (screen?.binds?.record === 'new' && !list) return false;
            if (list?.filter && values[list.filter.field] !== list.filter.equals) return false;
            return access.level(access.element(id), values) > 0;
          });
          const door = levelOn(access.doors.field(field.id, 'existing'), values);
          expect([field.id, door > 0]).toEqual([field.id, shown]);
        }
      }
      expect(tree.elements.length).toBeGreaterThan(0);
    });
  });

  it('lets no handle be wider than its door', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const access = compile(definition).access(drawViewer(draw));
      for (const element of access.compiled.tree.elements) {
        const door = access.compiled.handles.doorOf(element);
        if (!door || (element.kind === 'field' && element.screen?.binds?.record === 'new')) continue;
        const values = drawValues(draw, entityAbout(element, definition.entities));
        const through = levelOn(access.rule(access.element(door.id)), values);
        const leads = door.kind === 'screen' && through > 0 ? 2 : through;
        expect(levelOn(access.rule(element), values)).toBeLessThanOrEqual(leads);
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
      const line = drawLine(draw);
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
      const viewer = drawViewer(draw);
      const [was, is] = [compile(definition).access(viewer), compile(after).access(viewer)];
      for (const element of tree.elements) {
        const values = drawValues(draw, entityAbout(element, definition.entities));
        const now = levelOn(is.rule(is.element(element.id)), values);
        expect(keeps(levelOn(was.rule(element), values), now)).toBe(true);
      }
    });
  });

  it('sends of a screen only what the viewer has, and values only where they are open', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const access = compile(definition).access(drawViewer(draw));
      const screen = draw.one(access.compiled.tree.screens());
      const entity = definition.entities.find((one) => one.id === screen.binds?.entity);
      const marked: Values = Object.fromEntries(
        (entity?.fields ?? []).map((field) => [field.id, `secret-${field.id}`]),
      );
      const context = screen.binds?.record === 'existing' ? { record: { id: 'k1', values: marked } } : {};
      const sent = JSON.stringify(resolve(access, screen, context) ?? null);
      for (const field of entity?.fields ?? []) {
        if (!context.record) expect(sent).not.toContain('secret-');
        else if (levelOn(access.doors.field(field.id, 'existing'), marked) === 0)
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
      const access = compile(definition).access(viewer);
      const element = draw.one(access.compiled.tree.elements);
      const values = draw.chance(50)
        ? drawValues(draw, entityAbout(element, definition.entities))
        : undefined;
      const { answer, steps, decided } = explain(definition, viewer, element.id, values);
      const level = values && levelOn(access.rule(element), values);
      expect(answer).toEqual(values ? { least: level, most: level } : answerOf(access.rule(element)));
      if (decided.by !== 'line') return;
      const step = steps.find((one) => one.element === decided.gate);
      expect(step?.lines).toContain(decided.line);
      if (answer.most === 2) expect(gives(decided.line)).toBe(true);
    });
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
