import fc from 'fast-check';
import type {
  Area,
  Button,
  Column,
  Definition,
  Effect,
  Entity,
  MenuItem,
  Part,
  Role,
  Screen,
} from '@/core/model/definition';
import type { Gate, Line, Who } from '@/core/model/gate';
import type { Id } from '@/core/model/id';
import { Tree } from '@/core/model/tree';
import type { Value, Values } from '@/core/model/value-type';
import type { Assignment, Circumstances, Viewer } from '@/core/access/deciding/viewer';
import type { KnownRecord } from '@/core/access/sent/resolve';
import { HELD_WHERE, type Condition, type HeldWhere, type Operand } from '@/core/condition/condition';
import { COMPARISONS } from '@/core/condition/operators';

/** Draws values for one random model; every choice is fast-check's, so a failure replays by its seed. */
export class Draw {
  private count = 0;

  constructor(private readonly value: fc.GeneratorValue) {}

  id(prefix: string): Id {
    return `${prefix}${++this.count}`;
  }

  upTo(most: number): number {
    return this.value(fc.integer, { min: 0, max: most });
  }

  chance(percent: number): boolean {
    return this.upTo(99) < percent;
  }

  one<T>(from: readonly T[]): T {
    return from[this.upTo(from.length - 1)] as T;
  }

  some<T>(from: readonly T[], percent = 50): T[] {
    return from.filter(() => this.chance(percent));
  }

  many<T>(most: number, make: () => T, least = 0): T[] {
    return Array.from({ length: least + this.upTo(most - least) }, make);
  }
}

export const PEOPLE = ['ada', 'bo', 'cy'];
const COLOURS = ['red', 'blue'];

function drawRoles(draw: Draw): Role[] {
  const roles: Role[] = [];
  for (const id of draw.some(['r1', 'r2', 'r3', 'r4'], 80))
    roles.push({
      id,
      name: id.toUpperCase(),
      includes: draw.some(
        roles.map((role) => role.id),
        35,
      ),
      privileges: draw.some(['q1', 'q2'], 30),
    });
  return roles;
}

function drawEntity(draw: Draw, id: Id, targets: readonly Id[]): Entity {
  const field = (name: string): Id => `${id}_${name}`;
  return {
    id,
    name: id,
    plural: `${id}s`,
    labelField: field('title'),
    ...(draw.chance(70) && { unitField: field('place') }),
    fields: [
      { id: field('title'), name: 'Title', type: { kind: 'text' } },
      {
        id: field('colour'),
        name: 'Colour',
        type: { kind: 'choice', options: COLOURS.map((one) => ({ id: one, name: one })) },
      },
      { id: field('shown'), name: 'Shown', type: { kind: 'boolean' } },
      {
        id: field('price'),
        name: 'Price',
        type: { kind: 'money' },
        ...(draw.chance(30) && { neverFollows: true }),
      },
      { id: field('owner'), name: 'Owner', type: { kind: 'text' } },
      { id: field('due'), name: 'Due', type: { kind: 'date' } },
      { id: field('place'), name: 'Place', type: { kind: 'unit' } },
      { id: field('next'), name: 'Next', type: { kind: 'record', entity: draw.one(targets) } },
    ],
    actions: [
      { kind: 'create', id: `${id}_create`, name: 'Create' },
      { kind: 'update', id: `${id}_update`, name: 'Update' },
      { kind: 'delete', id: `${id}_delete`, name: 'Delete' },
      { kind: 'export', id: `${id}_export`, name: 'Export' },
      { kind: 'bulk', id: `${id}_bulk`, name: 'Bulk edit' },
      { kind: 'named', id: `${id}_look`, name: 'Look', sets: {} },
      { kind: 'named', id: `${id}_hide`, name: 'Hide', sets: { [field('shown')]: false } },
    ],
  };
}

