import {
  FORMAT,
  type Area,
  type Definition,
  type Entity,
  type EntityField,
  type MenuItem,
  type Screen,
} from '../model/definition';
import type { Gate } from '../model/gate';
import { newId, type Id } from '../model/id';
import type { ValueType } from '../model/value-type';
import type { CellKind } from './cell';
import { entityFrom, freeAddress, workingScreens } from './kind';
import { cellsOf, type Sheet } from './sheet';

/** How a new application is called, and what it says days, numbers and money in. */
export interface ApplicationSettings {
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
export function emptyApplication(manners: ApplicationSettings, id: () => Id = newId): Definition {
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
export interface ApplicationFromSheets {
  readonly definition: Definition;
  readonly sheets: readonly { readonly entity: Id; readonly fields: readonly (Id | undefined)[] }[];
}

/**
 * A working application from sheets: for each an entity, a list, a screen for one record and one for a new one, and a
 * menu item. Only who has its first role gets them.
 */
export function applicationFrom(
  manners: ApplicationSettings,
  sheets: readonly Sheet[],
  choices: readonly SheetChoice[],
  id: () => Id = newId,
): ApplicationFromSheets {
  const entities = choices.map(() => id());
  const role = { id: id(), name: FIRST_ROLE, includes: [], privileges: [] };
  const start = emptyApplication(manners, id);
  const areas: Area[] = [];
  const items: MenuItem[] = [];
  const gates: Record<Id, Gate> = { ...start.gates };
  const made: Entity[] = [];
  const places: ApplicationFromSheets['sheets'][number][] = [];
  const addresses = new Set<string>();
  choices.forEach((choice, s) => {
    const fields = choice.columns.map((one, c) => fieldFrom(one, sheets[s] as Sheet, c, entities, id));
    const entity = entityFrom(
      entities[s] as Id,
      choice,
      fields.flatMap((one) => one ?? []),
      id,
    );
    const address = freeAddress(choice.plural, addresses);
    addresses.add(address);
    const screens = workingScreens(entity, address, id);
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
    case 'money':
    case 'date':
    case 'boolean':
      return { kind: as.kind };
  }
}
