import {
  FORMAT,
  type Action,
  type Area,
  type Definition,
  type Entity,
  type EntityField,
  type MenuItem,
  type Part,
  type Screen,
} from '../model/definition';
import type { Gate } from '../model/gate';
import { newId, type Id } from '../model/id';
import type { ValueType } from '../model/value-type';
import { addressFrom } from './names';
import type { CellKind } from './cell';
import { cellsOf, type Sheet } from './sheet';

/** How a new application is called, and what it says days, numbers and money in. */
export interface Manners {
  readonly name: string;
  readonly language: string;
  readonly currency: string;
  readonly timeZone: string;
}

/** One sheet as an entity: what one and many of its rows are called, and which columns become which fields. */
export interface SheetChoice {
  readonly name: string;
  readonly plural: string;
  /** By the sheet's columns, in their order. */
  readonly columns: readonly ColumnChoice[];
}

interface ColumnChoice {
  readonly name: string;
  readonly as: CellKind;
  readonly needed: boolean;
}

/** The first role of an application that is made from data: who has it works with all of it. */
const FIRST_ROLE = 'Member';

/** An application with nothing in it but its name. Nobody gets what is new in it until they are given it. */
export function emptyApplication(manners: Manners, id: () => Id = newId): Definition {
  const own = id();
  return {
    format: FORMAT,
    id: own,
    ...manners,
    newScreens: 'nobody',
    signUp: false,
    roles: [],
    privileges: [],
    units: [],
    attributes: [],
    groups: [],
    conditions: [],
    sessionValues: [],
    entities: [],
    areas: [],
    menu: { id: id(), items: [] },
    gates: { [own]: { lines: [{ id: id(), who: { kind: 'everyone' }, what: 'edit' }] } },
    closed: {},
  };
}

/** Which entity and fields each sheet and its columns became, by their places. */
export interface Made {
  readonly definition: Definition;
  readonly sheets: readonly { readonly entity: Id; readonly fields: readonly (Id | undefined)[] }[];
}

/**
 * A working application from sheets: for each an entity, a list, a screen for one record and one for a new one, and a
 * menu item. Only who has its first role gets them.
 */
export function applicationFrom(
  manners: Manners,
  sheets: readonly Sheet[],
  choices: readonly SheetChoice[],
  id: () => Id = newId,
): Made {
  const entities = choices.map(() => id());
  const role = { id: id(), name: FIRST_ROLE, includes: [], privileges: [] };
  const start = emptyApplication(manners, id);
  const areas: Area[] = [];
  const items: MenuItem[] = [];
  const gates: Record<Id, Gate> = { ...start.gates };
  const made: Entity[] = [];
  const places: Made['sheets'][number][] = [];
  const addresses = new Set<string>();
  choices.forEach((choice, s) => {
    const fields = choice.columns.map((one, c) => fieldFrom(one, sheets[s] as Sheet, c, entities, id));
    const entity = entityFrom(
      entities[s] as Id,
      choice,
      fields.flatMap((one) => one ?? []),
      id,
    );
    const screens = screensOf(entity, addressOf(choice.plural, addresses), id);
    for (const screen of screens)
      gates[screen.id] = { lines: [{ id: id(), who: { kind: 'role', role: role.id }, what: 'edit' }] };
    made.push(entity);
    places.push({ entity: entity.id, fields: fields.map((one) => one?.id) });
    areas.push({ id: id(), name: choice.plural, screens });
    items.push({ id: id(), name: choice.plural, screen: (screens[0] as Screen).id, items: [] });
  });
  const definition: Definition = {
    ...start,
    ...(areas[0] && { startScreen: (areas[0].screens[0] as Screen).id }),
    roles: [role],
    entities: made,
    areas,
    menu: { ...start.menu, items },
    gates,
  };
  return { definition, sheets: places };
}

function addressOf(plural: string, taken: Set<string>): string {
  const plain = addressFrom(plural, 'records');
  const start = /^(api|sign-in|sign-up|confirm|account)$/.test(plain) ? `${plain}-list` : plain;
  let address = start;
  for (let n = 2; taken.has(address); n++) address = `${start}-${n}`;
  taken.add(address);
  return address;
}

