import type { Action, Button, Definition, Entity, List, MenuItem, Screen } from './definition';
import type { Id } from './id';
import type { Problem } from './problem';
import { inclusionLoop, Tree } from './tree';
import { readValue } from './value';

/** Collects what is wrong in a document of the right shape: ids used twice, things that point to nothing. */
class Faults {
  readonly found: Problem[] = [];
  readonly tree: Tree;
  readonly screens: Map<Id, Screen>;

  constructor(readonly definition: Definition) {
    this.tree = new Tree(definition);
    this.screens = new Map(this.tree.screens().map((screen) => [screen.id, screen]));
  }

  say(code: string, place: string, message: string, mend: string): void {
    this.found.push({ code, place, message, mend });
  }

  missing(place: string, what: string, id: Id): void {
    this.say('points-to-nothing', place, `There is no ${what} ${id}.`, `Name a ${what} that exists.`);
  }
}

/** Everything in the document that points to nothing or contradicts itself; empty where it is sound. */
export function findFaults(definition: Definition): Problem[] {
  const faults = new Faults(definition);
  ids(faults);
  roles(faults);
  entities(faults);
  for (const screen of faults.screens.values()) screenParts(faults, screen);
  addresses(faults);
  menu(faults, definition.menu.items);
  gates(faults);
  if (definition.startScreen && !faults.screens.has(definition.startScreen))
    faults.missing(definition.name, 'screen', definition.startScreen);
  return faults.found;
}

function ids(faults: Faults): void {
  const seen = new Set<Id>();
  const names = [...faults.tree.elements, ...faults.definition.roles];
  for (const { id, name } of names) {
    if (seen.has(id))
      faults.say('id-twice', name, `The id ${id} is used twice.`, 'Give one of them an id of its own.');
    seen.add(id);
  }
}

function roles(faults: Faults): void {
  for (const role of faults.definition.roles) {
    for (const id of role.includes) if (!faults.tree.role(id)) faults.missing(role.name, 'role', id);
    if (role.startScreen && !faults.screens.has(role.startScreen))
      faults.missing(role.name, 'screen', role.startScreen);
  }
  const loop = inclusionLoop(faults.definition.roles);
  if (loop)
    faults.say(
      'role-loop',
      loop[0] as string,
      `Roles include each other in a loop: ${loop.join(' → ')}.`,
      'Take one of these inclusions away.',
    );
}

function entities(faults: Faults): void {
  for (const entity of faults.definition.entities) {
    for (const kind of ['create', 'update', 'delete'] as const)
      if (entity.actions.filter((action) => action.kind === kind).length !== 1)
        faults.say(
          'actions',
          entity.name,
          `It needs exactly one ${kind} action.`,
          'Add it, or take the others away.',
        );
    const label = entity.fields.find((field) => field.id === entity.labelField);
    if (label?.type.kind !== 'text')
      faults.say(
        'label',
        entity.name,
        'Its label must be one of its own text fields.',
        'Choose such a field as label.',
      );
    for (const field of entity.fields) {
      const place = `${entity.name}, ${field.name}`;
      if (field.type.kind === 'record' && faults.tree.get(field.type.entity)?.kind !== 'rows')
        faults.missing(place, 'entity', field.type.entity);
      if (field.initial !== undefined) constant(faults, place, entity, field.id, field.initial);
    }
    for (const action of entity.actions)
      if (action.kind === 'named')
        for (const [field, value] of Object.entries(action.sets)) {
          const place = `${entity.name}, ${action.name}`;
          constant(faults, place, entity, field, value);
        }
  }
}

/** Is the constant one that the field can hold? */
function constant(
  faults: Faults,
  place: string,
  entity: Entity,
  id: Id,
  value: string | boolean | null,
): void {
  const field = entity.fields.find((one) => one.id === id);
  if (!field) return faults.missing(place, `field of ${entity.name}`, id);
  const reading = readValue(field, value);
  if ('problem' in reading)
    faults.say('value', place, `${field.name}: ${reading.problem}`, 'Give a value that fits the field.');
  else if (reading.value !== value)
    faults.say(
      'value',
      place,
      `${field.name}: write it as ${String(reading.value)}.`,
      'Write it in its plain form.',
    );
}

function screenParts(faults: Faults, screen: Screen): void {
  const bound = screen.binds && faults.definition.entities.find((one) => one.id === screen.binds?.entity);
  if (screen.binds && !bound) faults.missing(screen.name, 'entity', screen.binds.entity);
  for (const part of screen.sections.flatMap((section) => section.parts)) {
    const place = `${screen.name}, ${faults.tree.get(part.id)?.name ?? part.id}`;
    if (part.kind === 'field' && !bound?.fields.some((field) => field.id === part.field))
      faults.missing(place, "field of the screen's entity", part.field);
    if (part.kind === 'button') button(faults, place, part, screen, undefined);
    if (part.kind === 'list') list(faults, place, part, screen);
  }
}

