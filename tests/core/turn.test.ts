import { accessOf } from '@/core/access/deciding/access';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '@/core/access/deciding/compile';
import { viewerOfRole, type Viewer } from '@/core/access/deciding/viewer';
import { newLine } from '@/core/edit/edits/make';
import { levelReaderFor } from '@/core/edit/proposing/aim';
import { startLines } from '@/core/edit/proposing/start';
import { smallestChange } from '@/core/edit/proposing/smallest-change';
import type { Definition } from '@/core/model/definition';
import { gives, type Line, type What, type Who } from '@/core/model/gate';
import type { Values } from '@/core/model/value-type';
import { LARKFIELD } from '@/demo/definition';
import { withIncluded } from '@/core/model/tree';
import { Draw, drawCircumstances, drawDefinition, drawViewer } from './arbitrary';
import { found, runs } from '../runs';

/** The ways in which a line can speak of the viewer by what they hold. */
function namesOf(definition: Definition, viewer: Viewer): Who[] {
  if (viewer.kind === 'signed-out') return [{ kind: 'signed-out' }];
  const assigned = [...new Set(viewer.assignments.map(({ role }) => role))];
  const names: Who[] = [
    ...[...withIncluded(definition, assigned)].map((role): Who => ({ kind: 'role', role })),
    ...assigned.map((role): Who => ({ kind: 'role', role, exactly: true })),
  ];
  return names.length > 0 ? names : [{ kind: 'signed-in' }];
}

/** All gates that are one line away: a line more, less, or another one in its place. */
function* oneLineAway(definition: Definition, viewer: Viewer): Generator<Definition> {
  for (const { id } of compile(definition).tree.elements) {
    const before = compile(definition).lines(id) ?? startLines(definition, id);
    const lists: (readonly Line[])[] = [];
    for (const what of ['see', 'edit', 'block', 'at-most-see'] as const) {
      for (const who of namesOf(definition, viewer)) lists.push([...before, newLine(who, what)]);
      for (const line of before)
        if (gives(line)) lists.push(before.map((one) => (one === line ? { ...line, what } : one)));
    }
    for (const line of before) {
      lists.push(before.filter((one) => one !== line));
      const { when: _, ...always } = line;
      if (line.when) lists.push(before.map((one) => (one === line ? always : one)));
    }
    for (const lines of lists) yield { ...definition, gates: { ...definition.gates, [id]: { lines } } };
  }
}

const says = ({ who, what, when }: Line): string => JSON.stringify([who, what, when]);

/** How many lines are more, less or changed, at all gates together. */
function linesApart(definition: Definition, after: Definition): number {
  const missing = (some: readonly Line[], others: readonly Line[]): number => {
    const left = others.map(says);
    return some.filter((one) => {
      const place = left.indexOf(says(one));
      if (place >= 0) left.splice(place, 1);
      return place < 0;
    }).length;
  };
  return Object.keys(after.gates)
    .filter((id) => definition.gates[id] !== after.gates[id])
    .map((id) => {
      const before = compile(definition).lines(id) ?? startLines(definition, id);
      const lines = after.gates[id]?.lines ?? [];
      return Math.max(missing(before, lines), missing(lines, before));
    })
    .reduce((sum, apart) => sum + apart, 0);
}

describe('the smallest change', () => {
  it('is one line wherever one line is enough', () => {
    let alone = 0;
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const definition = drawDefinition(draw);
        const at = drawCircumstances(draw);
        const viewer = drawViewer(draw);
        const { id: element } = draw.one(compile(definition).tree.elements);
        const level = draw.one([0, 1, 2] as const);
        const now = accessOf(compile(definition), viewer, at);
        const aim = levelReaderFor(now, now.element(element), level);
        const levelIn = (one: Definition): number => {
          const access = accessOf(compile(one), viewer, at);
          return aim(access, access.element(element));
        };
        if (levelIn(definition) === level) return;
        const oneIsEnough = [...oneLineAway(definition, viewer)].some((one) => levelIn(one) === level);
        if (!oneIsEnough) return;
        alone++;
        const turn = smallestChange(definition, { element, viewer, level, at, naming: 'roles' }, []);
        expect([element, level, turn && linesApart(definition, turn.definition)]).toEqual([
          element,
          level,
          1,
        ]);
      }),
      { numRuns: runs(200), endOnFailure: true },
    );
    expect(alone).toBeGreaterThan(found(10));
  });

  it('gives no more than it takes: see, for an action that sets nothing', () => {
    const given = (sets: Values): (What | undefined)[] => {
      const entities = LARKFIELD.entities.map((entity) => ({
        ...entity,
        actions: entity.actions.map((one) => (one.id === 'a_loan_courier' ? { ...one, sets } : one)),
      })) as Definition['entities'];
      const wanted = {
        element: 'b_courier',
        viewer: viewerOfRole('auditor'),
        level: 2,
        at: { moment: Date.UTC(2026, 10, 25, 12) },
        naming: 'roles',
      } as const;
      const turn = smallestChange({ ...LARKFIELD, entities }, wanted, []);
      const lines = turn?.definition.gates['b_courier']?.lines ?? [];
      return lines.filter(({ who }) => who.kind === 'role' && who.role === 'auditor').map(({ what }) => what);
    };
    expect(given({})).toEqual(['see']);
    expect(given({ loan_courier: 'Carrow & Dale' })).toEqual(['edit']);
  });
});