function fieldFrom(
  { name, as, needed }: ColumnChoice,
  sheet: Sheet,
  column: number,
  entities: readonly Id[],
  id: () => Id,
): EntityField | undefined {
  const type = typeFrom(as, sheet, column, entities, id);
  return type && { id: id(), name, type, ...(needed && { required: true }) };
}

function typeFrom(
  as: CellKind,
  sheet: Sheet,
  column: number,
  entities: readonly Id[],
  id: () => Id,
): ValueType | undefined {
  switch (as.kind) {
    case 'left':
      return undefined;
    case 'text':
      return { kind: 'text' };
    case 'long':
      return { kind: 'text', long: true };
    case 'number':
      return { kind: 'number', decimals: as.decimals };
    case 'points':
      return { kind: 'record', entity: entities[as.sheet] as Id };
    case 'choice': {
      const names = [...new Set(cellsOf(sheet, column))].filter((cell) => cell && cell.length <= 120);
      return { kind: 'choice', options: names.map((name) => ({ id: id(), name })) };
    }
    default:
      return { kind: as.kind };
  }
}

/** A record is called by the text that names it best: a name or title, else the first text; one is made where there is none. */
function entityFrom(
  entityId: Id,
  { name, plural }: SheetChoice,
  fields: EntityField[],
  id: () => Id,
): Entity {
  const texts = fields.filter(({ type }) => type.kind === 'text' && !type.long);
  const label = texts.find((one) => /\b(name|title|label|subject)\b/i.test(one.name)) ??
    texts[0] ?? { id: id(), name: 'Name', type: { kind: 'text' } };
  const usual = (['create', 'update', 'delete', 'export', 'bulk'] as const).map((kind): Action => ({
    kind,
    id: id(),
    name: { create: 'Create', update: 'Update', delete: 'Delete', export: 'Export', bulk: 'Change many' }[
      kind
    ],
  }));
  return {
    id: entityId,
    name,
    plural,
    labelField: label.id,
    fields: fields.includes(label) ? fields : [label, ...fields],
    actions: usual,
  };
}

const MOST_COLUMNS = 6;

function screensOf(entity: Entity, address: string, id: () => Id): Screen[] {
  const fieldsHere = (): Part[] =>
    entity.fields.map((field) => ({ kind: 'field', id: id(), field: field.id }));
  const button = (name: string, effect: Extract<Part, { kind: 'button' }>['effect']): Part => ({
    kind: 'button',
    id: id(),
    name,
    effect,
  });
  const [record, fresh, list] = [id(), id(), id()];
  const shown = [...entity.fields]
    .sort((a, b) => Number(b.id === entity.labelField) - Number(a.id === entity.labelField))
    .filter(({ type }) => type.kind !== 'text' || !type.long)
    .slice(0, MOST_COLUMNS);
  const one = entity.name.charAt(0).toLowerCase() + entity.name.slice(1);
  return [
    {
      id: id(),
      name: entity.plural,
      address,
      sections: [
        {
          id: id(),
          name: entity.plural,
          parts: [
            button(`New ${one}`, { do: 'open', screen: fresh }),
            button('Export', { do: 'export', list }),
            button('Change many', { do: 'bulk', list }),
            {
              kind: 'list',
              id: list,
              name: entity.plural,
              entity: entity.id,
              columns: shown.map((field) => ({ id: id(), field: field.id })),
              opens: record,
              buttons: [],
            },
          ],
        },
      ],
    },
    {
      id: record,
      name: entity.name,
      address,
      binds: { entity: entity.id, record: 'existing' },
      sections: [
        { id: id(), name: 'Details', parts: fieldsHere() },
        {
          id: id(),
          name: 'Actions',
          parts: [button('Save changes', { do: 'save' }), button('Delete', { do: 'delete' })],
        },
      ],
    },
    {
      id: fresh,
      name: `New ${one}`,
      address: `${address}/new`,
      binds: { entity: entity.id, record: 'new' },
      sections: [
        { id: id(), name: 'Details', parts: fieldsHere() },
        { id: id(), name: 'Actions', parts: [button('Add', { do: 'save' })] },
      ],
    },
  ];
}
