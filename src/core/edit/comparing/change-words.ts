import { partsOf, type Condition } from '../../condition/condition';
import { print } from '../../condition/print';
import type {
  Closed,
  Definition,
  Entity,
  Group,
  NamedCondition,
  PrivilegeGroup,
  Role,
} from '../../model/definition';
import { sameLine, sameLines, type Line } from '../../model/gate';
import type { Id } from '../../model/id';
import { privilegesOf } from '../../model/privileges';
import { sameJson } from '../../model/same-json';
import { isDataDoor, treeOf, type AppElement } from '../../model/tree';
import { unitsOf } from '../../model/units';
import type { Change, KeyChange, NamedList } from './difference';
import { powerOfRole } from './power';
import { fullName, lineInWords, type PersonName } from './words';

/** A change in words: what it is about, and what was done, a sentence each. */
export interface Said {
  readonly about: string;
  readonly done: readonly string[];
}

/** Says a change between two definitions. */
export function changeInWords(
  change: Change,
  before: Definition,
  after: Definition,
  personName: PersonName,
): Said {
  const values = new Values(before, after);
  if (change.kind === 'setting') return { about: after.name, done: [values.key(change, SETTING_WORDS)] };
  if (change.kind === 'order')
    return { about: LIST_WORDS[change.list].many, done: ['They stand in another order.'] };
  if (change.kind === 'named')
    return { about: `${LIST_WORDS[change.list].one} ${change.name}`, done: namedInWords(change, values) };
  const element = treeOf(after).get(change.element) ?? treeOf(before).get(change.element);
  const about = element ? fullName(element) : change.element;
  switch (change.kind) {
    case 'gate':
      return { about, done: gateInWords(change, element, before, after, personName) };
    case 'closed':
      return {
        about,
        done: [
          `Who does not get it sees ${closedInWords(change.after, after)}; before, ${closedInWords(change.before, before)}.`,
        ],
      };
    case 'added':
      return { about, done: [`It is new${element?.container ? `, in ${element.container.name}` : ''}.`] };
    case 'removed':
      return { about, done: ['It is gone.'] };
    case 'moved': {
      const was = treeOf(before).get(change.element)?.container;
      const is = treeOf(after).get(change.element)?.container;
      return {
        about,
        done: [
          was?.id === is?.id
            ? `It stands in another place in ${is?.name ?? 'the application'}.`
            : `It stands in ${is?.name ?? 'nothing'}, before in ${was?.name ?? 'nothing'}.`,
        ],
      };
    }
    case 'changed': {
      const entity = element && (treeOf(after).recordOf(element) ?? treeOf(before).recordOf(element));
      return { about, done: change.keys.map((one) => values.key(one, ELEMENT_WORDS, entity)) };
    }
  }
}

function gateInWords(
  change: Extract<Change, { kind: 'gate' }>,
  element: AppElement | undefined,
  before: Definition,
  after: Definition,
  personName: PersonName,
): string[] {
  const inWords = (definition: Definition) => (line: Line) =>
    lineInWords(line, change.element, definition, personName);
  const data = element !== undefined && isDataDoor(element);
  const follows = data ? 'the screens' : (element?.container?.name ?? '');
  const list = (lines: readonly Line[]): string => lines.map(inWords(after)).join('; ') || 'none, so nobody';
  if (!change.after) return [`It follows ${follows} again.`];
  if (!change.before) return [`It no longer follows ${follows}. Its lines: ${list(change.after)}.`];
  const has = (lines: readonly Line[], line: Line): boolean => lines.some((one) => sameLine(one, line));
  const gone = change.before.filter((line) => !has(change.after ?? [], line));
  const added = change.after.filter((line) => !has(change.before ?? [], line));
  if (gone.length + added.length === 0)
    return [
      sameLines(change.before, change.after)
        ? 'Its lines are written another way, and say the same.'
        : 'Its lines stand in another order, which makes no difference.',
    ];
  return [
    ...gone.map((line) => `No longer: ${inWords(before)(line)}.`),
    ...added.map((line) => `Now: ${inWords(after)(line)}.`),
  ];
}

/** What a closed element shows, after "Who does not get it sees". */
export function closedInWords(closed: Closed | undefined, definition: Definition): string {
  switch (closed?.show) {
    case undefined:
      return 'nothing of it';
    case 'locked':
      return 'its label and a lock';
    case 'explained':
      return `its label, and when it is used “${closed.text}”`;
    case 'refused':
      return `“${closed.text}”`;
    case 'sent':
      return `${treeOf(definition).get(closed.screen)?.name ?? 'a screen that is gone'} in its place`;
    case 'secret':
      return 'an address that does not exist';
  }
}

const LIST_WORDS: Readonly<Record<NamedList, { readonly one: string; readonly many: string }>> = {
  roles: { one: 'Role', many: 'Roles' },
  privileges: { one: 'Privileges', many: 'Groups of privileges' },
  units: { one: 'Unit', many: 'Units' },
  attributes: { one: 'What is known of people:', many: 'What is known of people' },
  groups: { one: 'Group', many: 'Groups' },
  conditions: { one: 'Condition', many: 'Named conditions' },
  sessionValues: { one: 'Session value', many: 'Session values' },
};

