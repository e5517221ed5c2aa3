import * as yup from 'yup';
import { readViewerKey } from '@/core';
import {
  type Assignment,
  idInKey,
  type KeptViewer,
  type KnownRecord,
  madeViewerSchema,
  type Person,
  readMade,
  type Viewer,
  viewerOfKey,
} from '@/core/access';
import { attributesOf } from '@/core/condition';
import {
  checkShape,
  type Definition,
  exactly,
  type Id,
  isMoment,
  LIST_SCHEMAS,
  listOf,
  mapOf,
  MOST_VALUES,
  optional,
  type Problem,
  readValue,
  type Unit,
  unitsOf,
  type Value,
  type Values,
} from '@/core/model';
import { wrong, WrongInput } from './failure';
import { readJson } from './files';

/** People, units, records and session values to decide for: the format is in docs/definition.md. */
export interface World {
  readonly definition: Definition;
  readonly people: readonly Person[];
  viewer(key: string): Viewer | undefined;
  session(key: string): Values;
  record(key: string): KnownRecord | undefined;
}

const valueOrNumber = yup
  .mixed()
  .nullable()
  .test(
    'value',
    'must be text, a number, true, false or null',
    (one) => one === undefined || one === null || ['string', 'number', 'boolean'].includes(typeof one),
  );
const values = mapOf(valueOrNumber);
const when = yup
  .string()
  .nullable()
  .test('when', 'must be a date and time such as 2026-03-14T09:30:00Z', (text) => !text || isMoment(text));
const assignment = {
  role: yup.string().required('is missing'),
  unit: yup.string().nullable(),
  from: when,
  until: when,
};
const someOf = (of: yup.ISchema<unknown>) => optional(listOf(of, 1_000_000));

const schema = exactly({
  people: someOf(
    exactly({
      id: yup.string().required('is missing'),
      name: yup.string(),
      email: yup.string(),
      home_unit: yup.string().nullable(),
      active: yup.boolean(),
      attributes: optional(values),
      assignments: someOf(exactly(assignment)),
    }),
  ),
  assignments: someOf(exactly({ person: yup.string().required('is missing'), ...assignment })),
  viewers: someOf(
    exactly({
      id: yup.string().required('is missing'),
      name: yup.string(),
      viewer: madeViewerSchema,
    }),
  ),
  units: someOf(LIST_SCHEMAS.units),
  records: someOf(
    exactly({ entity: yup.string().required('is missing'), id: yup.string().required('is missing'), values }),
  ),
  session: someOf(exactly({ viewer: yup.string().required('is missing'), values })),
});

interface GivenAssignment {
  readonly role: Id;
  readonly unit?: Id | null;
  readonly from?: string | null;
  readonly until?: string | null;
}

interface WorldFile {
  readonly people?: readonly {
    readonly id: Id;
    readonly name?: string;
    readonly email?: string;
    readonly home_unit?: Id | null;
    readonly active?: boolean;
    readonly attributes?: Values;
    readonly assignments?: readonly GivenAssignment[];
  }[];
  readonly assignments?: readonly (GivenAssignment & { readonly person: Id })[];
  readonly viewers?: readonly Omit<KeptViewer, 'name'>[];
  readonly units?: readonly Unit[];
  readonly records?: readonly { readonly entity: Id; readonly id: Id; readonly values: Values }[];
  readonly session?: readonly { readonly viewer: string; readonly values: Values }[];
}

/** The world of a file, or an empty one. What it names that is not in the definition is told, place by place. */
export function readWorld(
  definition: Definition,
  file: string | undefined,
  note: (text: string) => void = () => undefined,
): World {
  const given = file === undefined ? {} : read(file);
  const whole = given.units ? { ...definition, units: given.units } : definition;
  const problems = [...unknownIn(whole, given)].map((one) => ({ ...one, place: `${file}, ${one.place}` }));
  if (problems.length > 0) throw new WrongInput(problems);
  for (const odd of oddValues(whole, given)) note(`${file}, ${odd}`);
  return new GivenWorld(whole, given);
}

function read(file: string): WorldFile {
  const read = checkShape(schema, readJson(file), { values: MOST_VALUES });
  if (!read.ok)
    throw new WrongInput(read.problems.map((one) => ({ ...one, place: `${file}, ${one.place}` })));
  return read.value as WorldFile;
}

/** Values that are not of their field's type: they count as missing, as they do in the database. */
function* oddValues(definition: Definition, given: WorldFile): Generator<string> {
  for (const [n, { entity: id, values: held }] of (given.records ?? []).entries()) {
    const entity = definition.entities.find((one) => one.id === id);
    const plain = plainValues(held);
    for (const field of entity?.fields ?? []) {
      const value = plain[field.id];
      if (value === undefined || value === null) continue;
      const reading = readValue(field, value);
      if ('problem' in reading)
        yield `records[${n}].values.${field.id}: ${reading.problem} Comparisons treat it as missing.`;
    }
  }
}

/** What is there more than once, each place after the first. */
function* twice(place: string, names: readonly string[]): Generator<Problem> {
  const seen = new Set<string>();
  for (const [n, name] of names.entries()) {
    if (seen.has(name)) yield wrong(`${place}[${n}]`, `${name} appears twice.`, 'Keep one of them.');
    seen.add(name);
  }
}

