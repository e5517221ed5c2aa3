import type { Assignment, Person } from '@/core/access';
import type { Random } from '@/core/making';
import type { Condition } from '@/core/condition';
import type { Definition, Entity, EntityField, Gate, Line, Part, Screen } from '@/core/model';

/** The size of a large organisation: 306 screens, about 4,300 elements. */
export const ORGANISATION = { screens: 306, roles: 40, units: 20, people: 5000, records: 300_000 };

const ENTITIES = 51;
/** Each role includes the one below it in its ladder of five. */
const LADDER = 5;
const HOURS: Condition = { meets: 'c_hours' };
const COUNTING: Condition = { compare: '=', left: { session: 'v_counting' }, right: { value: true } };

const FIELDS: readonly Omit<EntityField, 'id'>[] = [
  { name: 'Title', type: { kind: 'text' } },
  { name: 'Number', type: { kind: 'text' } },
  { name: 'Unit', type: { kind: 'unit' } },
  { name: 'Owner', type: { kind: 'text' } },
  { name: 'Due', type: { kind: 'date' } },
  { name: 'Amount', type: { kind: 'money' } },
  { name: 'Done', type: { kind: 'boolean' } },
  { name: 'Notes', type: { kind: 'text', long: true } },
];

const entityOf = (n: number): Entity => ({
  id: `e${n}`,
  name: `Case ${n}`,
  plural: `Cases ${n}`,
  labelField: `e${n}f0`,
  unitField: `e${n}f2`,
  fields: FIELDS.map((field, m) => ({ ...field, id: `e${n}f${m}` })),
  actions: (['create', 'update', 'delete', 'export', 'bulk'] as const).map((kind) => ({
    kind,
    id: `e${n}${kind}`,
    name: kind,
  })),
});

const own = (entity: string): Condition => ({
  compare: '=',
  left: { record: `${entity}f3` },
  right: { user: 'email' },
});

/**
 * An application of the size of a large organisation, with all that makes deciding hard: roles in units and for a time,
 * conditions that ask of the record, the person, the hour and the session, groups, and doors with lines of their own.
 */