function drawParts(
  draw: Draw,
  screen: Omit<Screen, 'sections'>,
  entities: readonly Entity[],
  screens: readonly Omit<Screen, 'sections'>[],
): Part[] {
  const entity = entities.find((one) => one.id === screen.binds?.entity);
  const button = (effect: Effect): Button => ({ kind: 'button', id: draw.id('b'), name: 'Button', effect });
  const free = screens.filter((one) => one.binds?.record !== 'existing');
  const onRecord = (on: Entity): Effect[] => [
    { do: 'delete' },
    { do: 'action', action: `${on.id}_look` },
    { do: 'action', action: `${on.id}_hide` },
    ...screens
      .filter((one) => one.binds?.entity === on.id && one.binds.record === 'existing')
      .map((one): Effect => ({ do: 'open', screen: one.id })),
  ];
  const effects: Effect[] = [
    { do: 'sign-out' },
    { do: 'visit', url: 'https://example.com/' },
    { do: 'set-session', value: 'sv1', to: true },
    ...free.map((one): Effect => ({ do: 'open', screen: one.id })),
  ];
  if (entity) effects.push({ do: 'save' }, { do: 'save' });
  if (entity && screen.binds?.record === 'existing') effects.push(...onRecord(entity));
  const parts = draw.many(4, (): Part => {
    const kind = draw.upTo(3);
    if (kind === 0 && entity)
      return {
        kind: 'field',
        id: draw.id('p'),
        field: draw.one(entity.fields).id,
        ...(draw.chance(20) && { wide: true, help: 'Help' }),
      };
    if (kind === 1) return button(draw.one(effects));
    if (kind === 2) return { kind: 'text', id: draw.id('t'), text: 'Words' };
    const of = draw.one(entities);
    const next = of.fields.find(({ type }) => type.kind === 'record' && type.entity === entity?.id);
    return {
      kind: 'list',
      id: draw.id('l'),
      name: 'List',
      entity: of.id,
      ...(draw.chance(50) && { filter: drawCondition(draw, of) }),
      ...(next && screen.binds?.record === 'existing' && draw.chance(50) && { of: next.id }),
      columns: draw.many(3, (): Column => ({ id: draw.id('c'), field: draw.one(of.fields).id })),
      buttons: draw.many(1, () => button(draw.one(onRecord(of)))),
    };
  });
  const lists = parts.filter((part) => part.kind === 'list');
  const charts = draw.some(lists, 40).map(({ id: list, entity: of }): Part => ({
    kind: 'chart',
    id: draw.id('k'),
    name: 'Chart',
    list,
    by: `${of}_${draw.one(['colour', 'shown', 'due', 'place'])}`,
    as: draw.one(['bars', 'line']),
    ...(draw.chance(50) ? { shows: 'count' } : { shows: 'sum', of: `${of}_price` }),
  }));
  return [
    ...parts,
    ...charts,
    ...draw.some(lists, 40).map(({ id }) => button({ do: draw.one(['export', 'bulk'] as const), list: id })),
  ];
}

const UNITS = ['u1', 'u2', 'u3'];
const TIMES = ['2026-03-01T08:30:00Z', '2026-03-29T00:59:30Z', '2026-12-31T23:30:00Z'].map((at) =>
  Date.parse(at),
);

/** A condition whose types fit; without an entity, one that asks of no record. */
export function drawCondition(draw: Draw, entity?: Entity, depth = 2): Condition {
  const inner = (): Condition => drawCondition(draw, entity, depth - 1);
  const kind = draw.upTo(depth > 0 ? 9 : 6);
  if (kind === 7) return { all: draw.many(3, inner) };
  if (kind === 8) return { any: draw.many(3, inner) };
  if (kind === 9) return { not: inner() };
  if (kind === 0)
    return draw.one<Condition>([
      { hasRole: draw.one(['r1', 'r2', 'r4']), ...(draw.chance(30) && { exactly: true }), ...drawHeld(draw) },
      { hasPrivilege: draw.one(['q1', 'q2', 'q3']), ...drawHeld(draw) },
      ...(depth > 0 ? [{ inGroup: draw.one(['g1', 'gone']) }, { meets: 'c1' }] : []),
    ]);
  if (kind === 1) {
    const place: Operand = entity ? { record: `${entity.id}_place` } : { user: 'home_unit' };
    return {
      inUnit: place,
      unit: draw.one<Operand>([{ value: 'u1' }, { value: 'u2' }, { user: 'home_unit' }]),
    };
  }
  return drawComparison(draw, entity);
}