function namedInWords(change: Extract<Change, { kind: 'named' }>, values: Values): string[] {
  const { before, after, list } = change;
  if (!after) return ['It is gone.'];
  const about = (item: typeof after): string[] => {
    if (list === 'groups' || list === 'conditions') {
      const { condition, ...rest } = item as Group | NamedCondition;
      return [`It is new: ${values.condition(condition, 'entity' in rest ? rest.entity : undefined)}.`];
    }
    return ['It is new.'];
  };
  if (list === 'roles') return roleInWords(before as Role | undefined, after as Role, values);
  if (list === 'privileges')
    return privilegesInWords(before as PrivilegeGroup | undefined, after as PrivilegeGroup);
  if (!before) return about(after);
  const entity = 'entity' in after ? values.entity(after.entity) : undefined;
  const [was, is] = [before, after] as unknown as [Record<string, unknown>, Record<string, unknown>];
  return [...new Set([...Object.keys(was), ...Object.keys(is)])]
    .filter((key) => !sameJson(was[key], is[key]))
    .map((key) => values.key({ key, before: was[key], after: is[key] }, ELEMENT_WORDS, entity));
}

function privilegesInWords(before: PrivilegeGroup | undefined, after: PrivilegeGroup): string[] {
  const was = before?.privileges ?? [];
  const called = (id: Id): string | undefined => was.find((one) => one.id === id)?.name;
  const done = [
    ...after.privileges.filter(({ id }) => called(id) === undefined).map(({ name }) => `New: “${name}”.`),
    ...was
      .filter(({ id }) => !after.privileges.some((one) => one.id === id))
      .map(({ name }) => `Gone: “${name}”.`),
    ...after.privileges
      .filter(({ id, name }) => ![undefined, name].includes(called(id)))
      .map(({ id, name }) => `Called “${name}”, before “${called(id) ?? ''}”.`),
  ];
  if (!before) return ['The group is new.', ...done];
  if (before.name !== after.name) done.unshift(`Called ${after.name}, before ${before.name}.`);
  return done.length > 0 ? done : ['Its privileges stand in another order.'];
}

/** What is different about a role, what gives power first. */
function roleInWords(was: Role | undefined, is: Role, values: Values): string[] {
  const power = powerOfRole(was, is, (id) => values.text(id)).map(({ said }) => said);
  if (!was) return ['The role is new.', ...power];
  const less = (then: readonly Id[], now: readonly Id[], verb: string): string[] =>
    then.filter((one) => !now.includes(one)).map((one) => `No longer ${verb} ${values.text(one)}.`);
  const handed = (role: Role): Id[] => (role.handsOut ?? []).map((one) => one.role);
  const ends = (key: keyof Role, words: string): string[] => (was[key] && !is[key] ? [words] : []);
  const done = [
    ...power,
    ...(was.name === is.name ? [] : [`Called ${is.name}, before ${was.name}.`]),
    ...(was.description === is.description ? [] : [`Described as “${is.description ?? ''}”.`]),
    ...(was.startScreen === is.startScreen
      ? []
      : [
          is.startScreen
            ? `Who holds it lands on ${values.text(is.startScreen)}.`
            : 'It names no start screen any more.',
        ]),
    ...less(was.includes, is.includes, 'includes'),
    ...less(was.privileges, is.privileges, 'holds'),
    ...less(handed(was), handed(is), 'hands out'),
    ...(is.handsOut ?? [])
      .filter(({ role, notHeld }) => !notHeld && was.handsOut?.find((one) => one.role === role)?.notHeld)
      .map(({ role }) => `Hands out ${values.text(role)} only where it is held itself.`),
    ...ends('givenToNew', 'No longer given to every new person.'),
    ...ends('joinable', 'People may no longer join by themselves.'),
    ...ends('standInFull', 'Who stands in for its people gets the lower of both again.'),
    ...ends('setsCompared', 'Who holds it may no longer set what conditions compare.'),
  ];
  const turned = (some: readonly Id[], others: readonly Id[]): boolean =>
    some.length === others.length &&
    some.every((one) => others.includes(one)) &&
    some.join() !== others.join();
  if (
    turned(was.includes, is.includes) ||
    turned(was.privileges, is.privileges) ||
    turned(handed(was), handed(is))
  )
    done.push('What it includes, holds or hands out stands in another order.');
  return done.length > 0 ? done : ['It is written another way, and says the same.'];
}

type Words = Readonly<Record<string, string>>;