export function organisation(random: Random): Definition {
  const id = 'organisation';
  const gates: Record<string, Gate> = {
    [id]: { lines: [{ id: 'l_all', who: { kind: 'signed-in' }, what: 'edit' }] },
  };
  let lines = 0;
  const role = (): string => `r${random.whole(0, ORGANISATION.roles - 1)}`;
  const line = (what: Line['what'], when?: Condition): Line => ({
    id: `l${lines++}`,
    who: random.one<Line['who']>([
      { kind: 'role', role: role() },
      { kind: 'role', role: role() },
      { kind: 'role', role: role(), exactly: true },
      { kind: 'privilege', privilege: `q${random.whole(0, 9)}` },
      { kind: 'group', group: `g${random.whole(0, 4)}` },
    ]),
    what,
    ...(when && { when }),
  });
  const conditionOn = (entity: string | undefined): Condition | undefined => {
    const n = random.whole(0, 9);
    if (n === 0) return HOURS;
    if (n === 1) return COUNTING;
    if (n < 4 && entity !== undefined) return own(entity);
    if (n === 4 && entity !== undefined)
      return { compare: '=', left: { record: `${entity}f6` }, right: { value: false } };
    return undefined;
  };
  const screens = Array.from({ length: ORGANISATION.screens }, (_, n): Screen => {
    const entity = `e${n % ENTITIES}`;
    const shows = Math.floor(n / ENTITIES);
    const sid = `s${n}`;
    const binds = shows === 2 ? 'new' : shows > 2 && shows < 5 ? 'existing' : undefined;
    gates[sid] = {
      lines: [
        line('edit'),
        line('edit', conditionOn(binds === 'existing' ? entity : undefined)),
        line('see'),
        line('see'),
      ],
    };
    const parts: Part[] =
      binds === undefined
        ? [
            {
              kind: 'list',
              id: `${sid}l`,
              name: `Cases ${n}`,
              entity,
              ...(shows === 1 && { filter: own(entity) }),
              columns: FIELDS.slice(0, 6).map((__, m) => ({ id: `${sid}c${m}`, field: `${entity}f${m}` })),
              opens: `s${(n % ENTITIES) + 3 * ENTITIES}`,
              buttons: [],
            },
            { kind: 'button', id: `${sid}x`, name: 'Export', effect: { do: 'export', list: `${sid}l` } },
            { kind: 'button', id: `${sid}m`, name: 'Change many', effect: { do: 'bulk', list: `${sid}l` } },
          ]
        : [
            ...FIELDS.map((__, m): Part => ({ kind: 'field', id: `${sid}p${m}`, field: `${entity}f${m}` })),
            { kind: 'button', id: `${sid}b`, name: 'Save', effect: { do: 'save' } },
          ];
    for (const part of parts)
      if (random.next() < 0.2)
        gates[part.id] = {
          lines: [
            line('edit', conditionOn(part.kind === 'button' && !binds ? undefined : entity)),
            line('see'),
            line(random.one(['block', 'see', 'edit'])),
          ],
        };
    return {
      id: sid,
      name: `Screen ${n}`,
      address: `cases/${n}`,
      ...(binds && { binds: { entity, record: binds } }),
      sections: [{ id: `${sid}n`, name: `Section ${n}`, parts }],
    };
  });
  // Everyone who is signed in has the screens of the largest entity, for records that anyone may see.
  for (const n of [0, 2 * ENTITIES, 3 * ENTITIES])
    gates[`s${n}`] = { lines: [{ id: `l_open${n}`, who: { kind: 'signed-in' }, what: 'edit' }] };
  for (let n = 1; n < ENTITIES; n += 7)
    gates[`e${n}f5`] = { lines: [line('edit'), line('see', own(`e${n}`))] };
  return {
    format: 3,
    id,
    name: 'A large organisation',
    currency: 'GBP',
    language: 'en-GB',
    timeZone: 'Europe/London',
    newScreens: 'nobody',
    signUp: false,
    roles: Array.from({ length: ORGANISATION.roles }, (_, n) => ({
      id: `r${n}`,
      name: `Role ${n}`,
      includes: n % LADDER ? [`r${n - 1}`] : [],
      privileges: n % 4 ? [] : [`q${(n / 4) % 10}`],
    })),
    privileges: [
      {
        id: 'qg',
        name: 'All',
        privileges: Array.from({ length: 10 }, (_, n) => ({ id: `q${n}`, name: `Privilege ${n}` })),
      },
    ],
    units: Array.from({ length: 4 }, (_, n) => ({
      id: `unit${n}`,
      name: `Region ${n}`,
      units: Array.from({ length: 4 }, (__, m) => ({
        id: `unit${4 + n * 4 + m}`,
        name: `Branch ${n}.${m}`,
        units: [],
      })),
    })),
    attributes: [
      { id: 'u_staff', name: 'Staff', type: { kind: 'boolean' } },
      { id: 'u_until', name: 'Trained until', type: { kind: 'date' } },
    ],
    groups: Array.from({ length: 5 }, (_, n) => ({
      id: `g${n}`,
      name: `Group ${n}`,
      condition: {
        all: [
          { compare: '=', left: { user: 'u_staff' }, right: { value: n % 2 === 0 } },
          n < 3
            ? { inUnit: { user: 'home_unit' }, unit: { value: `unit${n}` } }
            : { compare: '>=', left: { user: 'u_until' }, right: { clock: 'today' } },
        ],
      },
    })),
    conditions: [
      {
        id: 'c_hours',
        name: 'Opening hours',
        condition: {
          all: [
            { not: { oneOf: { clock: 'weekday' }, values: ['saturday', 'sunday'] } },
            { compare: '>=', left: { clock: 'time' }, right: { value: '08:00' } },
            { compare: '<', left: { clock: 'time' }, right: { value: '18:00' } },
          ],
        },
      },
    ],
    sessionValues: [{ id: 'v_counting', name: 'Counting', type: { kind: 'boolean' }, minutes: 30 }],
    entities: Array.from({ length: ENTITIES }, (_, n) => entityOf(n)),
    areas: Array.from({ length: 34 }, (_, n) => ({
      id: `a${n}`,
      name: `Area ${n}`,
      screens: screens.slice(n * 9, n * 9 + 9),
    })),
    menu: {
      id: 'menu',
      items: screens.flatMap(({ id: screen, name, binds }, n) =>
        binds?.record === 'existing' ? [] : [{ id: `m${n}`, name, screen, items: [] }],
      ),
    },
    gates,
    closed: {},
  };
}

/** People with one to four roles, half of them in a unit only and some for a time; no two need be alike. */
export const organisationPeople = (random: Random, count = ORGANISATION.people): Person[] =>
  Array.from({ length: count }, (_, n) => {
    const home = `unit${random.whole(0, ORGANISATION.units - 1)}`;
    return {
      id: `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`,
      name: `Person ${n}`,
      active: true,
      assignments: Array.from({ length: random.whole(1, 4) }, (): Assignment => ({
        role: `r${random.whole(0, ORGANISATION.roles - 1)}`,
        ...(random.next() < 0.5 && {
          unit: random.one([home, `unit${random.whole(0, ORGANISATION.units - 1)}`]),
        }),
        ...(random.next() < 0.1 && { until: '2030-01-01T00:00:00.000Z' }),
      })),
      attributes: {
        name: `Person ${n}`,
        email: `person.${n}@organisation.example`,
        home_unit: home,
        u_staff: random.next() < 0.7,
        u_until: `20${random.whole(24, 29)}-06-01`,
      },
    };
  });