const drawHeld = (draw: Draw): { held?: HeldWhere } =>
  draw.chance(30) ? { held: draw.one(HELD_WHERE) } : {};

function drawComparison(draw: Draw, entity: Entity | undefined): Condition {
  const steps: (Id | undefined)[] = entity ? [undefined, undefined, `${entity.id}_next`] : [];
  const through = steps.length > 0 ? draw.one(steps) : undefined;
  const next = entity?.fields.find((one) => one.id === through)?.type;
  const of = next?.kind === 'record' ? next.entity : entity?.id;
  const field = (name: string): Operand[] =>
    of === undefined ? [] : [{ record: `${of}_${name}`, ...(through !== undefined && { through }) }];
  const [operands, constants, operators] = draw.one<
    readonly [readonly Operand[], readonly Value[], readonly string[]]
  >([
    [
      [...field('title'), ...field('owner'), { user: 'email' }, { user: 'badge' }],
      ['x', 'X', 'y', 'é̂ ', 'É̂ ', ''],
      ['=', '!=', 'contains', 'starts with', 'ends with'],
    ],
    [
      [...field('price'), { user: 'limit' }],
      ['10.5', '3', '-0.01', '123456789012345.1234567891'],
      ['=', '!=', '<', '<=', '>', '>='],
    ],
    [
      [...field('due'), { clock: 'today' }, { clock: 'today', plus: 3 }],
      ['2026-03-01', '2026-12-31'],
      ['=', '!=', '<', '<=', '>', '>='],
    ],
    [
      [...field('shown'), { session: 'sv1' }],
      [true, false],
      ['=', '!='],
    ],
    [
      [...field('colour'), ...field('colour')],
      ['red', 'blue'],
      ['=', '!='],
    ],
    [[{ clock: 'time' }], ['09:00', '00:30'], ['<', '>=']],
    [[{ clock: 'weekday' }], ['sunday', 'monday'], ['=', '!=']],
    [[{ clock: 'day' }], ['1', '29'], ['=', '<']],
    [[{ clock: 'now' }], ['2026-03-29T00:59:30', '2026-12-31T00:00:00'], ['<', '>=']],
  ]);
  const readable = operands.filter((one) => !('clock' in one) || operands.length < 3 || draw.chance(50));
  if (readable.length === 0) return { compare: '=', left: { user: 'email' }, right: { value: 'x' } };
  const left = draw.one(readable);
  if (!('clock' in left) && draw.chance(15)) return { empty: left };
  if (typeof constants[0] === 'string' && operators.length !== 2 && draw.chance(15))
    return { oneOf: left, values: draw.many(2, () => draw.one(constants), 1) };
  if (operators.length === 6 && draw.chance(15))
    return {
      between: left,
      from: { value: draw.one(constants) },
      to: draw.chance(60) ? { value: draw.one(constants) } : draw.one(operands),
    };
  const right: Operand = draw.chance(60) ? { value: draw.one(constants) } : draw.one(operands);
  const compare = draw.one(COMPARISONS.filter((one) => operators.includes(one)));
  const anyCase = operators.includes('contains') && draw.chance(30) ? { anyCase: true } : {};
  return draw.chance(80) || 'value' in right
    ? { compare, left, right, ...anyCase }
    : { compare, left: right, right: left, ...anyCase };
}