/** What the keys of elements and of named things stand for. Every key that is not here is told by its own name. */
const ELEMENT_WORDS: Words = {
  name: 'Called',
  address: 'Its address',
  binds: 'The record it is about',
  effect: 'What it does',
  field: 'The field it shows',
  text: 'Its text',
  entity: 'What it is about',
  filter: 'The records it carries',
  opens: 'What a row leads to',
  screen: 'The screen it leads to',
  plural: 'Many are called',
  labelField: 'The field that names a record',
  unitField: 'The field that says the unit',
  type: 'Its type',
  required: 'It must be filled in',
  initial: 'What a new record has',
  neverFollows: 'It never follows the screens',
  sets: 'What it sets',
  of: 'The field by which it shows only what belongs to the record',
  wide: 'It has the whole line',
  help: 'What stands under it',
  check: 'What it checks',
  list: 'The list that it counts',
  by: 'The field it counts by',
  shows: 'What it shows',
  as: 'How it is drawn',
  confirm: 'What is asked before',
  condition: 'It asks',
  minutes: 'Minutes that it holds',
  units: 'The units below it',
  kind: 'What it is',
};

const SETTING_WORDS: Words = {
  name: 'Called',
  currency: 'The currency',
  language: 'The language',
  timeZone: 'The time zone',
  newScreens: 'Who may open new screens',
  startScreen: 'Where people land whose roles say nothing',
  signUp: 'People may open an account for themselves',
  unlock: 'Who may open locked places for others',
  standIn: 'Who may look as another person',
};

/** Says values: ids by the names of what they stand for, conditions as they are written. */
class Values {
  private readonly names = new Map<string, string>();

  constructor(
    private readonly before: Definition,
    private readonly after: Definition,
  ) {
    // What is called something else by now has the name that it has now.
    for (const one of [before, after])
      for (const list of [
        treeOf(one).elements,
        one.roles,
        privilegesOf(one),
        unitsOf(one),
        one.attributes,
        one.groups,
        one.conditions,
        one.sessionValues,
        one.entities.flatMap(({ fields }) =>
          fields.flatMap(({ type }) => (type.kind === 'choice' ? type.options : [])),
        ),
      ])
        for (const { id, name } of list) this.names.set(id, name);
  }

  entity(id: Id | undefined): Entity | undefined {
    return [this.after, this.before].flatMap((one) => one.entities).find((one) => one.id === id);
  }

  condition(condition: Condition, entity: Id | undefined): string {
    return print({ definition: this.after, entity: this.entity(entity) }, condition);
  }

  /** "Its address: “items”, before “pieces”." */
  key({ key, before, after }: KeyChange, words: Words, entity?: Entity): string {
    const label = words[key] ?? `Its ${key}`;
    const said = (value: unknown): string => (value === undefined ? 'nothing' : this.text(value, entity));
    const [is, was] = [said(after), said(before)];
    const within = partsThatDiffer(before, after);
    if (within && is !== was)
      return `${label}: ${within
        .map((one) => `${this.names.get(one.key) ?? one.key} ${said(one.after)}, before ${said(one.before)}`)
        .join('; ')}.`;
    return is === was
      ? `${label}: another one that is called the same, ${is}.`
      : `${label}: ${is}, before ${was}.`;
  }

  text(value: unknown, entity?: Entity): string {
    if (value === undefined || value === null) return 'nothing';
    if (typeof value === 'boolean') return value ? 'yes' : 'no';
    if (typeof value === 'string') return this.names.get(value) ?? `“${value}”`;
    if (typeof value !== 'object') return JSON.stringify(value);
    if (Array.isArray(value)) return value.map((one) => this.text(one, entity)).join(', ') || 'none';
    if (isCondition(value)) return print({ definition: this.after, entity }, value);
    if ('name' in value && typeof value.name === 'string' && Object.keys(value).length <= 2)
      return value.name;
    return Object.entries(value)
      .map(([key, one]) =>
        key === 'kind' || key === 'do'
          ? String(one)
          : `${this.names.get(key) ?? key} ${this.text(one, entity)}`,
      )
      .join(', ');
  }
}

/** Of two values of the same make: in which of their keys they differ. Undefined where they are told whole. */
function partsThatDiffer(before: unknown, after: unknown): KeyChange[] | undefined {
  if (
    !isRecord(before) ||
    !isRecord(after) ||
    before['kind'] !== after['kind'] ||
    before['do'] !== after['do']
  )
    return undefined;
  return [...new Set([...Object.keys(before), ...Object.keys(after)])]
    .map((key) => ({ key, before: before[key], after: after[key] }))
    .filter((one) => !sameJson(one.before, one.after));
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value) && !isCondition(value);

const CONDITION_KEYS = ['all', 'any', 'not', 'compare', 'between', 'empty', 'oneOf', 'inUnit', 'hasRole'];
const OTHER_CONDITION_KEYS = ['hasPrivilege', 'inGroup', 'meets', 'call'];

const isCondition = (value: object): value is Condition =>
  [...CONDITION_KEYS, ...OTHER_CONDITION_KEYS].some((key) => key in value) &&
  partsOf(value as Condition).every((one) => typeof one === 'object');
