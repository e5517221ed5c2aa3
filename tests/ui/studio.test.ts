import { accessOf, compile, resolve, viewerOfRole } from '@/core';
import { frameAround, isKind, SIGNED_OUT } from '@/core/access';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LARKFIELD } from '@/demo/definition';
import { shortNames } from '@/ui/studio/shared/short-names';
import { withGhostItems, withGhosts } from '@/ui/studio/shared/ghosts';
import { EVERYTHING, gridRows, isFiltered, type GridFilter } from '@/ui/studio/grid/grid-rows';
import { paneFromQuery, panesToQuery, splitAddress, type PaneState } from '@/ui/studio/look/pane-state';

const compiled = compile(LARKFIELD);
const at = { moment: Date.UTC(2026, 4, 3) };
const viewers = [SIGNED_OUT, ...LARKFIELD.roles.map(({ id }) => viewerOfRole(id))];

describe('a pane', () => {
  const state = fc.record<PaneState>({
    viewer: fc.oneof(
      fc.constant('signed-out'),
      fc.string({ minLength: 1 }).map((one) => `made:${JSON.stringify(one)}`),
    ),
    address: fc.stringMatching(/^[a-z0-9-]{1,8}(\/[A-Za-z0-9]{1,8})?$/),
    on: fc.constantFrom('draft', 'draft:7', 'release:2'),
    session: fc.dictionary(
      fc.stringMatching(/^[a-z]{1,5}$/),
      fc.oneof(fc.boolean(), fc.string(), fc.constant(null)),
    ),
    records: fc.constantFrom('sample', 'live'),
    query: fc.constantFrom('', 'l_items.page=2', 'l_items.q=a+b&face=f1'),
    moment: fc.integer({ min: 0, max: 4e12 }),
  });

  it('is the same when it is read from its link, whatever it holds', () => {
    fc.assert(
      fc.property(fc.array(state, { minLength: 1, maxLength: 4 }), (panes) => {
        const links = new URLSearchParams(panesToQuery(panes)).getAll('p');
        expect(links.map(paneFromQuery)).toEqual(panes);
      }),
    );
  });

  it('takes how one looks from nowhere in an address, and does not fall over a broken link', () => {
    expect(splitAddress('/items?viewer=person:1&records=live&pane=x&l.page=2')).toEqual({
      address: 'items',
      query: 'l.page=2',
    });
    fc.assert(
      fc.property(fc.string(), (text) => {
        const pane = paneFromQuery(text);
        expect(['sample', 'live']).toContain(pane.records);
        expect(typeof pane.session).toBe('object');
      }),
    );
    expect(paneFromQuery('session={broken&moment=soon')).toMatchObject({ session: {}, viewer: 'signed-out' });
  });
});

describe('the grid', () => {
  const accesses = viewers.map((viewer) => accessOf(compiled, viewer, at));
  const answer = (column: number, element: Parameters<(typeof accesses)[0]['answer']>[0]) =>
    (accesses[column] as (typeof accesses)[0]).answer(element);
  const rows = (filter: Partial<GridFilter>, unfolded: readonly string[] = []) =>
    gridRows(compiled, { ...EVERYTHING, ...filter }, new Set(unfolded), viewers.length, answer);

  it('shows the folded tree, the application first and the doors last', () => {
    const { rows: shown, hits, of } = rows({});
    expect([hits, of]).toEqual([compiled.tree.elements.length, compiled.tree.elements.length]);
    expect(shown[0]?.element.kind).toBe('application');
    expect(shown.at(-1)?.element.kind).toBe('rows');
    expect(shown.every((row) => row.folded || row.element.kind === 'application')).toBe(true);
    const open = rows(
      {},
      compiled.tree.elements.map(({ id }) => id),
    ).rows;
    expect(open).toHaveLength(compiled.tree.elements.length);
  });

  it.each(['own', 'doors', 'conditional', 'differ'] as const)(
    'holds of “%s” all and only those that are such',
    (show) => {
      const { rows: shown, hits } = rows({ show, between: [0, 4] });
      const such = compiled.tree.elements.filter((element) => {
        const answers = viewers.map((_, n) => answer(n, element));
        if (show === 'own') return compiled.lines(element.id) !== undefined;
        if (show === 'doors') return ['screen', 'rows', 'action', 'data-field'].includes(element.kind);
        if (show === 'conditional') return answers.some(({ least, most }) => least !== most);
        return answers[0]?.least !== answers[4]?.least || answers[0]?.most !== answers[4]?.most;
      });
      expect(hits).toBe(such.length);
      const held = shown.filter((row) => row.hit).map((row) => row.element.id);
      expect([...held].sort()).toEqual(such.map(({ id }) => id).sort());
      // What leads to a hit is there too, each row once, and says its place.
      for (const row of shown) expect(row.place).toBeLessThanOrEqual(row.among);
      expect(new Set(shown.map((row) => row.element.id)).size).toBe(shown.length);
    },
  );

  it('finds by all words and by kind', () => {
    const { rows: found } = rows({ words: 'INSURANCE value' });
    expect(found.filter((row) => row.hit).every((row) => row.element.name === 'Insurance value')).toBe(true);
    expect(
      rows({ kind: 'button' })
        .rows.filter((row) => row.hit)
        .every((row) => row.element.kind === 'button'),
    ).toBe(true);
    expect([isFiltered(EVERYTHING), isFiltered({ ...EVERYTHING, words: ' x' })]).toEqual([false, true]);
  });
});