/** An assignment of a role or in a unit that is gone is no error: it is nobody's. */
function* unknownIn(definition: Definition, given: WorldFile): Generator<Problem> {
  yield* twice(
    'people',
    (given.people ?? []).map(({ id }) => id),
  );
  yield* twice(
    'records',
    (given.records ?? []).map(({ entity, id }) => `${entity}:${id}`),
  );
  yield* twice(
    'viewers',
    (given.viewers ?? []).map(({ id }) => id),
  );
  yield* twice(
    'session',
    (given.session ?? []).map(({ viewer }) => viewer),
  );
  yield* twice(
    'units',
    unitsOf({ units: given.units ?? [] }).map(({ id }) => id),
  );
  const people = new Set((given.people ?? []).map(({ id }) => id));
  const attributes = new Set(attributesOf(definition).map(({ id }) => id));
  for (const [n, one] of (given.people ?? []).entries())
    for (const id of Object.keys(one.attributes ?? {}))
      if (!attributes.has(id))
        yield wrong(
          `people[${n}].attributes`,
          `There is no attribute ${id}.`,
          'Use one from the definition.',
        );
  for (const [n, { person }] of (given.assignments ?? []).entries())
    if (!people.has(person))
      yield wrong(`assignments[${n}].person`, `There is no person ${person}.`, 'Add the person to “people”.');
  for (const [n, { entity: id, values: held }] of (given.records ?? []).entries()) {
    const entity = definition.entities.find((one) => one.id === id);
    if (!entity)
      yield wrong(`records[${n}].entity`, `There is no entity ${id}.`, 'Use one from the definition.');
    for (const field of Object.keys(held))
      if (entity && !entity.fields.some((one) => one.id === field))
        yield wrong(
          `records[${n}].values`,
          `${entity.name} has no field ${field}.`,
          'Use one of its fields.',
        );
  }
  for (const [n, { viewer, values: held }] of (given.session ?? []).entries()) {
    const read = readViewerKey(viewer);
    const known =
      read?.kind === 'signed-in' || read?.kind === 'role' || (read?.kind === 'person' && people.has(read.id));
    if (!known)
      yield wrong(`session[${n}].viewer`, `There is no viewer ${viewer}.`, 'Use person:ID or role:ID.');
    for (const id of Object.keys(held))
      if (!definition.sessionValues.some((one) => one.id === id))
        yield wrong(
          `session[${n}].values`,
          `There is no session value ${id}.`,
          'Use one from the definition.',
        );
  }
}

class GivenWorld implements World {
  private readonly peopleById: ReadonlyMap<string, Person>;
  private readonly records: ReadonlyMap<string, KnownRecord>;
  private readonly sessions: ReadonlyMap<string, Values>;
  private readonly kept: ReadonlyMap<string, Omit<KeptViewer, 'name'>>;

  constructor(
    readonly definition: Definition,
    given: WorldFile,
  ) {
    this.peopleById = new Map((given.people ?? []).map((one) => [one.id, personOf(one, given)]));
    this.kept = new Map((given.viewers ?? []).map((one) => [one.id, one]));
    this.sessions = new Map((given.session ?? []).map((one) => [one.viewer, plainValues(one.values)]));
    const records = new Map<string, KnownRecord>();
    const lookUp = (entity: Id, id: Id): Values | undefined => records.get(`${entity}:${id}`)?.values;
    for (const { entity: of, id, values: held } of given.records ?? []) {
      const entity = definition.entities.find((one) => one.id === of);
      if (entity) records.set(`${of}:${id}`, { entity, id, values: plainValues(held), lookUp });
    }
    this.records = records;
  }

  get people(): readonly Person[] {
    return [...this.peopleById.values()];
  }

  /** By its key; undefined for one that is not there. */
  viewer(key: string): Viewer | undefined {
    const known = {
      person: (id: Id) => this.peopleById.get(id),
      kept: (id: Id) => this.kept.get(id)?.viewer,
    };
    return viewerOfKey(this.definition, known, key);
  }

  /** What is given for the key; of who is made up, else what they are made up with. */
  session(key: string): Values {
    const made = this.kept.get(idInKey('kept', key) ?? '')?.viewer ?? readMade(idInKey('made', key) ?? '');
    return this.sessions.get(key) ?? plainValues(made?.session ?? {});
  }

  /** `entity:ID` */
  record(key: string): KnownRecord | undefined {
    return this.records.get(key);
  }
}

function personOf(one: NonNullable<WorldFile['people']>[number], given: WorldFile): Person {
  const { id, name = id, email = null, home_unit = null, active = true, attributes = {} } = one;
  const own = (given.assignments ?? []).filter(({ person }) => person === id);
  return {
    id,
    name,
    active,
    assignments: [...(one.assignments ?? []), ...own].map(({ role, unit, from, until }): Assignment => ({
      role,
      ...(unit && { unit }),
      ...(from && { from }),
      ...(until && { until }),
    })),
    attributes: { ...plainValues(attributes), name, email, home_unit },
  };
}

/** Numbers may be written as numbers; they are kept as texts. */
const plainValues = (held: Values): Values =>
  Object.fromEntries(
    Object.entries(held as Record<string, unknown>).map(([id, value]) => [
      id,
      typeof value === 'number' ? String(value) : (value as Value | null),
    ]),
  );
