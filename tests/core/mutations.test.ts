import { accessOf } from '@/core/access/deciding/access';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compile } from '@/core/access/deciding/compile';
import { explain } from '@/core/access/questions/explain';
import { landingOf } from '@/core/access/sent/landing';
import { matrixOf } from '@/core/access/questions/cells';
import { frameAround } from '@/core/access/sent/frame';
import { resolve, resolveRow } from '@/core/access/sent/resolve';
import { SIGNED_OUT, viewerOfGroup, viewerOfRole, type Viewer } from '@/core/access/deciding/viewer';
import { applyEdit } from '@/core/edit/edits/apply';
import type { Edit } from '@/core/edit/edits/edit';
import { editSchema } from '@/core/edit/edits/schema';
import type { Definition } from '@/core/model/definition';
import { readDefinition } from '@/core/model/schema';
import { shapeFaults } from '@/core/model/shape';
import { findDanglingReferences } from '@/core/model/dangling-references';
import { LARKFIELD } from '@/demo/definition';
import { Draw, drawDefinition, drawRecord } from './arbitrary';
import { found, runs } from '../runs';

type Json = string | number | boolean | null | Json[] | { [key: string]: Json };
type Holder = Json[] | { [key: string]: Json };

const isHolder = (json: Json | undefined): json is Holder => typeof json === 'object' && json !== null;

/** Every place in a document: what holds it, and under which key. It may be nested deeper than calls can be. */
function placesIn(json: Json): { readonly holder: Holder; readonly key: string }[] {
  const found: { readonly holder: Holder; readonly key: string }[] = [];
  const waiting: Json[] = [json];
  for (let holder = waiting.pop(); holder !== undefined; holder = waiting.pop()) {
    if (!isHolder(holder)) continue;
    for (const key of Object.keys(holder)) {
      found.push({ holder, key });
      waiting.push((holder as Record<string, Json>)[key] as Json);
    }
  }
  return found;
}

const ODD: readonly Json[] = [
  null,
  0,
  -1,
  1.5,
  1e300,
  true,
  false,
  '',
  ' ',
  'x',
  '\0',
  '\ud800',
  'constructor',
  '__proto__',
  [],
  [[]],
  {},
  [{}],
  { id: 'x' },
  { kind: 'role' },
  { all: [] },
  'x'.repeat(100_000),
];

/** The document with one thing in it wrong: dropped, of another type, there twice, somewhere else, or too deep. */
function mutate(draw: Draw, definition: Definition): Json {
  const json = JSON.parse(JSON.stringify(definition)) as Json;
  for (let n = 0; n <= draw.upTo(1); n++) {
    const places = placesIn(json);
    const { holder, key } = draw.one(places);
    const at = holder as Record<string, Json>;
    const value = at[key] as Json;
    switch (draw.upTo(6)) {
      case 0:
        if (Array.isArray(holder)) holder.splice(Number(key), 1);
        else Reflect.deleteProperty(at, key);
        break;
      case 1:
      case 2:
        // Its own copy: what is wrong in one document is not in the next.
        at[key] = structuredClone(draw.one(ODD));
        break;
      case 3:
        if (Array.isArray(holder)) holder.push(structuredClone(value));
        else at[draw.one(['x', 'id', 'constructor', 'when', 'kind'])] = structuredClone(value);
        break;
      case 4: {
        const other = draw.one(places);
        at[key] = structuredClone((other.holder as Record<string, Json>)[other.key] as Json);
        break;
      }
      case 5: {
        let deep: Json = value;
        const by = draw.one(['not', 'all', 'units', 'items', '']);
        for (let depth = 0; depth < draw.one([1, 30, 400]); depth++)
          deep = by === 'not' ? { not: deep } : by === '' ? [deep] : { [by]: [deep] };
        at[key] = deep;
        break;
      }
      default:
        if (isHolder(value))
          for (const inner of Object.keys(value).slice(0, 1)) Reflect.deleteProperty(value, inner);
    }
  }
  return json;
}

