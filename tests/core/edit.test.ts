import { accessOf } from '@/core/access/deciding/access';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '@/core/access/deciding/compile';
import { levelOn } from '@/core/access/deciding/rule';
import { viewerOfRole } from '@/core/access/deciding/viewer';
import { levelReaderFor } from '@/core/edit/proposing/aim';
import { applyEdit } from '@/core/edit/edits/apply';
import { sameJson } from '@/core/model/same-json';
import { difference } from '@/core/edit/comparing/difference';
import { inverseOf, type Edit } from '@/core/edit/edits/edit';
import { undoStateOf, type LogEntry } from '@/core/edit/edits/history';
import { addScreen, editLines, newLine } from '@/core/edit/edits/make';
import { proposeLevel } from '@/core/edit/proposing/propose';
import { startLines } from '@/core/edit/proposing/start';
import type { Definition, Role } from '@/core/model/definition';
import type { Line } from '@/core/model/gate';
import {
  Draw,
  drawCircumstances,
  drawDefinition,
  drawLine,
  drawRecord,
  drawSomebody,
  drawViewer,
} from './arbitrary';
import { LARKFIELD } from '@/demo/definition';
import { runs } from '../runs';

function everywhere(check: (draw: Draw) => void, numRuns = 250): void {
  fc.assert(
    fc.property(fc.gen(), (value) => check(new Draw(value))),
    { numRuns: runs(numRuns), endOnFailure: true },
  );
}

/** A random edit of any kind that the definition is ready for. */
function drawEdit(draw: Draw, definition: Definition): Edit {
  const element = draw.one(compile(definition).tree.elements);
  const lines = definition.gates[element.id]?.lines;
  const [line] = lines ?? [];
  const role = definition.roles[0];
  const edits: Edit[] = [
    editLines(
      element.id,
      lines,
      draw.many(3, () => drawLine(draw)),
    ),
    addScreen(
      { ...definition, newScreens: draw.one(['nobody', 'signed-in', 'everyone']) },
      draw.one(['a1', 'a2']),
      {
        id: draw.id('new'),
        name: 'New',
        address: draw.id('new'),
        sections: [],
      },
    ),
  ];
  if (lines && element.id !== 'app') edits.push({ do: 'follow', gate: element.id, lines });
  if (line) edits.push({ do: 'changeLine', gate: element.id, from: line, to: { ...line, what: 'block' } });
  if (role) edits.push({ do: 'changeItem', list: 'roles', from: role, to: { ...role, name: 'Another' } });
  return draw.chance(30) ? { do: 'together', edits: draw.some(edits, 40).slice(0, 1) } : draw.one(edits);
}

/** The same gates, whatever the order in which they were made. */
const plain = (definition: Definition): unknown => JSON.parse(JSON.stringify(definition));

