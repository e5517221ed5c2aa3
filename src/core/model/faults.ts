import { conditionLoop, whatIsWrong } from '../condition/check';
import type { Condition } from '../condition/condition';
import { attributesOf, readConstant } from '../condition/type';
import type {
  Button,
  Chart,
  Closed,
  Definition,
  Entity,
  List,
  MenuItem,
  Screen,
  SessionSetting,
} from './definition';
import type { Id } from './id';
import { privilegesOf } from './privileges';
import type { Problem } from './problem';
import { inclusionLoop, menusOf, sectionsOf, treeOf, type Tree } from './tree';
import { unitAndBelow, unitsOf } from './units';
import { readValue } from './value';

/** Collects what is wrong in a document of the right shape: ids used twice, things that point to nothing. */
class Faults {
  readonly found: Problem[] = [];
  readonly tree: Tree;
  readonly screens: Map<Id, Screen>;

  constructor(readonly definition: Definition) {
    this.tree = treeOf(definition);
    this.screens = new Map(this.tree.screens().map((screen) => [screen.id, screen]));
  }

  say(code: string, place: string, message: string, mend: string): void {
    this.found.push({ code, place, message, mend });
  }

  missing(place: string, what: string, id: Id): void {
    this.say('points-to-nothing', place, `There is no ${what} ${id}.`, `Name a ${what} that exists.`);
  }
}

/** Shapes that were found sound. */
const sound = new WeakSet<Tree>();

/**
 * Screens and gates that were found sound, with all that this depends on: an edit is checked by what it changes, and by
 * what depends on that.
 */
const soundParts = new WeakMap<object, readonly unknown[]>();

const sameParts = (a: readonly unknown[] | undefined, b: readonly unknown[]): boolean =>
  a?.length === b.length && a.every((one, n) => one === b[n]);

/** What conditions and constants can name. */
const namesOf = (one: Definition): readonly unknown[] => [
  one.entities,
  one.roles,
  one.privileges,
  one.units,
  one.attributes,
  one.groups,
  one.conditions,
  one.sessionValues,
];

/** Which screens there are, and what they are about: what others lead to. */
const leadsOf = (definition: Definition): string =>
  definition.areas
    .flatMap(({ screens }) => screens)
    .map(({ id, binds }) => `${id} ${binds?.entity} ${binds?.record}`)
    .join();

/** Everything in the document that points to nothing or contradicts itself; empty where it is sound. */
export function findFaults(definition: Definition): Problem[] {
  const faults = new Faults(definition);
  if (!sound.has(faults.tree)) {
    shape(faults);
    if (faults.found.length === 0) sound.add(faults.tree);
  }
  gates(faults);
  closed(faults);
  return faults.found;
}

/** All but who gets what. */
function shape(faults: Faults): void {
  const { definition } = faults;
  ids(faults);
  roles(faults);
  named(faults);
  entities(faults);
  const context = [...namesOf(definition), leadsOf(definition)];
  for (const screen of faults.screens.values()) {
    if (sameParts(soundParts.get(screen), context)) continue;
    const before = faults.found.length;
    screenParts(faults, screen);
    if (faults.found.length === before) soundParts.set(screen, context);
  }
  addresses(faults);
  for (const { items } of menusOf(definition)) menu(faults, items);
  if (definition.startScreen && !faults.screens.has(definition.startScreen))
    faults.missing(definition.name, 'screen', definition.startScreen);
}

function ids(faults: Faults): void {
  const seen = new Set<Id>();
  const { definition } = faults;
  const names = [
    ...faults.tree.elements,
    ...definition.roles,
    ...definition.privileges,
    ...privilegesOf(definition),
    ...unitsOf(definition),
    ...attributesOf(definition),
    ...definition.groups,
    ...definition.conditions,
    ...definition.sessionValues,
  ];
  for (const { id, name } of names) {
    if (seen.has(id))
      faults.say('id-twice', name, `The id ${id} is used twice.`, 'Give one of them an id of its own.');
    seen.add(id);
  }
}

function roles(faults: Faults): void {
  const privileges = privilegesOf(faults.definition);
  for (const role of faults.definition.roles) {
    for (const id of role.includes) if (!faults.tree.role(id)) faults.missing(role.name, 'role', id);
    if (role.startScreen && !faults.screens.has(role.startScreen))
      faults.missing(role.name, 'screen', role.startScreen);
    for (const id of role.privileges)
      if (!privileges.some((one) => one.id === id)) faults.missing(role.name, 'privilege', id);
    for (const { role: id } of role.handsOut ?? [])
      if (!faults.tree.role(id)) faults.missing(`${role.name}, hands out`, 'role', id);
  }
  const { unlock, standIn } = faults.definition;
  for (const [what, asked] of [
    ['Unlocking', unlock],
    ['Standing in', standIn],
  ] as const)
    if (asked && !privileges.some((one) => one.id === asked.privilege))
      faults.missing(what, 'privilege', asked.privilege);
  const loop = inclusionLoop(faults.definition.roles);
  if (loop)
    faults.say(
      'role-loop',
      loop[0] as string,
      `Roles include each other in a loop: ${loop.join(' → ')}.`,
      'Take one of these inclusions away.',
    );
}

