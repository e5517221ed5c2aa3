import type { Person, Viewer } from '@/core/access';
import type { Definition, Entity, Gate, Line, Part, Screen } from '@/core/model';
import type { Random } from '@/core/making';

export const BIG = { screens: 300, elements: 6000, roles: 40, people: 5000 };

const ENTITIES = 60;
const FIELDS = 12;

/** An application of 300 screens, 6,000 elements and 40 roles in ten ladders of four, with half of its gates' lines on screens and half within. */
export function bigApplication(random: Random): Definition {
  const role = (): string => `r${random.whole(0, BIG.roles - 1)}`;
  const gates: Record<string, Gate> = {
    big: { lines: [{ id: 'l_big', who: { kind: 'signed-in' }, what: 'edit' }] },
  };
  let lines = 0;
  const line = (what: Line['what'], exactly = false): Line => ({
    id: `l${lines++}`,
    who: { kind: 'role', role: role(), ...(exactly && { exactly }) },
    what,
  });
  const entities = Array.from({ length: ENTITIES }, (_, n): Entity => ({
    id: `e${n}`,
    name: `Thing ${n}`,
    plural: `Things ${n}`,
    labelField: `e${n}f0`,
    fields: Array.from({ length: FIELDS }, (__, m) => ({
      id: `e${n}f${m}`,
      name: m === 0 ? `Label of ${n}` : `Field ${m} of ${n}`,
      type: m === 0 ? ({ kind: 'text' } as const) : ({ kind: m % 2 ? 'money' : 'text' } as const),
    })),
    actions: (['create', 'update', 'delete'] as const).map((kind) => ({
      kind,
      id: `e${n}${kind}`,
      name: kind,
    })),
  }));
  const screens = Array.from({ length: BIG.screens }, (_, n): Screen => {
    const entity = `e${n % ENTITIES}`;
    const id = `s${n}`;
    gates[id] = { lines: [line('edit'), line('edit'), line('see'), line('see')] };
    const shows = n < ENTITIES ? 'list' : n < 4 * ENTITIES ? 'record' : 'new';
    const parts: Part[] =
      shows === 'list'
        ? [
            {
              kind: 'list',
              id: `${id}l`,
              name: `List ${n}`,
              entity,
              columns: Array.from({ length: FIELDS }, (__, m) => ({
                id: `${id}c${m}`,
                field: `${entity}f${m}`,
              })),
              buttons: [],
            },
          ]
        : [
            ...Array.from({ length: FIELDS }, (__, m): Part => ({
              kind: 'field',
              id: `${id}p${m}`,
              field: `${entity}f${m}`,
            })),
            { kind: 'button', id: `${id}b`, name: 'Save', effect: { do: 'save' } },
          ];
    if (n % 10 < 7) parts.push({ kind: 'text', id: `${id}t`, text: `About ${n}` });
    for (const part of parts)
      if (random.next() < 0.25)
        gates[part.id] = { lines: [line('edit'), line('see'), line('see'), line('block', true)] };
    return {
      id,
      name: `Screen ${n}`,
      address: `screens/${n}`,
      ...(shows !== 'list' && {
        binds: { entity, record: shows === 'record' ? ('existing' as const) : ('new' as const) },
      }),
      sections: [{ id: `${id}n`, name: `Section ${n}`, parts }],
    };
  });
  const areas = Array.from({ length: 30 }, (_, n) => ({
    id: `a${n}`,
    name: `Area ${n}`,
    screens: screens.slice(n * 10, n * 10 + 10),
  }));
  return {
    format: 3,
    id: 'big',
    name: 'A big one',
    currency: 'GBP',
    language: 'en-GB',
    timeZone: 'UTC',
    newScreens: 'nobody',
    signUp: false,
    roles: Array.from({ length: BIG.roles }, (_, n) => ({
      id: `r${n}`,
      name: `Role ${n}`,
      includes: n % 4 ? [`r${n - 1}`] : [],
      privileges: [],
    })),
    privileges: [],
    units: [],
    attributes: [],
    groups: [],
    conditions: [],
    sessionValues: [],
    entities,
    areas,
    menu: {
      id: 'menu',
      items: screens.map(({ id, name, binds }, n) => ({
        id: `m${n}`,
        name,
        ...(binds?.record !== 'existing' && { screen: id }),
        items: [],
      })),
    },
    gates,
    closed: {},
  };
}

/** 5,000 people: four in five with one of the roles, one in five with two. */
export const bigPeople = (random: Random): Person[] =>
  Array.from({ length: BIG.people }, (_, n) => ({
    id: `p${n}`,
    name: `Person ${n}`,
    active: true,
    assignments: Array.from({ length: random.one([1, 1, 1, 1, 2]) }, () => ({
      role: `r${random.whole(0, BIG.roles - 1)}`,
    })),
    attributes: {},
  }));

export const rolesOf = ({ roles }: Definition): Viewer[] =>
  roles.map(({ id }) => ({ kind: 'signed-in', assignments: [{ role: id }] }));
