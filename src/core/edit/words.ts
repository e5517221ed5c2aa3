import { print } from '../condition/print';
import type { Definition, Role } from '../model/definition';
import { sameLine, type Line, type What, type Who } from '../model/gate';
import type { Id } from '../model/id';
import type { Widening } from './widening';
import { privilegesOf } from '../model/privileges';
import { unitsOf } from '../model/units';
import { isDataDoor, treeOf, type Element, type ElementKind } from '../model/tree';
import type { Answer, Level } from '../access/level';
import type { Change } from './difference';

/** How people are called, by id; undefined for one who is gone. */
export type PersonName = (id: Id) => string | undefined;

/** Whom a line speaks of, in words. */
export function whoInWords(who: Who, definition: Definition, personName: PersonName): string {
  switch (who.kind) {
    case 'everyone':
      return 'Everyone';
    case 'signed-out':
      return 'Signed out';
    case 'signed-in':
      return 'Signed in';
    case 'person':
      return personName(who.person) ?? 'A person who is gone';
    case 'privilege':
      return named(privilegesOf(definition), who.privilege, 'A privilege', (name) => `Holders of “${name}”`);
    case 'group':
      return named(definition.groups, who.group, 'A group', (name) => `Group “${name}”`);
    case 'unit':
      return named(unitsOf(definition), who.unit, 'A unit', (name) => `At home in ${name}`);
    case 'role': {
      const role = definition.roles.find((one) => one.id === who.role);
      if (!role) return 'A role that is gone';
      if (who.exactly) return `${role.name}, exactly`;
      return definition.roles.some((one) => one.includes.includes(role.id))
        ? `${role.name} and above`
        : role.name;
    }
  }
}

function named(
  among: readonly { readonly id: Id; readonly name: string }[],
  id: Id,
  kind: string,
  say: (name: string) => string,
): string {
  const found = among.find((one) => one.id === id);
  return found ? say(found.name) : `${kind} that is gone`;
}

type Words = readonly [string, string, string];

const LEVELS: Words = ['None', 'See', 'Edit'];
const SCREEN: Words = ['Closed', 'Read', 'Work'];
const USE: Words = ['None', 'Disabled', 'Use'];

const wordsFor = (kind: ElementKind): Words =>
  kind === 'screen' || kind === 'area' || kind === 'application'
    ? SCREEN
    : kind === 'button' || kind === 'action' || kind === 'menu-item'
      ? USE
      : LEVELS;

/** A level in the word that fits the kind of element. */
export const levelInWords = (kind: ElementKind, level: Level): string => wordsFor(kind)[level];

/** An answer in one word; where it differs from record to record, "Depends". */
export const answerInWords = (kind: ElementKind, { least, most }: Answer): string =>
  least === most ? levelInWords(kind, most) : 'Depends';

/** What a line does, in the words that fit the kind of element. */
export function whatInWords(kind: ElementKind, what: What): string {
  switch (what) {
    case 'see':
      return levelInWords(kind, 1);
    case 'edit':
      return levelInWords(kind, 2);
    case 'at-most-see':
      return `At most ${levelInWords(kind, 1).toLowerCase()}`;
    case 'block':
      return 'Block';
  }
}

const KINDS: Readonly<Record<ElementKind, string>> = {
  application: 'Application',
  area: 'Area',
  screen: 'Screen',
  face: 'Face',
  section: 'Section',
  field: 'Field',
  button: 'Button',
  list: 'List',
  column: 'Column',
  text: 'Text',
  people: 'People',
  menu: 'Menu',
  'menu-item': 'Menu item',
  rows: 'Records',
  action: 'Action',
  'data-field': 'Data',
};

export const kindInWords = (kind: ElementKind): string => KINDS[kind];

/** Where an element stands: "Field on Item details, in Custody". */
export function placeInWords(element: Element): string {
  const kind = kindInWords(element.kind);
  const { container, screen } = element;
  if (!container || element.kind === 'menu') return kind;
  if (element.kind === 'rows') return 'Records of the application';
  if (element.kind === 'data-field') return `Field of the data, of ${container.name}`;
  if (element.kind === 'action') return `Action on ${container.name}`;
  if (!screen || element.kind === 'screen') return `${kind} in ${container.name}`;
  if (element.kind === 'section') return `${kind} of ${screen.name}`;
  return `${kind} on ${screen.name}, in ${container.name}`;
}

/** An element's name in a sentence that has no other context: the data's field with its entity. */
export function fullName(element: Element): string {
  const { kind, name, container, screen } = element;
  if (kind === 'data-field' || kind === 'action')
    return `${container?.name ?? ''}: ${name} (data, everywhere)`;
  if (kind === 'rows') return `${name} (records)`;
  if (kind === 'menu-item') return `${name} (in the menu)`;
  if (kind === 'screen' || !screen) return name;
  return `${name} (${kindInWords(kind).toLowerCase()} on ${screen.name})`;
}

/** A handle beside others of the same door: "Item list (column)". */
export function handleName(element: Element): string {
  const { kind, name, screen } = element;
  if (kind === 'menu-item') return `${name} (in the menu)`;
  if (kind === 'screen' || !screen) return name;
  return kind === 'button' || kind === 'list'
    ? `${screen.name} (${name})`
    : `${screen.name} (${kindInWords(kind).toLowerCase()})`;
}

