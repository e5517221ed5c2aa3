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
export interface ChangeSentences {
  readonly about: string;
  readonly done: readonly string[];
}

/** Says a change between two definitions. */
export function changeInWords(
  change: Change,
  before: Definition,
  after: Definition,
  personName: PersonName,
): ChangeSentences {
  const values = new Values(before, after);
  if (change.kind === 'setting') return { about: after.name, done: [values.key(change, SETTING_WORDS)] };
  if (change.kind === 'order') return { about: LIST_WORDS[change.list].many, done: ['Their order changed.'] };
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
          `What people without access see: ${closedInWords(change.before, before)} → ${closedInWords(change.after, after)}.`,
        ],
      };
    case 'added':
      return { about, done: [`Added${element?.container ? ` to ${element.container.name}` : ''}.`] };
    case 'removed':
      return { about, done: ['Deleted.'] };
    case 'moved': {
      const was = treeOf(before).get(change.element)?.container;
      const is = treeOf(after).get(change.element)?.container;
      return {
        about,
        done: [
          was?.id === is?.id
            ? `Moved within ${is?.name ?? 'the application'}.`
            : `Moved from ${was?.name ?? 'nowhere'} to ${is?.name ?? 'nowhere'}.`,
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
  const list = (lines: readonly Line[]): string =>
    lines.map(inWords(after)).join('; ') || 'none (nobody has access)';
  if (!change.after) return [`Now follows ${follows} again.`];
  if (!change.before) return [`No longer follows ${follows}. Lines added: ${list(change.after)}.`];
  const has = (lines: readonly Line[], line: Line): boolean => lines.some((one) => sameLine(one, line));
  const gone = change.before.filter((line) => !has(change.after ?? [], line));
  const added = change.after.filter((line) => !has(change.before ?? [], line));
  if (gone.length + added.length === 0)
    return [
      sameLines(change.before, change.after)
        ? 'Lines rewritten without changing their meaning.'
        : 'Lines reordered (the order has no effect).',
    ];
  return [
    ...gone.map((line) => `Line removed: ${inWords(before)(line)}.`),
    ...added.map((line) => `Line added: ${inWords(after)(line)}.`),
  ];
}

/** What a closed element shows, after "Who does not get it sees". */
export function closedInWords(closed: Closed | undefined, definition: Definition): string {
  switch (closed?.show) {
    case undefined:
      return 'nothing (hidden)';
    case 'locked':
      return 'its label and a lock';
    case 'explained':
      return `its label, and “${closed.text}” when used`;
    case 'refused':
      return `“${closed.text}”`;
    case 'sent':
      return `a redirect to ${treeOf(definition).get(closed.screen)?.name ?? 'a deleted screen'}`;
    case 'secret':
      return '“Page not found”';
  }
}

const LIST_WORDS: Readonly<Record<NamedList, { readonly one: string; readonly many: string }>> = {
  roles: { one: 'Role', many: 'Roles' },
  privileges: { one: 'Privileges', many: 'Privilege groups' },
  units: { one: 'Unit', many: 'Units' },
  attributes: { one: 'Attribute of people:', many: 'Attributes of people' },
  groups: { one: 'Group', many: 'Groups' },
  conditions: { one: 'Condition', many: 'Named conditions' },
  sessionValues: { one: 'Session value', many: 'Session values' },
};

function namedInWords(change: Extract<Change, { kind: 'named' }>, values: Values): string[] {
  const { before, after, list } = change;
  if (!after) return ['Deleted.'];
  const about = (item: typeof after): string[] => {
    if (list === 'groups' || list === 'conditions') {
      const { condition, ...rest } = item as Group | NamedCondition;
      return [`Added: ${values.condition(condition, 'entity' in rest ? rest.entity : undefined)}.`];
    }
    return ['Added.'];
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
    ...after.privileges.filter(({ id }) => called(id) === undefined).map(({ name }) => `Added “${name}”.`),
    ...was
      .filter(({ id }) => !after.privileges.some((one) => one.id === id))
      .map(({ name }) => `Deleted “${name}”.`),
    ...after.privileges
      .filter(({ id, name }) => ![undefined, name].includes(called(id)))
      .map(({ id, name }) => `Renamed “${called(id) ?? ''}” to “${name}”.`),
  ];
  if (!before) return ['Privilege group added.', ...done];
  if (before.name !== after.name) done.unshift(`Renamed from ${before.name} to ${after.name}.`);
  return done.length > 0 ? done : ['Privileges reordered.'];
}

/** What is different about a role, what gives power first. */
function roleInWords(was: Role | undefined, is: Role, values: Values): string[] {
  const power = powerOfRole(was, is, (id) => values.text(id)).map(({ said }) => said);
  if (!was) return ['Role added.', ...power];
  const less = (then: readonly Id[], now: readonly Id[], verb: string): string[] =>
    then.filter((one) => !now.includes(one)).map((one) => `${verb} ${values.text(one)}.`);
  const handed = (role: Role): Id[] => (role.handsOut ?? []).map((one) => one.role);
  const ends = (key: keyof Role, words: string): string[] => (was[key] && !is[key] ? [words] : []);
  const done = [
    ...power,
    ...(was.name === is.name ? [] : [`Renamed from ${was.name} to ${is.name}.`]),
    ...(was.description === is.description ? [] : [`Description changed to “${is.description ?? ''}”.`]),
    ...(was.startScreen === is.startScreen
      ? []
      : [is.startScreen ? `Start screen set to ${values.text(is.startScreen)}.` : 'Start screen removed.']),
    ...less(was.includes, is.includes, 'No longer includes'),
    ...less(was.privileges, is.privileges, 'No longer has the privilege'),
    ...less(handed(was), handed(is), 'Can no longer assign'),
    ...(is.handsOut ?? [])
      .filter(({ role, notHeld }) => !notHeld && was.handsOut?.find((one) => one.role === role)?.notHeld)
      .map(({ role }) => `Can now assign ${values.text(role)} only in units where they have it themselves.`),
    ...ends('givenToNew', 'No longer assigned to every new person.'),
    ...ends('joinable', 'People can no longer join this role themselves.'),
    ...ends(
      'standInFull',
      'Anyone acting as people with this role again has only the access both people have.',
    ),
    ...ends('setsCompared', 'People with this role can no longer change attributes that conditions use.'),
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
    done.push('Included roles, privileges or assignable roles reordered.');
  return done.length > 0 ? done : ['Rewritten without changing its meaning.'];
}

type Words = Readonly<Record<string, string>>;

/** What the keys of elements and of named things stand for. Every key that is not here is told by its own name. */
const ELEMENT_WORDS: Words = {
  name: 'Name',
  address: 'Address',
  binds: 'Record',
  effect: 'Effect',
  field: 'Field',
  text: 'Text',
  entity: 'Entity',
  filter: 'Filter',
  opens: 'Screen opened by a row',
  screen: 'Screen it opens',
  plural: 'Plural name',
  labelField: 'Record label',
  unitField: 'Unit field',
  type: 'Type',
  required: 'Required',
  initial: 'Starting value',
  neverFollows: 'Never follows the screens',
  sets: 'Fields it sets',
  of: 'Field that limits it to records of the current record',
  wide: 'Full width',
  help: 'Help text',
  check: 'Format check',
  list: 'List',
  by: 'Group by',
  shows: 'Measure',
  as: 'Chart type',
  confirm: 'Confirmation message',
  condition: 'Condition',
  minutes: 'Duration in minutes',
  units: 'Units below it',
  kind: 'Kind',
};

const SETTING_WORDS: Words = {
  name: 'Name',
  currency: 'Currency',
  language: 'Language',
  timeZone: 'Time zone',
  newScreens: 'Access to new screens',
  startScreen: 'Default start screen',
  signUp: 'People can sign up themselves',
  unlock: 'Privilege for unlocking',
  standIn: 'Privilege for acting as another person',
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

  /** "Address: “items”, before “pieces”." */
  key({ key, before, after }: KeyChange, words: Words, entity?: Entity): string {
    const label = words[key] ?? `Its ${key}`;
    const said = (value: unknown): string => (value === undefined ? 'nothing' : this.text(value, entity));
    const [is, was] = [said(after), said(before)];
    const within = partsThatDiffer(before, after);
    if (within && is !== was)
      return `${label}: ${within
        .map((one) => `${this.names.get(one.key) ?? one.key}: ${said(one.before)} → ${said(one.after)}`)
        .join('; ')}.`;
    return is === was
      ? `${label}: replaced by another item with the same name, ${is}.`
      : `${label}: ${was} → ${is}.`;
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
