import fc from 'fast-check';
import type {
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
import type { Value, Values } from '@/core/model/value';
import type { Viewer } from '@/core/access/viewer';

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
      { id: field('next'), name: 'Next', type: { kind: 'record', entity: draw.one(targets) } },
    ],
    actions: [
      { kind: 'create', id: `${id}_create`, name: 'Create' },
      { kind: 'update', id: `${id}_update`, name: 'Update' },
      { kind: 'delete', id: `${id}_delete`, name: 'Delete' },
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
    { do: 'action', action: `${on.id}_hide` },
    ...screens
      .filter((one) => one.binds?.entity === on.id && one.binds.record === 'existing')
      .map((one): Effect => ({ do: 'open', screen: one.id })),
  ];
  const effects: Effect[] = [
    { do: 'sign-out' },
    ...free.map((one): Effect => ({ do: 'open', screen: one.id })),
  ];
  if (entity) effects.push({ do: 'save' }, { do: 'save' });
  if (entity && screen.binds?.record === 'existing') effects.push(...onRecord(entity));
  return draw.many(4, (): Part => {
    const kind = draw.upTo(3);
    if (kind === 0 && entity) return { kind: 'field', id: draw.id('p'), field: draw.one(entity.fields).id };
    if (kind === 1) return button(draw.one(effects));
    if (kind === 2) return { kind: 'text', id: draw.id('t'), text: 'Words' };
    const of = draw.one(entities);
    return {
      kind: 'list',
      id: draw.id('l'),
      name: 'List',
      entity: of.id,
      ...(draw.chance(60) && { filter: drawFilter(draw, of) }),
      columns: draw.many(3, (): Column => ({ id: draw.id('c'), field: draw.one(of.fields).id })),
      buttons: draw.many(1, () => button(draw.one(onRecord(of)))),
    };
  });
}

const drawFilter = (draw: Draw, entity: Entity): { field: Id; equals: Value } =>
  draw.one([
    { field: `${entity.id}_colour`, equals: 'red' },
    { field: `${entity.id}_shown`, equals: true },
    { field: `${entity.id}_price`, equals: '10.5' },
    { field: `${entity.id}_title`, equals: 'x' },
  ]);

export function drawLine(draw: Draw): Line {
  const who = draw.one<Who>([
    { kind: 'everyone' },
    { kind: 'signed-out' },
    { kind: 'signed-in' },
    ...['r1', 'r2', 'r3', 'r4'].map((role): Who => ({ kind: 'role', role })),
    ...['r1', 'r2'].map((role): Who => ({ kind: 'role', role, exactly: true })),
    { kind: 'person', person: draw.one(PEOPLE) },
  ]);
  return { id: draw.id('line'), who, what: draw.one(['see', 'edit', 'edit', 'at-most-see', 'block']) };
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
  const screens = bare.map((screen): Screen => ({
    ...screen,
    sections: draw.many(
      2,
      () => ({ id: draw.id('n'), name: 'Section', parts: drawParts(draw, screen, entities, bare) }),
      1,
    ),
  }));
  const cut = draw.upTo(screens.length);
  const free = screens.filter((screen) => screen.binds?.record !== 'existing');
  const item = (): MenuItem => ({
    id: draw.id('m'),
    name: 'Item',
    ...(free.length > 0 && { screen: draw.one(free).id }),
    items: [],
  });
  const definition: Definition = {
    format: 1,
    id: 'app',
    name: 'Random',
    currency: 'GBP',
    language: 'en-GB',
    newScreens: 'nobody',
    roles: drawRoles(draw),
    entities,
    areas: [
      { id: 'a1', name: 'One', screens: screens.slice(0, cut) },
      { id: 'a2', name: 'Two', screens: screens.slice(cut) },
    ],
    menu: { id: 'menu', items: draw.many(2, () => ({ ...item(), items: draw.many(1, item) })) },
    gates: {},
  };
  const gates: Record<Id, Gate> = {};
  for (const element of draw.some(new Tree(definition).elements, 25))
    gates[element.id] = { lines: draw.many(3, () => drawLine(draw)) };
  gates['app'] = {
    lines: [
      { id: draw.id('line'), who: { kind: 'everyone' }, what: 'edit' },
      ...draw.many(1, () => drawLine(draw)),
    ],
  };
  return { ...definition, gates };
}

export function drawViewer(draw: Draw): Viewer {
  if (draw.chance(15)) return { kind: 'signed-out' };
  const roles = draw.some(['r1', 'r2', 'r3', 'r4'], 30);
  return draw.chance(40)
    ? { kind: 'signed-in', roles, person: draw.one(PEOPLE) }
    : { kind: 'signed-in', roles };
}

/** A record of the entity, with missing values and values of the wrong type among them. */
export function drawValues(draw: Draw, entity: Entity): Values {
  const choices: Readonly<Record<string, readonly (Value | null)[]>> = {
    text: ['x', 'y', '', 'é̂ ', null],
    choice: [...COLOURS, null, true],
    boolean: [true, false, null, 'true'],
    money: ['10.5', '3', '-0.01', null],
    record: ['k1', 'k2', null],
  };
  return Object.fromEntries(
    entity.fields.flatMap((field) =>
      draw.chance(15) ? [] : [[field.id, draw.one(choices[field.type.kind] ?? [null])] as const],
    ),
  );
}
