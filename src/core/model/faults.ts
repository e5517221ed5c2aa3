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
import type { ValueType } from './value-type';
import { kindOf } from './values';
import type { ValueKind } from './values/kind';
import { withArticle } from './article';

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
    this.say('points-to-nothing', place, `There is no ${what} ${id}.`, `Use an existing ${what}.`);
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
      faults.say('id-twice', name, `The id ${id} is used twice.`, 'Give one of them a different id.');
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
      if (!faults.tree.role(id)) faults.missing(`${role.name}, assignable roles`, 'role', id);
  }
  const { unlock, standIn } = faults.definition;
  for (const [what, asked] of [
    ['Temporary unlocking', unlock],
    ['Acting as another person', standIn],
  ] as const)
    if (asked && !privileges.some((one) => one.id === asked.privilege))
      faults.missing(what, 'privilege', asked.privilege);
  const loop = inclusionLoop(faults.definition.roles);
  if (loop)
    faults.say(
      'role-loop',
      loop[0] as string,
      `Roles include each other in a loop: ${loop.join(' → ')}.`,
      'Remove one of these inclusions.',
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
      'Remove one of these references.',
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
        'The unit field must be a field of this entity with the type Unit.',
        'Choose such a field or leave it empty.',
      );
    for (const kind of ['create', 'update', 'delete'] as const)
      if (entity.actions.filter((action) => action.kind === kind).length !== 1)
        faults.say(
          'actions',
          entity.name,
          `It needs exactly one ${kind} action.`,
          'Add it or remove the others.',
        );
    const label = entity.fields.find((field) => field.id === entity.labelField);
    if (label?.type.kind !== 'text')
      faults.say(
        'label',
        entity.name,
        'The label must be a text field of this entity.',
        'Choose a text field as the label.',
      );
    for (const field of entity.fields) {
      const place = `${entity.name}, ${field.name}`;
      if (field.type.kind === 'record' && faults.tree.get(field.type.entity)?.kind !== 'rows')
        faults.missing(place, 'entity', field.type.entity);
      if (field.initial !== undefined) constant(faults, place, entity, field.id, field.initial);
      if (field.check && field.type.kind !== 'text')
        faults.say('check', place, 'Only text fields can have a format check.', 'Remove the check.');
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
    faults.say(
      'value',
      place,
      `${field.name}: ${reading.problem}`,
      'Enter a value that matches the field’s type.',
    );
  else if (field.type.kind === 'unit' && value !== null && !unitAndBelow(faults.definition, String(value)))
    faults.missing(place, 'unit', String(value));
  else if (reading.value !== value)
    faults.say(
      'value',
      place,
      `${field.name} must be written as ${String(reading.value)}.`,
      'Use the standard form of the value.',
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
        `Its rows must open a screen that shows ${withArticle(entity.name)} record.`,
        'Choose such a screen or leave it empty.',
      );
  }
  for (const one of list.buttons) button(faults, place, one, screen, entity);
}

/** A chart is of a list beside it, by a field that has few values, and shows a number of its records. */
function chart(faults: Faults, place: string, { list: id, by, of, shows }: Chart, screen: Screen): void {
  const found = faults.tree.get(id);
  const entity = found?.kind === 'list' ? faults.tree.entityOf(found.node.entity) : undefined;
  if (!entity || found?.screen !== screen) return faults.missing(place, 'list on the same screen', id);
  const kind = (field: Id | undefined): ValueKind<ValueType> | undefined => {
    const type = entity.fields.find((one) => one.id === field)?.type;
    return type && kindOf(type);
  };
  if (kind(by)?.countedBy === undefined)
    faults.say(
      'chart',
      place,
      `The chart cannot be grouped by this field of ${entity.name}.`,
      'Choose a field of type choice, unit, yes or no, or date.',
    );
  const measured = kind(of)?.measured === true;
  if (shows === 'count' ? of !== undefined : !measured)
    faults.say(
      'chart',
      place,
      shows === 'count'
        ? 'A count does not use a field.'
        : `The ${shows} needs a field of type number or money.`,
      shows === 'count' ? 'Remove the field.' : 'Choose such a field or use a count.',
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
      'The list is limited by a field that does not refer to the record on the screen.',
      'Choose a field that refers to the screen’s entity, or show all records.',
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
      if (row)
        wrong('This button works on a whole list but is placed in a row.', 'Move it next to the list.');
      else if (entity && !faults.tree.optionalAction(entity, effect.do))
        wrong(`${entity.name} has no ${effect.do} action.`, 'Add this action or delete the button.');
      return;
    }
    case 'set-session':
      return setting(faults, `${place}, ${node.name}`, effect);
    case 'open': {
      const target = faults.screens.get(effect.screen);
      if (!target) return faults.missing(place, 'screen', effect.screen);
      if (target.binds?.record === 'existing' && target.binds.entity !== existing)
        wrong(
          'That screen needs a record, and none is available here.',
          'Choose a screen that needs no record, or move the button to a place with a record.',
        );
      return;
    }
    case 'save':
      if (!screen.binds || row)
        wrong('A save button needs a record, and none is available here.', 'Move it to a record screen.');
      return;
    case 'delete':
      if (!existing)
        wrong(
          'A delete button needs a record, and none is available here.',
          'Move it to a record screen or into a list.',
        );
      return;
    case 'action': {
      const found = faults.tree.get(effect.action);
      const action = found?.kind === 'action' ? found.node : undefined;
      if (action?.kind !== 'named') return faults.missing(place, 'named action', effect.action);
      if (!existing || faults.tree.entityOf(action.id)?.id !== existing)
        wrong(
          'This action needs a record, and none is available here.',
          'Move it to a screen or list of the action’s entity.',
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
        `${other} has the same address (${address}).`,
        'Change one of the addresses.',
      );
    if (/^(api|sign-in|sign-up|confirm|account)(\/|$)/.test(address))
      faults.say(
        'address-kept',
        screen.name,
        `The address ${address} is reserved.`,
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
        `${target.name} needs a record, so a menu item cannot open it.`,
        'Use a list screen instead.',
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
      'The application must have its own lines to say who can enter.',
      'Add at least one line.',
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
          'Give one of the lines a different id.',
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
      faults.missing('What people without access see', 'element', id);
      continue;
    }
    const place = `What people without access see: ${element.name}`;
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
        `“${shown.show}” is not allowed for this kind of element.`,
        'Use refused, sent or secret for screens, and locked or explained for menu items and elements on a screen.',
      );
    if (shown.show !== 'sent') continue;
    if (!screens.has(shown.screen)) faults.missing(place, 'screen', shown.screen);
    else if (screens.get(shown.screen)?.binds?.record === 'existing')
      faults.say(
        'closed',
        place,
        'It redirects to a screen that needs a record.',
        'Choose a screen that needs no record.',
      );
    const way = [id];
    for (let next: Id | undefined = shown.screen; next !== undefined;) {
      if (way.includes(next)) {
        faults.say(
          'sent-loop',
          place,
          `These screens redirect to each other in a loop: ${[...way, next].map((one) => screens.get(one)?.name ?? one).join(' → ')}.`,
          'Make one of them show “no access” instead.',
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
    faults.say(
      'effect',
      place,
      `This is not a valid value for ${value.name}.`,
      'Enter a value that matches its type.',
    );
}
