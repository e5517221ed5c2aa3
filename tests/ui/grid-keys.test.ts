import type { KeyboardEvent } from 'react';
import { describe, expect, it } from 'vitest';
import type { GridRow } from '@/ui/studio/grid/grid-rows';
import { workOf } from '@/ui/studio/grid/keys';

type Press = Partial<Pick<KeyboardEvent, 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>>;
const at = (hasContents: boolean, folded: boolean): GridRow =>
  ({ element: { id: 'e' }, hasContents, folded }) as unknown as GridRow;
const press = (key: string, row: GridRow | undefined, column: number, more: Press = {}) =>
  workOf({ key, target: { closest: () => null, tagName: 'DIV' }, ...more } as unknown as KeyboardEvent, {
    row,
    atHead: column < 0,
    atFirst: column <= 0,
    page: 20,
    columns: 7,
  });
const go = (rows: number, columns: number) => ({ do: 'go', rows, columns });
const fold = (folded: boolean) => ({ do: 'fold', element: 'e', folded });
const [closed, opened, leaf] = [at(true, true), at(true, false), at(false, false)];

describe('the keys of the grid', () => {
  it.each<[string, GridRow | undefined, number, Press, unknown]>([
    ['ArrowDown', leaf, 2, {}, go(1, 0)],
    ['ArrowUp', leaf, 2, { shiftKey: true }, go(-1, 0)],
    ['PageDown', leaf, 2, {}, go(20, 0)],
    ['Home', leaf, 2, {}, go(0, -7)],
    // On a row's name the arrows fold and unfold, and go on where there is nothing to.
    ['ArrowRight', closed, -1, {}, fold(false)],
    ['ArrowRight', opened, -1, {}, go(0, 1)],
    ['ArrowRight', closed, 0, {}, go(0, 1)],
    ['ArrowLeft', opened, -1, {}, fold(true)],
    ['ArrowLeft', opened, 0, {}, fold(true)],
    ['ArrowLeft', opened, 0, { shiftKey: true }, go(0, 0)],
    ['ArrowLeft', closed, 0, {}, go(0, 0)],
    ['ArrowLeft', opened, 3, {}, go(0, -1)],
    [' ', closed, 3, {}, fold(false)],
    [' ', opened, 3, {}, fold(true)],
    [' ', leaf, 3, {}, { do: 'nothing' }],
    ['Enter', leaf, 1, {}, { do: 'why' }],
    ['Escape', leaf, 1, {}, { do: 'leave' }],
    ['c', leaf, 1, { ctrlKey: true }, { do: 'copy' }],
    ['V', leaf, 1, { metaKey: true }, { do: 'paste', changes: true }],
    ['Delete', leaf, 1, {}, { do: 'follow', changes: true }],
    ['2', leaf, 1, {}, { do: 'set', level: 2, changes: true }],
    // These are not the grid's.
    ['z', leaf, 1, { ctrlKey: true }, undefined],
    ['ArrowDown', leaf, 1, { altKey: true }, undefined],
    ['3', leaf, 1, {}, undefined],
    ['Tab', leaf, 1, {}, undefined],
  ])('%s', (key, row, column, more, work) => {
    expect(press(key, row, column, more)).toEqual(work);
  });
});
