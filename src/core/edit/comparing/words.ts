import { print } from '../../condition/print';
import type { Definition } from '../../model/definition';
import type { Line, What, Who } from '../../model/gate';
import type { Id } from '../../model/id';
import type { Widening } from './widening';
import { privilegesOf } from '../../model/privileges';
import { unitsOf } from '../../model/units';
import { treeOf, type AppElement, type ElementKind } from '../../model/tree';
import type { Answer, Level } from '../../access/deciding/level';
import type { Among } from '../../access/questions/numbers';

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
      return personName(who.person) ?? 'A deleted person';
    case 'privilege':
      return named(privilegesOf(definition), who.privilege, 'A privilege', (name) => `People with “${name}”`);
    case 'group':
      return named(definition.groups, who.group, 'A group', (name) => `Group “${name}”`);
    case 'unit':
      return named(unitsOf(definition), who.unit, 'A unit', (name) => `Home unit ${name} or below`);
    case 'role': {
      const role = definition.roles.find((one) => one.id === who.role);
      if (!role) return 'A deleted role';
      if (who.exactly) return `${role.name} (directly assigned)`;
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
  return found ? say(found.name) : `${kind} that has been deleted`;
}

type Words = readonly [string, string, string];

const LEVELS: Words = ['None', 'See', 'Edit'];
const SCREEN: Words = ['Closed', 'Read-only', 'Edit'];
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

/** How many of a kind's people get something: "edit for 3 of 14", "use for 2, disabled for 5 of 14". */
export function amongInWords(kind: ElementKind, { edit, see, of }: Among): string {
  const [, sees, edits] = wordsFor(kind).map((word) => word.toLowerCase());
  const said = [...(edit > 0 ? [`${edits} for ${edit}`] : []), ...(see > 0 ? [`${sees} for ${see}`] : [])];
  return `${said.join(', ') || `${wordsFor(kind)[0].toLowerCase()} for all`} of ${of}`;
}

/** The same in very few: "edit 3 of 14". */
export function amongInShort(kind: ElementKind, { edit, see, of }: Among): string {
  const [, sees, edits] = wordsFor(kind).map((word) => word.toLowerCase());
  return edit > 0 ? `${edits} ${edit} of ${of}` : `${sees} ${see} of ${of}`;
}

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
  chart: 'Chart',
  people: 'People',
  menu: 'Menu',
  'menu-item': 'Menu item',
  rows: 'Records',
  action: 'Action',
  'data-field': 'Data field',
};

export const kindInWords = (kind: ElementKind): string => KINDS[kind];

/** Where an element stands: "Field on Item details, in Custody". */
export function placeInWords(element: AppElement): string {
  const kind = kindInWords(element.kind);
  const { container, screen } = element;
  if (!container || (container.kind === 'application' && element.kind === 'menu')) return kind;
  if (element.kind === 'menu') return `Menu of ${container.name}`;
  if (element.kind === 'rows') return 'Records of the application';
  if (element.kind === 'data-field') return `Data field of ${container.name}`;
  if (element.kind === 'action') return `Action on ${container.name}`;
  if (!screen || element.kind === 'screen') return `${kind} in ${container.name}`;
  if (element.kind === 'section') return `${kind} of ${screen.name}`;
  return `${kind} on ${screen.name}, in ${container.name}`;
}

/** "the menu", or "the menu of Front desk" where that has one of its own. */
function menuAround({ kind, container }: AppElement): string {
  if (kind !== 'menu') return container ? menuAround(container) : 'the menu';
  return container?.kind === 'area' ? `the menu of ${container.name}` : 'the menu';
}

/** An element's name in a sentence that has no other context: the data's field with its entity. */
export function fullName(element: AppElement): string {
  const { kind, name, container, screen } = element;
  if (kind === 'data-field' || kind === 'action') return `${container?.name ?? ''}: ${name} (data)`;
  if (kind === 'rows') return `${name} (records)`;
  if (kind === 'menu-item') return `${name} (in ${menuAround(element)})`;
  if (kind === 'area') return `${name} (area)`;
  if (kind === 'menu' && container?.kind === 'area') return `${name} (menu of ${container.name})`;
  if (kind === 'screen' || !screen) return name;
  return `${name} (${kindInWords(kind).toLowerCase()} on ${screen.name})`;
}

/** A handle beside others of the same door: "Item list (column)". */
export function handleName(element: AppElement): string {
  const { kind, name, screen } = element;
  if (kind === 'menu-item') return `${name} (in ${menuAround(element)})`;
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
  return `${said}, if ${print({ definition, entity: on && tree.recordOf(on) }, line.when)}`;
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
    if (kind === 'role') return `people with the role ${name}`;
    return kind === 'signed-out' ? 'signed-out visitors' : kind === 'signed-in' ? 'signed-in people' : name;
  };
  const places = elements.flatMap((id) => {
    const element = tree.get(id);
    return element ? [fullName(element)] : [];
  });
  return `Deleting this also deletes lines that restrict access. These viewers would gain access: ${listed(who.map(nameOf), 6)}. Elements affected: ${listed(places, 4) || 'new elements'}.`;
}

/** The first few, and how many more. */
const listed = (names: readonly string[], most: number): string =>
  names.length <= most
    ? names.join(', ')
    : `${names.slice(0, most).join(', ')} and ${names.length - most} more`;