describe('ghosts', () => {
  it('put what was not sent in its place, by name only, and leave what was sent as it is', () => {
    for (const viewer of viewers) {
      const access = accessOf(compiled, viewer, at);
      for (const screen of compiled.tree.screens()) {
        const sent = screen.binds?.record === 'existing' ? undefined : resolve(access, screen, undefined);
        const levels = Object.fromEntries(
          compiled.tree.elements.map((one) => [one.id, access.answerOn(one, undefined)]),
        );
        const drawn = withGhosts(compiled, screen, sent, levels);
        const parts = drawn.sections.flatMap((section) => section.parts);
        const ids = parts.map(({ id }) => id);
        expect(new Set(ids).size).toBe(ids.length);
        for (const part of parts) {
          if (part.kind === 'ghost')
            expect(Object.keys(part).sort()).toEqual(['ghost', 'id', 'kind', 'name', 'of']);
          // A person has it or not; of a kind of viewer, some may have it.
          if (part.kind === 'ghost' && part.ghost === 'some') expect(isKind(viewer)).toBe(true);
          const there = sent?.sections.flatMap((section) => section.parts).find((one) => one.id === part.id);
          expect(there === undefined).toBe(part.kind === 'ghost');
          if (there && there.kind !== 'list') expect(part).toEqual(there);
        }
      }
      const frame = frameAround(access, undefined);
      const menu = withGhostItems(compiled, frame, {});
      expect(menu.map(({ id }) => id)).toEqual(LARKFIELD.menu.items.map(({ id }) => id));
      const some = frame.menu.map(({ id }) => id);
      expect(menu.filter((one) => !one.ghost).map(({ id }) => id)).toEqual(some);
    }
  });
});

describe('short names', () => {
  it('keep what tells names apart, and stay different', () => {
    const names = [
      'Registrar',
      'Regional collections manager North',
      'Regional collections manager North West',
      'Regional collections manager, visiting exhibitions and outgoing loans',
      'Keeper of the accounts of everybody at the annexe',
    ];
    const short = shortNames(names);
    expect(short.get('Registrar')).toBe('Registrar');
    expect(short.get('Regional collections manager North West')).toBe('Regional… North West');
    const offices = ['North 10', 'Harbour 11'].map((one) => `Regional Collections ${one}`);
    expect([...shortNames(offices).values()]).toEqual(['Regional… North 10', 'Regional… Harbour 11']);
    for (const name of names) expect(short.get(name)?.length).toBeLessThan(28);
    fc.assert(
      fc.property(
        fc.uniqueArray(
          fc.array(fc.constantFrom('branch', 'manager', 'of', 'north', 'west'), {
            minLength: 1,
            maxLength: 9,
          }),
          { selector: (words) => words.join(' ') },
        ),
        (lists) => {
          const all = lists.map((words) => words.join(' '));
          expect(new Set(shortNames(all).values()).size).toBe(all.length);
        },
      ),
    );
  });
});
