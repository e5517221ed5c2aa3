import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyEdit, inverseOf, readDefinition } from '@/core';
import { editBetween } from '@/core/edit/edits/between';
import type { Edit } from '@/core/edit/edits/edit';
import type { Definition } from '@/core/model/definition';
import { findFaults } from '@/core/model/faults';
import { addKind } from '@/core/edit/shaping/new-kind';
import { offersAt } from '@/core/edit/shaping/insert-points';
import { placedIn, placeOf, withNode, withSlot, type ElementNode, type Placed } from '@/core/model/slots';
import { treeOf } from '@/core/model/tree';
import { LARKFIELD } from '@/demo/definition';
import { Draw, drawDefinition } from './arbitrary';
import { found, runs } from '../runs';

/** Without undefined values, and whatever the order of keys. */
const plain = (definition: Definition): unknown => JSON.parse(JSON.stringify(definition));
const made = (definition: Definition, edit: Edit): Definition => {
  const result = applyEdit(definition, edit);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};

/** Something that a builder may do to the shape, done to the document itself rather than by an edit. */
function reshaped(draw: Draw, definition: Definition): Definition {
  const all = [...placedIn(definition)];
  const inList = (...lists: readonly string[]) => all.filter(({ slot }) => lists.includes(slot.list));
  const some = (places: readonly Placed[]): Placed | undefined =>
    places.length > 0 ? draw.one(places) : undefined;
  const section = some(inList('sections'));
  const text = (): ElementNode => ({ kind: 'text', id: draw.id('text'), text: 'Said' });
  const ways: (() => Definition | undefined)[] = [
    () => {
      const one = some(all.filter(({ node }) => 'name' in node));
      return one && withNode(definition, one.node.id, (node) => ({ ...node, name: draw.id('Name') }));
    },
    // Elsewhere in its own list.
    () => {
      const one = some(all);
      if (!one) return undefined;
      return withSlot(definition, one.slot, (held) =>
        held.toSpliced(one.at, 1).toSpliced(draw.upTo(held.length - 1), 0, one.node),
      );
    },
    // A part that fits anywhere, into another section.
    () => {
      const one = some(inList('parts').filter(({ node }) => node['kind'] === 'text'));
      if (!one || !section) return undefined;
      const taken = withSlot(definition, one.slot, (held) => held.toSpliced(one.at, 1));
      return taken && withSlot(taken, { in: section.node.id, list: 'parts' }, (held) => [one.node, ...held]);
    },
    () =>
      section &&
      withSlot(definition, { in: section.node.id, list: 'parts' }, (held) =>
        held.toSpliced(draw.upTo(held.length), 0, text()),
      ),
    () => {
      const screen = some(inList('screens'));
      const made: ElementNode = { id: draw.id('section'), name: 'Made', parts: [text(), text()] };
      return (
        screen && withSlot(definition, { in: screen.node.id, list: 'sections' }, (held) => [...held, made])
      );
    },
    () => {
      const screen = some(inList('screens'));
      const face: ElementNode = { id: draw.id('face'), name: 'Face', sections: [] };
      return screen && withSlot(definition, { in: screen.node.id, list: 'faces' }, (held) => [...held, face]);
    },
    // A new section around the parts of another: what was there before is moved into what is new.
    () => {
      if (!section) return undefined;
      const around: ElementNode = { ...section.node, id: draw.id('around'), name: 'Around' };
      return withSlot(definition, section.slot, (held) =>
        held.toSpliced(section.at, 1, around, { ...section.node, parts: [] }),
      );
    },
    () => {
      const item: ElementNode = { id: draw.id('item'), name: 'Item', items: [] };
      const under = some(inList('items'));
      return withSlot(definition, { in: under?.node.id ?? definition.menu.id, list: 'items' }, (held) => [
        item,
        ...held,
      ]);
    },
    // One menu item under another, which may have stood under it.
    () => {
      const [a, b] = [some(inList('items')), some(inList('items'))];
      if (!a || !b || a === b || a.slot.in === b.node.id) return undefined;
      const { items } = b.node as unknown as { items: readonly ElementNode[] };
      if (
        [
          ...placedIn({
            ...definition,
            menu: { id: 'x', items: [b.node] as never },
            areas: [],
            entities: [],
          }),
        ].some(({ node }) => node.id === a.node.id)
      )
        return undefined;
      const taken = withSlot(definition, b.slot, (held) => held.filter(({ id }) => id !== b.node.id));
      return (
        taken && withSlot(taken, { in: a.node.id, list: 'items' }, (held) => [...held, { ...b.node, items }])
      );
    },
    // What nothing names, gone with its gate.
    () => {
      const one = some([
        ...inList('parts').filter(({ node }) => node['kind'] === 'text'),
        ...inList('columns', 'items'),
      ]);
      if (!one) return undefined;
      const gone = new Set(
        [
          ...placedIn({
            ...definition,
            areas: [],
            entities: [],
            menu: { id: 'x', items: [one.node] as never },
          }),
        ].map(({ node }) => node.id),
      );
      const kept = <T>(by: Readonly<Record<string, T>>) =>
        Object.fromEntries(Object.entries(by).filter(([id]) => !gone.has(id)));
      const taken = withSlot(definition, one.slot, (held) => held.toSpliced(one.at, 1));
      return taken && { ...taken, gates: kept(taken.gates), closed: kept(taken.closed) };
    },
    () => {
      const one = some(all);
      const lines = [{ id: draw.id('line'), who: { kind: 'everyone' }, what: 'see' }] as const;
      return one && { ...definition, gates: { ...definition.gates, [one.node.id]: { lines } } };
    },
    () => ({ ...definition, roles: [...definition.roles].reverse() }),
    () => ({ ...definition, name: draw.id('App'), signUp: !definition.signUp }),
  ];
  const next = draw.one(ways)() ?? definition;
  return readDefinition(next).ok ? next : definition;
}

