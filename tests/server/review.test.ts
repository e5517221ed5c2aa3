import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { accessOf, applyEdit, compile, difference, findInvalidState, viewerOfPerson } from '@/core';
import {
  type Access,
  type Answer,
  type Circumstances,
  type KnownRecord,
  sameAnswer,
  SIGNED_OUT,
} from '@/core/access';
import type { Condition } from '@/core/condition';
import { changeInWords, type Direction, directionOf, type Edit, type Following, fullName } from '@/core/edit';
import { type Definition, isDataDoor, type Line, newId, ordered, type What, type Who } from '@/core/model';
import { LARKFIELD } from '@/demo/definition';
import { demoRecords } from '@/demo/records';
import { database } from '@/server/database/client';
import { applications } from '@/server/database/schema';
import { change, draftOf } from '@/server/drafts/draft';
import { review } from '@/server/releasing/review';
import { Refused } from '@/server/http/problem';
import { peopleOf } from '@/server/people/read';
import { Draw } from '../core/arbitrary';
import { application, dropApplications, emptyDatabase, underNewId } from './setting';
import { person } from './visits';

const EDITS = 40;
const STOCK: Condition = { compare: '=', left: { session: 'sv_stock' }, right: { value: true } };
/** A Wednesday evening, for the review as well; the desk is open at noon. */
const NOW: Circumstances = { moment: Date.UTC(2026, 10, 25, 19) };
const NOON: Circumstances = { moment: Date.UTC(2026, 10, 25, 12) };
const TIMES: readonly Circumstances[] = [
  NOW,
  { ...NOW, session: { sv_stock: true } },
  NOON,
  { ...NOW, whenever: true },
];

beforeAll(async () => {
  vi.useFakeTimers({ toFake: ['Date'], now: NOW.moment });
  await emptyDatabase();
});
afterAll(async () => {
  vi.useRealTimers();
  await dropApplications();
});

/** Some edit that a builder could make next. It may be refused. */
function drawEdit(draw: Draw, definition: Definition): Edit {
  const { roles, groups, gates } = definition;
  const who = (): Who =>
    draw.one<() => Who>([
      () => ({ kind: 'everyone' }),
      () => ({ kind: 'signed-in' }),
      () => ({ kind: 'role', role: draw.one(roles).id, ...(draw.chance(40) && { exactly: true }) }),
      () => ({ kind: 'group', group: draw.one(groups).id }),
    ])();
  const what = (): What => draw.one(['see', 'edit', 'block', 'at-most-see']);
  const line = (): Line => ({
    id: newId(),
    who: who(),
    what: what(),
    ...(draw.chance(35) && { when: draw.one<Condition>([{ hasRole: draw.one(roles).id }, STOCK]) }),
  });
  const { elements } = compile(definition).tree;
  const gate = draw.one(Object.keys(gates).filter((id) => (gates[id]?.lines ?? []).length > 0));
  const lines = gates[gate]?.lines ?? [];
  const role = draw.one(roles);
  switch (draw.upTo(8)) {
    case 0:
    case 1:
      return { do: 'addLine', gate, line: line(), at: 0 };
    case 2:
      return { do: 'removeLine', gate, line: draw.one(lines), at: 0 };
    case 3:
      return { do: 'changeLine', gate, from: draw.one(lines), to: { ...draw.one(lines), what: what() } };
    case 4:
      return { do: 'startLines', gate: draw.one(elements).id, lines: [line(), line()] };
    case 5:
      return { do: 'follow', gate, lines };
    case 6: {
      const to = { ...role, privileges: draw.some(role.privileges), includes: [draw.one(roles).id] };
      return { do: 'changeItem', list: 'roles', from: role, to };
    }
    case 7: {
      const from = roles.indexOf(role);
      return { do: 'moveItem', list: 'roles', id: role.id, from, to: draw.upTo(roles.length - 1) };
    }
    default:
      return {
        do: 'changeClosed',
        element: draw.one(elements).id,
        to: { show: 'locked' },
      };
  }
}

/** The definition after so many edits, of those that are not refused. */
function afterEdits(draw: Draw, definition: Definition): { after: Definition; edits: Edit[] } {
  const edits: Edit[] = [];
  let after = definition;
  for (let tries = 0; edits.length < EDITS && tries < 20 * EDITS; tries++) {
    const edit = drawEdit(draw, after);
    const made = applyEdit(after, edit);
    if (!made.ok || findInvalidState(made.value, { screens: false }).length > 0) continue;
    after = made.value;
    edits.push(edit);
  }
  return { after, edits };
}

/** Makes the edit, also where somebody is let in by it. */
async function store(id: string, builder: string, edit: Edit): Promise<void> {
  const { revision } = await draftOf(id);
  try {
    await change(id, builder, revision, { edit });
  } catch (error) {
    const code = error instanceof Refused ? error.more.members?.['code'] : undefined;
    if (typeof code !== 'string') throw error;
    await change(id, builder, revision, { edit }, { confirmed: code });
  }
}

