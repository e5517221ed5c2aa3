import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyEdit, inverseOf, readDefinition, accessOf, compile } from '@/core';
import type { Condition } from '@/core/condition/condition';
import { settled } from '@/core/edit/shaping/in-doubt';
import { removalOf, type Removal } from '@/core/edit/shaping/removal';
import { NONE } from '@/core/access/deciding/level';
import type { Definition } from '@/core/model/definition';
import { placedIn } from '@/core/model/slots';
import { treeOf } from '@/core/model/tree';
import { LARKFIELD } from '@/demo/definition';
import { Draw, drawCircumstances, drawDefinition, drawSomebody } from './arbitrary';
import { found, runs } from '../runs';

const plain = (definition: Definition): unknown => JSON.parse(JSON.stringify(definition));
const removed = (definition: Definition, id: string): Removal => {
  const result = removalOf(definition, id);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};
const without = (definition: Definition, { edit }: Removal): Definition => {
  const made = applyEdit(definition, edit);
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  return made.value;
};
const toldOf = (id: string): string[] =>
  removed(LARKFIELD, id).also.map(({ about, says }) => `${about} ${says}`);

describe('taking an element away', () => {
  it('leaves a sound definition in which nothing names it, and gives it all back', () => {
    let large = 0;
    const check = (definition: Definition, id: string): void => {
      const result = removalOf(definition, id);
      if (!result.ok) {
        expect(result.problems[0]).toMatchObject({ code: 'not-removed' });
        return;
      }
      const after = without(definition, result.value);
      const read = readDefinition(after);
      expect(read.ok ? [] : read.problems).toEqual([]);
      // It stands nowhere any more, not even as a word.
      expect(JSON.stringify(after)).not.toContain(JSON.stringify(id));
      for (const { element, about, says } of result.value.also) {
        expect([about, says].every(Boolean)).toBe(true);
        if (element) expect(treeOf(definition).get(element)).toBeDefined();
      }
      if (result.value.also.length > 3) large++;
      const back = applyEdit(after, inverseOf(result.value.edit));
      expect(back.ok && plain(back.value)).toEqual(plain(definition));
    };
    for (const { node } of placedIn(LARKFIELD)) check(LARKFIELD, node.id);
    expect(large).toBeGreaterThan(5);
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const definition = drawDefinition(draw);
        check(definition, draw.one([...placedIn(definition)]).node.id);
      }),
      { numRuns: runs(200), endOnFailure: true },
    );
  });

  it('lets nobody at what stays in, who was not in before, where nothing that took away went with it', () => {
    let asked = 0;
    fc.assert(
      fc.property(fc.gen(), (value) => {
        const draw = new Draw(value);
        const before = drawDefinition(draw);
        const fields = before.entities.flatMap((entity) => entity.fields);
        const result = removalOf(before, draw.one(fields).id);
        if (!result.ok) return;
        const after = without(before, result.value);
        const [viewer, circumstances] = [drawSomebody(draw), drawCircumstances(draw)];
        const [was, is] = [before, after].map((one) => accessOf(compile(one), viewer, circumstances));
        for (const screen of treeOf(after).screens()) {
          if (!was || !is || was.level(was.element(screen.id), undefined) > NONE) continue;
          asked++;
          // Before, it was closed for certain or in doubt; it is no more open now.
          expect(is.level(is.element(screen.id), undefined)).toBe(NONE);
        }
      }),
      { numRuns: runs(200), endOnFailure: true },
    );
    expect(asked).toBeGreaterThan(found(10));
  });

  it.each<[string, string, RegExp]>([
    ['a screen', 's_item', /All items.* will no longer open a screen/],
    ['a screen', 's_item', /Items \(in the menu\)|Item/],
    ['a screen with a menu item', 's_stores', /Stores \(in the menu\) will be deleted too/],
    ['a list', 'l_items', /Export.* will be deleted too/],
    ['a field', 'item_away', /Gate of On loan.* a line that grants access will be deleted/],
    ['a field', 'item_shown', /its filter/],
    ['a field', 'item_store', /Release from store.* will no longer set it/],
    ['a field that names records', 'item_title', /Accession no\./],
    ['a field that says a unit', 'item_branch', /unit/],
    ['an entity', 'item', /Item details will be deleted too/],
    ['an entity', 'item', /Loans: Item \(data\) will be deleted too/],
    ['a named action', 'a_item_release', /Release from store \(button on Item details\) will be deleted too/],
  ])('tells what goes with %s %s', (_, id, says) => {
    expect(toldOf(id).join('\n')).toMatch(says);
  });

  it.each([
    ['a_item_create', /cannot be deleted/],
    ['nothing', /already been deleted/],
    ['menu', /already been deleted/],
    [LARKFIELD.id, /already been deleted/],
  ])('refuses what an application cannot be without: %s', (id, says) => {
    const result = removalOf(LARKFIELD, id);
    expect(result.ok ? '' : result.problems[0]?.message).toMatch(says);
  });

  it('refuses the last text that a record is called by', () => {
    const [item, ...others] = LARKFIELD.entities;
    if (!item) throw new Error('The demo has items');
    const [, title] = item.fields;
    const only = { ...LARKFIELD, entities: [{ ...item, fields: title ? [title] : [] }, ...others] };
    const result = removalOf(only, 'item_title');
    expect(result.ok ? '' : result.problems[0]?.message).toMatch(/no other text/);
  });
});

describe('a condition in doubt', () => {
  const gone = new Set(['x']);
  const asks: Condition = { empty: { record: 'x' } };
  const other: Condition = { empty: { record: 'y' } };
  it.each<[string, Condition, Condition | boolean, Condition | boolean]>([
    ['asks only of it', asks, false, true],
    ['asks of others', other, other, other],
    ['asks of what it points through', { empty: { record: 'y', through: 'x' } }, false, true],
    ['meets it', { meets: 'x' }, false, true],
    ['is turned', { not: asks }, false, true],
    ['asks of all', { all: [asks, other] }, false, other],
    ['asks of any', { any: [asks, other] }, other, true],
    ['is turned, and asks of any', { not: { any: [asks, other] } }, false, { not: other }],
    ['asks of none', { all: [] }, { all: [] }, { all: [] }],
    [
      'asks of three',
      { all: [other, { any: [asks, other] }, other] },
      { all: [other, other, other] },
      { all: [other, other] },
    ],
  ])('that %s is closed', (_, condition, giving, taking) => {
    expect(settled(condition, gone, false)).toEqual(giving);
    expect(settled(condition, gone, true)).toEqual(taking);
  });
});