/** Attributes, session values, and the conditions that have names. */
function named(faults: Faults): void {
  const { definition } = faults;
  for (const { name, type } of [...definition.attributes, ...definition.sessionValues])
    if (type.kind === 'record' && faults.tree.get(type.entity)?.kind !== 'rows')
      faults.missing(name, 'entity', type.entity);
  for (const { name, condition: asked } of definition.groups)
    condition(faults, `Group ${name}`, asked, undefined);
  for (const { name, entity: id, condition: asked } of definition.conditions) {
    const entity = definition.entities.find((one) => one.id === id);
    if (id !== undefined && !entity) faults.missing(`Condition ${name}`, 'entity', id);
    else condition(faults, `Condition ${name}`, asked, entity);
  }
  const loop = conditionLoop(definition);
  if (loop)
    faults.say(
      'condition-loop',
      loop[0] as string,
      `Conditions use each other in a loop: ${loop.join(' → ')}.`,
      'Take one of these uses away.',
    );
}

/** Do the condition's types fit, and does all that it asks of exist? */
function condition(faults: Faults, place: string, asked: Condition, entity: Entity | undefined): void {
  const wrong = whatIsWrong({ definition: faults.definition, entity }, asked);
  if (wrong) faults.say('condition', place, wrong.message, wrong.mend);
}