/** Sample records of each entity, and what they point to. */
function someRecords(definition: Definition): KnownRecord[] {
  const all = demoRecords(3, { items: 12, loans: 8, reports: 8 });
  const lookUp = (entity: string, id: string) =>
    all.find((one) => one.entity === entity && one.id === id)?.values;
  return all.flatMap(({ entity, id, values }) => {
    const of = definition.entities.find((one) => one.id === entity);
    return of ? [{ id, entity: of, values, lookUp }] : [];
  });
}

describe('the review of a release', () => {
  it('tells every difference, and everybody whose access differs, and nobody else', async () => {
    await fc.assert(
      fc.asyncProperty(fc.gen(), async (value) => {
        const before = underNewId(LARKFIELD);
        const { ada } = await application(before);
        for (const { id } of before.roles) await person(before.id, `${id}@x.example`, [{ role: id }]);
        await person(before.id, 'two@x.example', [
          { role: 'lender' },
          { role: 'curator', unit: 'main-hall' },
        ]);
        const { after, edits } = afterEdits(new Draw(value), before);
        for (const edit of edits) await store(before.id, ada, edit);
        expect(ordered((await draftOf(before.id)).definition)).toEqual(ordered(after));

        const found = await review(before.id);
        const told = found.changes.flatMap(({ done }) => done);
        for (const one of difference(before, after)) {
          const { done } = changeInWords(one, before, after, () => undefined);
          expect(done.length).toBeGreaterThan(0);
        }
        expect(told.length).toBeGreaterThanOrEqual(difference(before, after).length);

        const [old, now] = [compile(before), compile(after)];
        const named = new Map<string, Set<string>>();
        const surely: (readonly [place: string, names: readonly string[]])[] = [];
        const name = (place: string, names: readonly string[], direction: Direction): void => {
          const known = named.get(place) ?? new Set();
          for (const one of names) known.add(one);
          named.set(place, known);
          if (direction !== 'other') surely.push([place, names]);
        };
        const nameAll = (following: readonly Following[]): void => {
          for (const { elements, names, direction } of following)
            for (const place of elements) name(place, names, direction);
        };
        for (const { effect, following } of found.changes) {
          for (const { before: was, after: is, names } of effect?.moved ?? [])
            name(effect?.name ?? '', names, directionOf({ before: was, after: is }));
          nameAll(following);
        }
        nameAll(found.following);

        const records = someRecords(after);
        const affected = [
          { who: 'Signed out', viewer: SIGNED_OUT },
          ...(await peopleOf(before.id)).map((one) => ({ who: one.name, viewer: viewerOfPerson(one) })),
        ];
        // What differs now, while taking stock or at noon, must be told; what may differ at some time, can be.
        const [differing, perhaps] = [new Map<string, Set<string>>(), new Map<string, Set<string>>()];
        for (const { who, viewer, at } of affected.flatMap((one) => TIMES.map((at) => ({ ...one, at })))) {
          const [was, is] = [accessOf(old, viewer, at), accessOf(now, viewer, at)];
          for (const element of now.tree.elements) {
            const then = old.tree.get(element.id);
            if (!then) continue;
            const about = isDataDoor(element) ? now.tree.entityOf(element.id) : now.tree.recordOf(element);
            const differs = (record?: KnownRecord): boolean =>
              !sameAnswer(answerOn(was, element.id, record), answerOn(is, element.id, record));
            const on = records.filter(({ entity }) => entity.id === about?.id);
            if (!differs() && !on.some(differs)) continue;
            const place = fullName(element);
            for (const into of at.whenever ? [perhaps] : [differing, perhaps])
              into.set(place, (into.get(place) ?? new Set()).add(who));
          }
        }
        for (const [place, who] of differing)
          expect(
            [...who].filter((one) => !named.get(place)?.has(one)),
            place,
          ).toEqual([]);
        for (const [place, names] of surely)
          expect(
            names.filter((one) => !perhaps.get(place)?.has(one)),
            place,
          ).toEqual([]);
        expect(edits).toHaveLength(EDITS);
        expect(found.gaining + found.losing + found.others > 0).toBe(named.size > 0);
      }),
      { numRuns: 12, endOnFailure: true },
    );
  });

  it('gives all that there is, the first time, and takes nothing from anybody', async () => {
    await dropApplications();
    const definition = underNewId(LARKFIELD);
    await application(definition);
    await database().update(applications).set({ release: null });
    await person(definition.id, 'priya@larkfield.example', [{ role: 'registrar' }]);
    const { changes, number, losing, gaining } = await review(definition.id);
    expect({ number, losing, gaining }).toEqual({ number: undefined, losing: 0, gaining: 2 });
    const itself = changes.find(({ about }) => about === definition.name);
    expect(itself?.done.join()).toMatch(/^Line added: Everyone: edit/);
    expect(JSON.stringify(changes)).not.toContain('follows .');
  });
});

const answerOn = (access: Access, id: string, record?: KnownRecord): Answer => {
  const element = access.element(id);
  return record ? access.answerOn(element, record) : access.answer(element);
};