describe('edits', () => {
  it('an edit, then its inverse, is the identity', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const edit = drawEdit(draw, definition);
      const made = applyEdit(definition, edit);
      if (!made.ok) throw new Error(JSON.stringify(made.problems));
      const back = applyEdit(made.value, inverseOf(edit));
      expect(back.ok && plain(back.value)).toEqual(plain(definition));
      expect(inverseOf(inverseOf(edit))).toEqual(edit);
      expect(difference(definition, made.value).length > 0).toBe(!sameJson(definition, made.value));
    });
  });

  it("never lose a block line under another builder's edit", () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const gate = draw.one(Object.keys(definition.gates));
      const lines = definition.gates[gate]?.lines ?? [];
      const block: Line = { id: 'theblock', who: { kind: 'everyone' }, what: 'block' };
      const theirs = applyEdit(definition, { do: 'addLine', gate, line: block, at: draw.upTo(lines.length) });
      const mine = drawEdit(draw, definition);
      const both = theirs.ok ? applyEdit(theirs.value, mine) : theirs;
      if (both.ok) expect(both.value.gates[gate]?.lines).toContainEqual(block);
      else expect(both.problems[0]?.code).toBe('changed-meanwhile');
    });
  });

  it('refuses roles that include each other in a loop, and names the loop', () => {
    const role = (id: string, ...includes: string[]): Role => ({
      id,
      name: `Role ${id}`,
      includes,
      privileges: [],
    });
    const base = drawOnce();
    const definition = { ...base, roles: [role('r1'), role('r2', 'r1'), role('r3', 'r2')] };
    const made = applyEdit(definition, {
      do: 'changeItem',
      list: 'roles',
      from: role('r1'),
      to: role('r1', 'r3'),
    });
    expect(made).toMatchObject({ ok: false, problems: [{ code: 'role-loop' }] });
    expect(made.ok || made.problems[0]?.message).toContain('Role r1 → Role r3 → Role r2 → Role r1');
  });

  it('starts lines that change nothing yet: nobody’s level of anything, on any stored record', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const { tree } = compile(definition);
      const followers = tree.elements.filter((one) => !definition.gates[one.id]);
      const doors = followers.filter((one) => ['rows', 'action', 'data-field'].includes(one.kind));
      if (followers.length === 0) return;
      const element = draw.one(doors.length > 0 && draw.chance(80) ? doors : followers);
      const made = applyEdit(
        definition,
        editLines(element.id, undefined, startLines(definition, element.id)),
      );
      if (!made.ok) throw new Error(JSON.stringify(made.problems));
      const is = compile(made.value);
      for (let n = 0; n < 3; n++) {
        const [viewer, at] = [drawSomebody(draw), drawCircumstances(draw)];
        const [before, after] = [accessOf(compile(definition), viewer, at), accessOf(is, viewer, at)];
        for (const entity of definition.entities) {
          const record = drawRecord(draw, definition, entity);
          for (const one of is.tree.elements) {
            // Lines of data count for what is being made too: whom that changes is told before.
            if (one.screen?.binds?.record === 'new' || (one.kind === 'action' && one.node.kind === 'create'))
              continue;
            const [was = 0, now] = [before, after].map((access) =>
              levelOn(access.rule(access.element(one.id)), record),
            );
            // Rows that follow are open or not; with lines they are within the application's gate, as all else is.
            const most =
              one.kind === 'rows' && one.id === element.id
                ? levelOn(after.gateRule(is.tree.root), record)
                : 2;
            expect([element.id, one.id, now]).toEqual([element.id, one.id, Math.min(was, most)]);
          }
        }
      }
    }, 200);
  });

  it('proposes for a level the edit that reaches it, and names all whom else it changes', () => {
    everywhere((draw) => {
      const definition = drawDefinition(draw);
      const element = draw.one(compile(definition).tree.elements);
      const roles = definition.roles.map((role) => ({ key: role.id, viewer: viewerOfRole(role.id) }));
      const viewer = { key: 'me', viewer: drawViewer(draw) };
      const level = draw.one([0, 1, 2] as const);
      const at = drawCircumstances(draw);
      const start = [newLine({ kind: 'everyone' }, 'edit')];
      const proposal = proposeLevel(definition, {
        element: element.id,
        gate: element.id,
        viewer,
        level,
        others: roles,
        start,
        at,
      });
      if (!proposal) return;
      const made = applyEdit(definition, proposal.edit);
      if (!made.ok) throw new Error(JSON.stringify(made.problems));
      const [was, is] = [compile(definition), compile(made.value)];
      const access = accessOf(is, viewer.viewer, at);
      const subject = access.element(element.id);
      expect(levelReaderFor(accessOf(was, viewer.viewer, at), element, level)(access, subject)).toBe(level);
      for (const { key, viewer: other } of roles) {
        const before = accessOf(was, other, at).answer(element);
        const after = accessOf(is, other, at).answer(accessOf(is, other, at).element(element.id));
        if (!proposal.others.includes(key)) expect(after).toEqual(before);
      }
    }, 150);
  });

  it('closes for a role by narrowing what gives, and by a block where nothing else does it, which is told', () => {
    const at = { moment: Date.UTC(2026, 2, 14) };
    const kinds = LARKFIELD.roles.map(({ id }) => ({ key: id, viewer: viewerOfRole(id) }));
    const closed = (who: Line['who'], id: string) => {
      const line: Line = { id: 'l', who, what: 'see' };
      const definition = { ...LARKFIELD, gates: { ...LARKFIELD.gates, s_stores: { lines: [line] } } };
      const [viewer, others] = [kinds.find(({ key }) => key === id), kinds.filter(({ key }) => key !== id)];
      if (!viewer) throw new Error('The demo has no such role');
      const wanted = {
        element: 's_stores',
        gate: 's_stores',
        viewer,
        level: 0,
        others,
        start: [],
        at,
      } as const;
      const proposal = proposeLevel(definition, wanted);
      return {
        ...proposal,
        lines: proposal?.definition.gates['s_stores']?.lines.map(({ who: whom, what }) => ({
          ...whom,
          what,
        })),
      };
    };
    const above = closed({ kind: 'role', role: 'volunteer' }, 'volunteer');
    expect(above).toMatchObject({ others: [], blocks: [] });
    expect(above.lines).not.toContainEqual(expect.objectContaining({ what: 'block' }));
    const middle = closed({ kind: 'role', role: 'volunteer' }, 'registrar');
    expect(middle).toMatchObject({ others: [], blocks: [] });
    expect(middle.lines).toContainEqual({ kind: 'role', role: 'volunteer', exactly: true, what: 'see' });
    expect(middle.lines).toContainEqual({ kind: 'role', role: 'head', what: 'see' });
    // Who is signed in is given it: only a block tells one role from the others.
    const all = closed({ kind: 'signed-in' }, 'registrar');
    expect(all).toMatchObject({
      others: [],
      blocks: [{ what: 'block', who: { role: 'registrar', exactly: true } }],
    });
  });

  it('undo takes back the last own edit that stands, redo the last taken back', () => {
    const log = (...entries: Partial<LogEntry>[]): LogEntry[] =>
      entries.map((one, i) => ({ revision: i + 1, ...one }));
    expect(undoStateOf([])).toEqual({});
    expect(undoStateOf(log({}, {}))).toEqual({ undo: 2 });
    expect(undoStateOf(log({}, {}, { undoes: 2 }))).toEqual({ undo: 1, redo: 2 });
    expect(undoStateOf(log({}, {}, { undoes: 2 }, { undoes: 1 }))).toEqual({ redo: 1 });
    expect(undoStateOf(log({}, {}, { undoes: 2 }, { undoes: 1 }, { redoes: 1 }))).toEqual({
      undo: 1,
      redo: 2,
    });
    expect(undoStateOf(log({}, { undoes: 1 }, {}))).toEqual({ undo: 3 });
  });
});

function drawOnce(): Definition {
  const [definition] = fc.sample(
    fc.gen().map((value) => drawDefinition(new Draw(value))),
    1,
  );
  return definition as Definition;
}