export function drawLine(draw: Draw, entity?: Entity): Line {
  const who = draw.one<Who>([
    { kind: 'everyone' },
    { kind: 'signed-out' },
    { kind: 'signed-in' },
    ...['r1', 'r2', 'r3', 'r4'].map((role): Who => ({ kind: 'role', role })),
    ...['r1', 'r2'].map((role): Who => ({ kind: 'role', role, exactly: true })),
    { kind: 'person', person: draw.one(PEOPLE) },
    { kind: 'privilege', privilege: draw.one(['q1', 'q2', 'q3']) },
    { kind: 'group', group: draw.one(['g1', 'gone']) },
    { kind: 'unit', unit: draw.one([...UNITS, 'u9']) },
  ]);
  return {
    id: draw.id('line'),
    who,
    what: draw.one(['see', 'edit', 'edit', 'at-most-see', 'block']),
    ...(draw.chance(35) && { when: drawCondition(draw, entity) }),
  };
}

/** A random, sound, small definition. Lines may name roles that are gone. */
export function drawDefinition(draw: Draw): Definition {
  const entityIds = ['e', 'f'].slice(0, 1 + draw.upTo(1));
  const entities = entityIds.map((id) => drawEntity(draw, id, entityIds));
  const bare = draw.many(
    5,
    () => {
      const id = draw.id('s');
      const record = draw.one(['existing', 'new'] as const);
      const binds = draw.chance(65) ? { binds: { entity: draw.one(entityIds), record } } : {};
      return { id, name: id, address: id, ...binds };
    },
    1,
  );
  const screens = bare.map((screen): Screen => {
    const section = () => ({
      id: draw.id('n'),
      name: 'Section',
      parts: drawParts(draw, screen, entities, bare),
    });
    const sections = draw.many(2, section, 1);
    if (draw.chance(70)) return { ...screen, sections };
    const faces = draw.many(
      2,
      () => ({ id: draw.id('h'), name: 'Face', sections: draw.many(1, section) }),
      1,
    );
    return { ...screen, sections, faces };
  });
  const cut = draw.upTo(screens.length);
  const free = screens.filter((screen) => screen.binds?.record !== 'existing');
  const item = (): MenuItem => ({
    id: draw.id('m'),
    name: 'Item',
    ...(free.length > 0 && { screen: draw.one(free).id }),
    items: [],
  });
  const drawFrame = (): Pick<Area, 'frame'> =>
    draw.chance(40) ? { frame: { id: draw.id('frame'), name: 'Frame', items: draw.many(2, item) } } : {};
  const definition: Definition = {
    format: 3,
    id: 'app',
    name: 'Random',
    currency: 'GBP',
    language: 'en-GB',
    timeZone: 'Europe/London',
    newScreens: 'nobody',
    signUp: false,
    privileges: [
      {
        id: 'qs',
        name: 'Abilities',
        privileges: [
          { id: 'q1', name: 'One' },
          { id: 'q2', name: 'Two' },
        ],
      },
    ],
    units: [
      { id: 'u1', name: 'All', units: [{ id: 'u2', name: 'Part', units: [] }] },
      { id: 'u3', name: 'Else', units: [] },
    ],
    attributes: [
      { id: 'badge', name: 'Badge', type: { kind: 'text' } },
      { id: 'limit', name: 'Limit', type: { kind: 'money' } },
    ],
    groups: [{ id: 'g1', name: 'Group', condition: drawCondition(draw, undefined, 0) }],
    conditions: [{ id: 'c1', name: 'Condition', condition: drawCondition(draw, undefined, 0) }],
    sessionValues: [{ id: 'sv1', name: 'Open', type: { kind: 'boolean' }, minutes: 10 }],
    roles: drawRoles(draw),
    entities,
    areas: [
      { id: 'a1', name: 'One', ...drawFrame(), screens: screens.slice(0, cut) },
      { id: 'a2', name: 'Two', ...drawFrame(), screens: screens.slice(cut) },
    ],
    menu: { id: 'menu', items: draw.many(2, () => ({ ...item(), items: draw.many(1, item) })) },
    gates: {},
    closed: {},
  };
  const gates: Record<Id, Gate> = {};
  const tree = new Tree(definition);
  for (const element of draw.some(tree.elements, 25))
    gates[element.id] = { lines: draw.many(3, () => drawLine(draw, tree.recordOf(element))) };
  gates['app'] = {
    lines: [
      { id: draw.id('line'), who: { kind: 'everyone' }, what: 'edit' },
      ...draw.many(1, () => drawLine(draw)),
    ],
  };
  return { ...definition, gates };
}