/** All that is done with a definition once it is believed. Throws nothing, whoever looks. */
function use(definition: Definition, draw: Draw): void {
  const compiled = compile(definition);
  const viewers: Viewer[] = [
    SIGNED_OUT,
    { kind: 'signed-in', assignments: [] },
    ...definition.roles.slice(0, 3).map((role) => viewerOfRole(role.id)),
    ...definition.groups.slice(0, 1).map((group) => viewerOfGroup(group.id)),
  ];
  const at = { moment: 1_790_000_000_000 };
  matrixOf(compiled, viewers, at);
  const records = definition.entities.map((entity) => drawRecord(draw, definition, entity));
  for (const viewer of viewers) {
    const access = accessOf(compiled, viewer, at);
    landingOf(access);
    for (const screen of compiled.tree.screens()) {
      const record = records.find((one) => one.entity.id === screen.binds?.entity);
      frameAround(access, screen);
      resolve(access, screen, screen.binds?.record === 'existing' ? record : undefined);
    }
    for (const element of compiled.tree.elements) {
      explain(access, element.id);
      const about = compiled.tree.recordOf(element);
      const record = records.find((one) => one.entity.id === about?.id);
      if (!record) continue;
      explain(access, element.id, record);
      if (element.kind === 'list') resolveRow(access, element.node, record);
    }
  }
  findDanglingReferences(definition, new Set());
}

describe('a document that is not whole', () => {
  it.each([
    ['the demo', () => LARKFIELD, 400],
    ['random ones', drawDefinition, 1000],
  ] as const)('is refused with a place, or compiles, resolves and explains: %s', (_, of, numRuns) => {
    let [refused, used] = [0, 0];
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const read = readDefinition(mutate(draw, of(draw)));
        if (read.ok) {
          use(read.value, draw);
          used++;
          return;
        }
        refused++;
        expect(read.problems.length).toBeGreaterThan(0);
        const places = read.problems.filter(({ code }) => code === 'shape').map(({ place }) => place);
        expect(new Set(places).size).toBe(places.length);
        expect(places.length).toBeLessThanOrEqual(20);
        for (const { place, message, mend } of read.problems) {
          expect([place, message, mend].every((words) => words.length > 0)).toBe(true);
          // Words of ours, not of the library that looks.
          expect(message).not.toMatch(/final value|`|NaN|undefined/);
        }
      }),
      { numRuns: runs(numRuns), endOnFailure: true },
    );
    expect(Math.min(refused, used)).toBeGreaterThan(found(numRuns / 20));
  });

  it('is no result of an edit either, whatever the edit holds', () => {
    let made = 0;
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const edit = mutate(draw, drawSoundEdit(draw) as unknown as Definition);
        if (shapeFaults(editSchema, edit, { values: 50_000 }).length > 0) return;
        const done = applyEdit(LARKFIELD, edit as unknown as Edit);
        if (!done.ok) return;
        const read = readDefinition(done.value);
        expect(read.ok ? [] : read.problems).toEqual([]);
        made++;
      }),
      { numRuns: runs(2000), endOnFailure: true },
    );
    expect(made).toBeGreaterThan(found(50));
  });
});

function drawSoundEdit(draw: Draw): Edit {
  const [gate, { lines } = { lines: [] }] = draw.one(Object.entries(LARKFIELD.gates));
  const role = draw.one(LARKFIELD.roles);
  const [area] = LARKFIELD.areas as readonly [(typeof LARKFIELD.areas)[0] & object];
  const screen = area.screens[0] as (typeof area.screens)[0];
  const line = { id: 'l_new', who: { kind: 'role', role: role.id }, what: 'see' } as const;
  return draw.one<Edit>([
    { do: 'addLine', gate, line, at: 0 },
    { do: 'follow', gate, lines },
    { do: 'changeItem', list: 'roles', from: role, to: { ...role, name: 'Other' } },
    { do: 'addItem', list: 'roles', at: 0, item: { ...role, id: 'r_new' } },
    { do: 'changeSettings', from: { name: LARKFIELD.name }, to: { name: 'Other' } },
    { do: 'changeElement', id: screen.id, from: { name: screen.name }, to: { name: 'Other' } },
    {
      do: 'moveElement',
      id: screen.id,
      from: { in: area.id, list: 'screens', at: 0 },
      to: { in: 'area_items', list: 'screens', at: 1 },
    },
    {
      do: 'addElement',
      into: { in: area.id, list: 'screens' },
      at: 0,
      node: { id: 's_new', name: 'New', address: 'new-one', sections: [] },
      gates: { s_new: { lines: [line] } },
      closed: {},
    },
    { do: 'together', edits: [{ do: 'addLine', gate, line, at: 0 }] },
  ]);
}