function list(faults: Faults, place: string, list: List, screen: Screen): void {
  const entity = faults.definition.entities.find((one) => one.id === list.entity);
  if (!entity) return faults.missing(place, 'entity', list.entity);
  for (const column of list.columns)
    if (!entity.fields.some((field) => field.id === column.field))
      faults.missing(place, `field of ${entity.name}`, column.field);
  if (list.filter) constant(faults, place, entity, list.filter.field, list.filter.equals);
  if (list.opens) {
    const binds = faults.screens.get(list.opens)?.binds;
    if (binds?.entity !== list.entity || binds.record !== 'existing')
      faults.say(
        'row-leads',
        place,
        `Its rows must lead to a screen that shows one ${entity.name}.`,
        'Choose such a screen, or none.',
      );
  }
  for (const one of list.buttons) button(faults, place, one, screen, entity);
}

/** A button's record is the row's in a list, else the screen's. */
function button(faults: Faults, place: string, node: Button, screen: Screen, row: Entity | undefined): void {
  const { effect } = node;
  const wrong = (message: string, mend: string): void =>
    faults.say('effect', `${place}, ${node.name}`, message, mend);
  const existing = row?.id ?? (screen.binds?.record === 'existing' ? screen.binds.entity : undefined);
  switch (effect.do) {
    case 'sign-out':
      return;
    case 'open': {
      const target = faults.screens.get(effect.screen);
      if (!target) return faults.missing(place, 'screen', effect.screen);
      if (target.binds?.record === 'existing' && target.binds.entity !== existing)
        wrong(
          'It has no record to open that screen with.',
          'Open a screen that needs no record, or put the button where the record is.',
        );
      return;
    }
    case 'save':
      if (!screen.binds || row) wrong('There is nothing to save here.', "Put it on a record's screen.");
      return;
    case 'delete':
      if (!existing) wrong('There is no record to delete here.', "Put it on a record's screen or in a list.");
      return;
    case 'action': {
      const found = faults.tree.get(effect.action);
      const action = found?.kind === 'action' ? (found.node as Action) : undefined;
      if (action?.kind !== 'named') return faults.missing(place, 'named action', effect.action);
      if (!existing || faults.tree.entityOf(action.id)?.id !== existing)
        wrong(
          'There is no record here for that action.',
          "Put it on the screen of the action's entity, or in a list of it.",
        );
    }
  }
}

function addresses(faults: Faults): void {
  const seen = new Map<string, string>();
  for (const screen of faults.screens.values()) {
    const address = screen.binds?.record === 'existing' ? `${screen.address}/*` : screen.address;
    const other = seen.get(address);
    if (other)
      faults.say(
        'address-twice',
        screen.name,
        `${other} has the address ${address} too.`,
        'Give one of them another address.',
      );
    if (/^(api|sign-in)(\/|$)/.test(address))
      faults.say(
        'address-kept',
        screen.name,
        `The address ${address} is kept for the application itself.`,
        'Choose another address.',
      );
    seen.set(address, screen.name);
  }
}

function menu(faults: Faults, items: readonly MenuItem[]): void {
  for (const item of items) {
    const target = item.screen ? faults.screens.get(item.screen) : undefined;
    if (item.screen && !target) faults.missing(`Menu, ${item.name}`, 'screen', item.screen);
    if (target?.binds?.record === 'existing')
      faults.say(
        'menu',
        `Menu, ${item.name}`,
        `${target.name} needs a record, and a menu has none.`,
        'Lead to a list instead.',
      );
    menu(faults, item.items);
  }
}

function gates(faults: Faults): void {
  const { gates, id, name } = faults.definition;
  if (!Object.hasOwn(gates, id))
    faults.say(
      'no-entry',
      name,
      'The application needs lines of its own: who may enter at all.',
      'Give it lines.',
    );
  for (const [element, gate] of Object.entries(gates)) {
    const found = faults.tree.get(element);
    if (!found) faults.missing('Gates', 'element', element);
    const seen = new Set<Id>();
    for (const line of gate.lines) {
      if (seen.has(line.id))
        faults.say(
          'id-twice',
          `Gate of ${found?.name ?? element}`,
          `The id ${line.id} is used twice.`,
          'Give one of the lines an id of its own.',
        );
      seen.add(line.id);
    }
  }
}