/** Anybody: somebody, or a kind of viewer, of whom nothing is known but roles. */
export function drawViewer(draw: Draw): Viewer {
  return draw.chance(30) ? drawKind(draw) : drawSomebody(draw);
}

const drawKind = (draw: Draw): Viewer => ({ kind: 'signed-in', assignments: drawAssignments(draw) });

/** One of the people of a kind, or nobody in particular who is of it. */
export const drawOneOf = (draw: Draw, kind: Extract<Viewer, { kind: 'signed-in' }>): Viewer => ({
  ...kind,
  attributes: drawAttributes(draw),
});

/** A person with roles, or who is signed out. */
export function drawSomebody(draw: Draw): Viewer {
  if (draw.chance(15)) return { kind: 'signed-out' };
  const assignments = drawAssignments(draw);
  return { kind: 'signed-in', assignments, person: draw.one(PEOPLE), attributes: drawAttributes(draw) };
}

const drawAssignments = (draw: Draw): Assignment[] =>
  draw.some(['r1', 'r2', 'r3', 'r4'], 30).map((role) => ({
    role,
    ...(draw.chance(35) && { unit: draw.one([...UNITS, 'u9']) }),
    ...(draw.chance(10) && { from: '2026-06-01T00:00:00Z' }),
    ...(draw.chance(10) && { until: '2026-06-01T00:00:00Z' }),
  }));

const drawAttributes = (draw: Draw): Values => ({
  name: 'Someone',
  email: draw.one(['x', 'y', 'é̂ ']),
  home_unit: draw.one([...UNITS, 'u9', null]),
  badge: draw.one(['x', null]),
  limit: draw.one(['10.5', '3.000', null]),
});

export const drawCircumstances = (draw: Draw): Circumstances => ({
  moment: draw.one(TIMES),
  ...(draw.chance(50) && { session: { sv1: draw.one([true, false, null]) } }),
});

/** A record of the entity with a few others that it may point to, two steps deep. */
export function drawRecord(draw: Draw, definition: Definition, entity: Entity): KnownRecord {
  const others = new Map<string, Values>();
  for (const one of definition.entities) others.set(`${one.id} k1`, drawValues(draw, one));
  return {
    id: 'k0',
    entity,
    values: drawValues(draw, entity),
    lookUp: (of, id) => others.get(`${of} ${id}`),
  };
}

/** A record of the entity, with missing values and values of the wrong type among them. */
export function drawValues(draw: Draw, entity: Entity): Values {
  const choices: Readonly<Record<string, readonly (Value | null)[]>> = {
    text: ['x', 'y', '', 'é̂ ', 'É̂ ', 'Xy', null],
    date: ['2026-03-01', '2026-03-04', '2026-12-31', 'x', null],
    unit: [...UNITS, 'u9', null],
    choice: [...COLOURS, null, true],
    boolean: [true, false, null, 'true'],
    money: ['10.5', '3', '-0.01', '123456789012345.123456789', 'ten', null],
    record: ['k1', 'k2', null],
  };
  return Object.fromEntries(
    entity.fields.flatMap((field) =>
      draw.chance(15) ? [] : [[field.id, draw.one(choices[field.type.kind] ?? [null])] as const],
    ),
  );
}