/** A whole line: "Assistant and above: see, when record.branch = …". */
export function lineInWords(line: Line, element: Id, definition: Definition, personName: PersonName): string {
  const tree = treeOf(definition);
  const on = tree.get(element);
  const kind = on?.kind ?? 'section';
  const said = `${whoInWords(line.who, definition, personName)}: ${whatInWords(kind, line.what).toLowerCase()}`;
  if (!line.when) return said;
  return `${said}, when ${print({ definition, entity: on && tree.recordOf(on) }, line.when)}`;
}

/** A change in words: what it is about, and what was done, a sentence each. */
export function changeInWords(
  change: Change,
  before: Definition,
  after: Definition,
  personName: PersonName,
): { readonly about: string; readonly done: readonly string[] } {
  if (change.kind === 'role') return { about: change.name, done: roleInWords(change.role, before, after) };
  const element = treeOf(after).get(change.element) ?? treeOf(before).get(change.element);
  const about = element ? fullName(element) : change.element;
  if (change.kind !== 'gate') return { about, done: [`It was ${change.kind}.`] };
  const kind = element?.kind ?? 'section';
  const inWords = (definition: Definition) => (line: Line) =>
    lineInWords(line, change.element, definition, personName);
  const follows = isDataDoor({ kind }) ? 'the screens' : (element?.container?.name ?? '');
  const list = (lines: readonly Line[]): string => lines.map(inWords(after)).join('; ') || 'none, so nobody';
  if (!change.after) return { about, done: [`It follows ${follows} again.`] };
  if (!change.before)
    return { about, done: [`It no longer follows ${follows}. Its lines: ${list(change.after)}.`] };
  const has = (lines: readonly Line[], line: Line): boolean => lines.some((one) => sameLine(one, line));
  const gone = change.before.filter((line) => !has(change.after ?? [], line));
  const added = change.after.filter((line) => !has(change.before ?? [], line));
  return {
    about,
    done: [
      ...gone.map((line) => `No longer: ${inWords(before)(line)}.`),
      ...added.map((line) => `Now: ${inWords(after)(line)}.`),
      ...(gone.length + added.length === 0 ? ['Its lines stand in another order.'] : []),
    ],
  };
}

const SETS_COMPARED =
  'This gives power: who holds it and looks after people may set what conditions compare, and so let them in.';

/** What is different about a role, a sentence each. */
function roleInWords(id: Id, before: Definition, after: Definition): string[] {
  const find = (definition: Definition) => definition.roles.find((role) => role.id === id);
  const [was, is] = [find(before), find(after)];
  if (!was) return [...(is?.setsCompared ? [SETS_COMPARED] : []), 'The role is new.'];
  if (!is) return ['The role is gone.'];
  const name = (among: readonly { readonly id: Id; readonly name: string }[], one: Id): string =>
    among.find((each) => each.id === one)?.name ?? 'one that is gone';
  const both = [...after.roles, ...before.roles];
  const privileges = [...privilegesOf(after), ...privilegesOf(before)];
  const turned = (
    then: readonly Id[],
    now: readonly Id[],
    among: readonly { readonly id: Id; readonly name: string }[],
    verb: string,
  ): string[] => [
    ...now.filter((one) => !then.includes(one)).map((one) => `Now ${verb} ${name(among, one)}.`),
    ...then.filter((one) => !now.includes(one)).map((one) => `No longer ${verb} ${name(among, one)}.`),
  ];
  const handed = (role: Role): Id[] => (role.handsOut ?? []).map((one) => one.role);
  const done = [
    ...(was.name === is.name ? [] : [`Called ${is.name}, before ${was.name}.`]),
    ...turned(was.includes, is.includes, both, 'includes'),
    ...turned(was.privileges, is.privileges, privileges, 'holds'),
    ...turned(handed(was), handed(is), both, 'hands out'),
    ...(was.givenToNew === is.givenToNew
      ? []
      : [`${is.givenToNew ? 'Now' : 'No longer'} given to every new person.`]),
    ...(was.joinable === is.joinable
      ? []
      : [`People may ${is.joinable ? 'now' : 'no longer'} join by themselves.`]),
  ];
  if ((was.setsCompared ?? false) !== (is.setsCompared ?? false))
    done.unshift(is.setsCompared ? SETS_COMPARED : 'Who holds it may no longer set what conditions compare.');
  return done.length > 0 ? done : ['Its description, its start screen or how it is handed out differs.'];
}

/** Who would get more by what is deleted, and of what, as a question to its maker. */
export function wideningInWords(
  definition: Definition,
  { who, elements }: Widening,
  people: readonly { readonly id: Id; readonly name: string }[],
): string {
  const tree = treeOf(definition);
  const nameOf = (key: string): string => {
    const [kind, id] = key.split(':');
    const among = kind === 'role' ? definition.roles : kind === 'group' ? definition.groups : people;
    const name = among.find((one) => one.id === id)?.name ?? key;
    if (kind === 'role') return `whoever is ${name}`;
    return kind === 'signed-out' ? 'who is signed out' : kind === 'signed-in' ? 'who is signed in' : name;
  };
  const places = elements.flatMap((id) => {
    const element = tree.get(id);
    return element ? [fullName(element)] : [];
  });
  return `Lines that take something away go with what is deleted. ${listed(who.map(nameOf), 6)} would get more of: ${listed(places, 4)}.`;
}

/** The first few, and how many more. */
const listed = (names: readonly string[], most: number): string =>
  names.length <= most
    ? names.join(', ')
    : `${names.slice(0, most).join(', ')} and ${names.length - most} more`;