function entities(faults: Faults): void {
  for (const entity of faults.definition.entities) {
    for (const kind of ['export', 'bulk'] as const)
      if (entity.actions.filter((action) => action.kind === kind).length > 1)
        faults.say('actions', entity.name, `It has more than one ${kind} action.`, 'Keep one of them.');
    const unit = entity.fields.find((field) => field.id === entity.unitField);
    if (entity.unitField !== undefined && unit?.type.kind !== 'unit')
      faults.say(
        'unit-field',
        entity.name,
        'The field that says its unit must be one of its own that hold a unit.',
        'Choose such a field, or none.',
      );
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
      if (field.check && field.type.kind !== 'text')
        faults.say('check', place, 'Only a text can be checked.', 'Take the check away.');
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
  else if (field.type.kind === 'unit' && value !== null && !unitAndBelow(faults.definition, String(value)))
    faults.missing(place, 'unit', String(value));
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
  for (const one of screen.sets ?? []) setting(faults, screen.name, one);
  for (const part of sectionsOf(screen).flatMap((section) => section.parts)) {
    const place = `${screen.name}, ${faults.tree.get(part.id)?.name ?? part.id}`;
    if (part.kind === 'field' && !bound?.fields.some((field) => field.id === part.field))
      faults.missing(place, "field of the screen's entity", part.field);
    if (part.kind === 'button') button(faults, place, part, screen, undefined);
    if (part.kind === 'list') list(faults, place, part, screen);
    if (part.kind === 'chart') chart(faults, place, part, screen);
  }
}

function list(faults: Faults, place: string, list: List, screen: Screen): void {
  const entity = faults.definition.entities.find((one) => one.id === list.entity);
  if (!entity) return faults.missing(place, 'entity', list.entity);
  for (const column of list.columns)
    if (!entity.fields.some((field) => field.id === column.field))
      faults.missing(place, `field of ${entity.name}`, column.field);
  if (list.filter) condition(faults, `${place}, filter`, list.filter, entity);
  if (list.of !== undefined) limitedTo(faults, place, entity, list.of, screen);
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

const COUNTED_BY: readonly string[] = ['choice', 'unit', 'boolean', 'date'];

/** A chart is of a list beside it, by a field that has few values, and shows a number of its records. */
function chart(faults: Faults, place: string, { list: id, by, of, shows }: Chart, screen: Screen): void {
  const found = faults.tree.get(id);
  const entity = found?.kind === 'list' ? faults.tree.entityOf(found.node.entity) : undefined;
  if (!entity || found?.screen !== screen) return faults.missing(place, 'list on the same screen', id);
  const type = (field: Id | undefined): string | undefined =>
    entity.fields.find((one) => one.id === field)?.type.kind;
  if (!COUNTED_BY.includes(type(by) ?? ''))
    faults.say(
      'chart',
      place,
      `It counts by a field of ${entity.name} that cannot be counted by.`,
      'Choose a choice, a unit, a yes or no, or a day.',
    );
  const measured = ['number', 'money'].includes(type(of) ?? '');
  if (shows === 'count' ? of !== undefined : !measured)
    faults.say(
      'chart',
      place,
      shows === 'count' ? 'How many there are is of no field.' : `The ${shows} is of a number or of money.`,
      shows === 'count' ? 'Leave the field out.' : 'Choose such a field, or show how many there are.',
    );
}

/** What limits a list to the screen's record must be a field of the list's own that points to such records. */
function limitedTo(faults: Faults, place: string, { name, fields }: Entity, of: Id, { binds }: Screen): void {
  const type = fields.find((one) => one.id === of)?.type;
  if (!type) return faults.missing(place, `field of ${name}`, of);
  if (binds?.record !== 'existing' || type.kind !== 'record' || type.entity !== binds.entity)
    faults.say(
      'list-of',
      place,
      'It is limited to the records that point to the one on the screen, by a field that does not.',
      'Choose a field that points to what the screen shows, or let it show all.',
    );
}

/** A button's record is the row's in a list, else the screen's. */
function button(faults: Faults, place: string, node: Button, screen: Screen, row: Entity | undefined): void {
  const { effect } = node;
  const wrong = (message: string, mend: string): void =>
    faults.say('effect', `${place}, ${node.name}`, message, mend);
  const existing = row?.id ?? (screen.binds?.record === 'existing' ? screen.binds.entity : undefined);
  switch (effect.do) {
    case 'sign-out':
    case 'visit':
      return;
    case 'export':
    case 'bulk': {
      const list = faults.tree.get(effect.list);
      if (list?.kind !== 'list' || list.screen !== screen)
        return faults.missing(place, 'list on the same screen', effect.list);
      const entity = faults.tree.entityOf(list.node.entity);
      if (row) wrong('It is about a whole list, and stands in a row.', 'Put it beside the list.');
      else if (entity && !faults.tree.optionalAction(entity, effect.do))
        wrong(`${entity.name} has no ${effect.do} action.`, 'Add one to it, or take the button away.');
      return;
    }
    case 'set-session':
      return setting(faults, `${place}, ${node.name}`, effect);
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
      const action = found?.kind === 'action' ? found.node : undefined;
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
    if (/^(api|sign-in|sign-up|confirm|account)(\/|$)/.test(address))
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
  const context = namesOf(faults.definition);
  for (const [element, gate] of Object.entries(gates)) {
    const found = faults.tree.get(element);
    const own = [...context, element, found && faults.tree.recordOf(found)];
    if (found && sameParts(soundParts.get(gate), own)) continue;
    const before = faults.found.length;
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
      const entity = found && faults.tree.recordOf(found);
      if (line.when) condition(faults, `Gate of ${found?.name ?? element}`, line.when, entity);
    }
    if (faults.found.length === before) soundParts.set(gate, own);
  }
}

/** What closed elements show: only screens can refuse, send and be secret, and what they send to needs no record. */
function closed(faults: Faults): void {
  const { definition, tree, screens } = faults;
  for (const [id, shown] of Object.entries(definition.closed)) {
    const element = tree.get(id);
    if (!element) {
      faults.missing('Closed elements', 'element', id);
      continue;
    }
    const place = `Closed: ${element.name}`;
    const forScreens = !['locked', 'explained'].includes(shown.show);
    const canLock = ![
      'application',
      'area',
      'screen',
      'face',
      'menu',
      'rows',
      'action',
      'data-field',
    ].includes(element.kind);
    if (forScreens ? element.kind !== 'screen' : !canLock)
      faults.say(
        'closed',
        place,
        `“${shown.show}” does not fit this kind of element.`,
        'Screens refuse, send or are secret; what stands on them, and menu items, are locked or explained.',
      );
    if (shown.show !== 'sent') continue;
    if (!screens.has(shown.screen)) faults.missing(place, 'screen', shown.screen);
    else if (screens.get(shown.screen)?.binds?.record === 'existing')
      faults.say(
        'closed',
        place,
        'It sends to a screen that needs a record.',
        'Send to one that needs none.',
      );
    const way = [id];
    for (let next: Id | undefined = shown.screen; next !== undefined;) {
      if (way.includes(next)) {
        faults.say(
          'sent-loop',
          place,
          `Closed screens send to each other in a loop: ${[...way, next].map((one) => screens.get(one)?.name ?? one).join(' → ')}.`,
          'Let one of them refuse instead.',
        );
        break;
      }
      way.push(next);
      const after: Closed | undefined = Object.hasOwn(definition.closed, next)
        ? definition.closed[next]
        : undefined;
      next = after?.show === 'sent' ? after.screen : undefined;
    }
  }
}

/** What a button or a screen sets for the session. */
function setting(faults: Faults, place: string, { value: id, to }: SessionSetting): void {
  const value = faults.definition.sessionValues.find((one) => one.id === id);
  if (!value) return faults.missing(place, 'session value', id);
  if (to !== null && readConstant(faults.definition, value.type, to) !== to)
    faults.say('effect', place, `${value.name} cannot hold this.`, 'Give a value that fits its type.');
}