const reshapedOften = (draw: Draw, definition: Definition): Definition =>
  Array.from({ length: 1 + draw.upTo(5) }).reduce<Definition>((now) => reshaped(draw, now), definition);

function everywhere(check: (draw: Draw) => void, numRuns: number): void {
  fc.assert(
    fc.property(fc.gen(), (value) => {
      check(new Draw(value));
    }),
    { numRuns: runs(numRuns), endOnFailure: true },
  );
}
const drawStart = (draw: Draw): Definition => (draw.chance(50) ? LARKFIELD : drawDefinition(draw));

describe('edits of the shape', () => {
  it('lead from any definition to any other, and their inverse back', () => {
    let different = 0;
    everywhere((draw) => {
      const before = drawStart(draw);
      const after = reshapedOften(draw, before);
      const edit = editBetween(before, after);
      if (!edit) return expect(plain(after)).toEqual(plain(before));
      different++;
      const there = made(before, edit);
      expect(plain(there)).toEqual(plain(after));
      expect(plain(made(there, inverseOf(edit)))).toEqual(plain(before));
    }, 300);
    expect(different).toBeGreaterThan(found(75));
  });

  it('of two builders both hold, or the later one is told; and what holds leaves it sound', () => {
    let both = 0;
    everywhere((draw) => {
      const before = drawStart(draw);
      const [one, other] = [0, 1].map(() => editBetween(before, reshapedOften(draw, before)));
      if (!one || !other) return;
      const result = applyEdit(made(before, one), other);
      if (!result.ok) return expect(result.problems[0]?.message).toBeTruthy();
      both++;
      const read = readDefinition(result.value);
      expect(read.ok ? [] : read.problems).toEqual([]);
    }, 150);
    expect(both).toBeGreaterThan(found(10));
  });

  const [area] = LARKFIELD.areas as readonly [Definition['areas'][0] & object];
  const part = placeOf(LARKFIELD, 'p_item_title') as Placed;
  const rename = (id: string, from: string, to: string): Edit => ({
    do: 'changeElement',
    id,
    from: { name: from },
    to: { name: to },
  });
  const moved: Edit = {
    do: 'moveElement',
    id: 'n_custody',
    from: { in: 's_item', list: 'sections', at: 1 },
    to: { in: 's_item', list: 'sections', at: 0 },
  };
  const removed: Edit = {
    do: 'removeElement',
    into: { in: 's_item', list: 'sections' },
    at: 2,
    node: placeOf(LARKFIELD, 'n_item_actions')?.node as ElementNode,
    gates: Object.fromEntries(
      ['b_save_item', 'b_request_loan', 'b_release_item', 'b_delete_item'].flatMap((id) => {
        const gate = LARKFIELD.gates[id];
        return gate ? [[id, gate]] : [];
      }),
    ),
    closed: {},
  };

  it('lets a move and a renaming of the same thing both hold', () => {
    for (const pair of [
      [moved, rename('n_custody', 'Custody', 'Keeping')],
      [rename('n_custody', 'Custody', 'Keeping'), moved],
    ] as const) {
      const done = pair.reduce(made, LARKFIELD);
      expect(placeOf(done, 'n_custody')).toMatchObject({ at: 0, node: { name: 'Keeping' } });
    }
  });

  it.each<[string, readonly Edit[], RegExp]>([
    [
      'a change in what is deleted',
      [removed, rename('b_save_item', 'Save changes', 'Keep')],
      /deleted in the meantime/,
    ],
    [
      'deleting what somebody has changed',
      [rename('b_save_item', 'Save changes', 'Keep'), removed],
      /changed in the meantime/,
    ],
    [
      'deleting what somebody has gated',
      [
        {
          do: 'addLine',
          gate: 'b_save_item',
          line: { id: 'x', who: { kind: 'everyone' }, what: 'see' },
          at: 0,
        },
        removed,
      ],
      /gates has changed/,
    ],
    [
      'renaming what somebody has renamed',
      [rename('n_custody', 'Custody', 'A'), rename('n_custody', 'Custody', 'B')],
      /changed in the meantime/,
    ],
    [
      'moving what somebody has moved elsewhere',
      [
        {
          do: 'moveElement',
          id: part.node.id,
          from: { ...part.slot, at: part.at },
          to: { in: 'n_custody', list: 'parts', at: 0 },
        },
        {
          do: 'moveElement',
          id: part.node.id,
          from: { ...part.slot, at: part.at },
          to: { ...part.slot, at: 2 },
        },
      ],
      /moved in the meantime/,
    ],
    [
      'moving something into itself',
      [
        {
          do: 'moveElement',
          id: 'm_reports',
          from: { in: 'menu', list: 'items', at: 5 },
          to: { in: 'm_out', list: 'items', at: 0 },
        },
      ],
      /into itself/,
    ],
    [
      'adding what is there',
      [{ do: 'addElement', into: part.slot, at: 0, node: part.node, gates: {}, closed: {} }],
      /already exists/,
    ],
    [
      'adding into what is not there',
      [
        {
          do: 'addElement',
          into: { in: 'nothing', list: 'parts' },
          at: 0,
          node: { kind: 'text', id: 'new', text: 'x' },
          gates: {},
          closed: {},
        },
      ],
      /deleted in the meantime/,
    ],
    [
      'a part where screens stand',
      [
        {
          do: 'addElement',
          into: { in: area.id, list: 'screens' },
          at: 0,
          node: { kind: 'text', id: 'new', text: 'x' },
          gates: {},
          closed: {},
        },
      ],
      /missing/,
    ],
    [
      'the gate of something else along with it',
      [
        {
          do: 'addElement',
          into: part.slot,
          at: 0,
          node: { kind: 'text', id: 'new', text: 'x' },
          gates: { s_item: { lines: [] } },
          closed: {},
        },
      ],
      /not part of it/,
    ],
    [
      'a key that it does not have',
      [{ do: 'changeElement', id: 'n_custody', from: {}, to: { colour: 'red' } }],
      /unknown key colour/,
    ],
    [
      'another id',
      [{ do: 'changeElement', id: 'n_custody', from: { id: 'n_custody' }, to: { id: 'n_other' } }],
      /cannot be changed/,
    ],
    [
      'what would point to nothing',
      [{ do: 'changeElement', id: 'm_items', from: { screen: 's_items' }, to: { screen: 's_gone' } }],
      /no screen s_gone/,
    ],
  ])('refuses %s, and says why', (_, edits, says) => {
    const last = edits.at(-1) as Edit;
    const before = edits.slice(0, -1).reduce(made, LARKFIELD);
    const result = applyEdit(before, last);
    expect(
      result.ok ? '' : result.problems.map(({ place, message }) => `${place}: ${message}`).join(),
    ).toMatch(says);
  });

  it('are as few as say it', () => {
    const renamed = withNode(LARKFIELD, 'n_custody', (node) => ({ ...node, name: 'Keeping' })) as Definition;
    expect(editBetween(LARKFIELD, renamed)).toEqual(rename('n_custody', 'Custody', 'Keeping'));
    const first = withSlot(LARKFIELD, part.slot, (held) => [
      ...held.slice(1),
      held[0] as ElementNode,
    ]) as Definition;
    expect(editBetween(LARKFIELD, first)).toMatchObject({ do: 'moveElement', id: part.node.id });
    expect(editBetween(LARKFIELD, LARKFIELD)).toBeUndefined();
  });
});

describe('what can come to a place', () => {
  it('can all be put there, has an id of its own, follows its container, and can be taken back', () => {
    let offered = 0;
    const seen = new Set<string>();
    for (const element of treeOf(LARKFIELD).elements)
      for (const { offers } of offersAt(LARKFIELD, element))
        for (const offer of offers) {
          // One of each kind of thing, at each kind of place.
          const kind = `${element.kind} ${offer.about} ${element.screen?.binds?.record ?? ''}`;
          if (seen.has(kind)) continue;
          seen.add(kind);
          offered++;
          const { edit, id } = offer.make();
          const after = made(LARKFIELD, edit);
          const there = treeOf(after).get(id);
          expect(there, `${element.id}: ${offer.key}`).toBeDefined();
          // Only a screen has a gate from the start: nobody gets it until somebody is given it.
          expect(after.gates[id]).toEqual(there?.kind === 'screen' ? { lines: [] } : undefined);
          expect(plain(made(after, inverseOf(edit)))).toEqual(plain(LARKFIELD));
        }
    expect(offered).toBeGreaterThan(80);
  });

  it('include a kind of data, alone or with screens that work and that nobody gets yet', () => {
    for (const screens of [false, true]) {
      const { edit, id } = addKind(LARKFIELD, { name: 'Loan', plural: 'Loans' }, { screens });
      const after = made(LARKFIELD, edit);
      expect(findFaults(after)).toEqual([]);
      const fresh = treeOf(after)
        .screens()
        .filter((one) => !treeOf(LARKFIELD).get(one.id));
      // Another kind has these addresses already.
      expect(fresh.map(({ address }) => address)).toEqual(
        screens ? ['loans-2', 'loans-2', 'loans-2/new'] : [],
      );
      expect(fresh.map((one) => after.gates[one.id])).toEqual(fresh.map(() => ({ lines: [] })));
      expect(after.menu.items.length - LARKFIELD.menu.items.length).toBe(screens ? 1 : 0);
      expect(treeOf(after).need(id, 'rows').node.actions).toHaveLength(5);
      expect(plain(made(after, inverseOf(edit)))).toEqual(plain(LARKFIELD));
    }
  });

  it('are first the fields that are not on the screen yet', () => {
    const section = treeOf(LARKFIELD).need('n_custody', 'section');
    const [first] = offersAt(LARKFIELD, section);
    expect(first?.name).toBe('Item fields not on this screen');
    expect(first?.offers.map(({ name }) => name)).toEqual(['On loan', 'New field of Item']);
  });
});
