import { Readable } from 'node:stream';
import { parse } from 'csv-parse';
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { Assignment, Person } from '@/core/access';
import { readMoment } from '@/core/condition';
import { type Definition, sameJson, unitsOf, type Value } from '@/core/model';
import type { ImportLine, PeopleImported } from '@/contract/studio/people';
import type { PersonInput } from '@/contract/people-input';
import { database, patientDatabase } from '../database/client';
import { people } from '../database/schema';
import { countRows, plainCell, toCsv } from '../csv';
import { draftOf } from '../drafts/draft';
import { textOf } from '../http/body';
import { Refused } from '../http/problem';
import type { Run, Tell } from '../http/progress';
import { checkPerson, ownAttributes } from '../people/input';
import { personColumns, personOf } from '../people/read';
import { addPeople, changePeople } from '../people/many';
import type { PeopleManager } from '../people/write';

const FIXED = ['email', 'name', 'active', 'home_unit', 'roles'] as const;

/** What an import would do, or has done, with one line of the file. */
/** An assignment as a cell has it: `ROLE`, `ROLE@UNIT`, `ROLE[FROM/UNTIL]` (ISO 8601), either end left open. */
const assignmentText = ({ role, unit, from, until }: Assignment): string =>
  `${role}${unit === undefined ? '' : `@${unit}`}${from || until ? `[${plainMoment(from)}/${plainMoment(until)}]` : ''}`;

const plainMoment = (text: string | undefined): string => (text ? new Date(text).toISOString() : '');

/** Everybody as CSV (RFC 4180), sorted by email. No cell can act as a spreadsheet's formula. */
export async function exportPeople(applicationId: string): Promise<string> {
  const { definition } = await draftOf(applicationId);
  const rows = await database()
    .select(personColumns)
    .from(people)
    .where(eq(people.applicationId, applicationId))
    .orderBy(asc(people.email));
  const own = ownAttributes(definition);
  const parts = [toCsv([[...FIXED, ...own.map(({ id }) => id)]])];
  for (let n = 0; n < rows.length; n += STORED_AT_ONCE) {
    await othersTurn();
    parts.push(
      toCsv(
        rows
          .slice(n, n + STORED_AT_ONCE)
          .map((row) => [
            row.email,
            row.name,
            row.active ? 'yes' : 'no',
            row.homeUnit ?? '',
            personOf(row).assignments.map(assignmentText).join('; '),
            ...own.map(({ id }) => cellOf(row.attributes[id])),
          ]),
      ),
    );
  }
  return parts.join('');
}

const cellOf = (value: Value | null | undefined): string =>
  typeof value === 'boolean' ? (value ? 'yes' : 'no') : (value ?? '');

interface Planned {
  readonly told: ImportLine;
  readonly input?: PersonInput;
  /** The person as the plan found them; undefined for one who is new. */
  readonly person?: Person;
}

/** So many rows are looked at before others have their turn, and so many stored at once. */
const AT_ONCE = 200;
const STORED_AT_ONCE = 250;
const MOST_ROWS = 100_000;
const MOST_TOLD = 1000;
const SLICE = 65_536;

/**
 * Reads a file of people: known by their email address, others are new. With `dry`, tells line by line what
 * would happen; without, does it, all or nothing: where one line is wrong, nothing is changed. All is read and
 * checked first; what is written is written in batches, and nobody waits for it who signs in. Where `signal` says that
 * its asker has gone, nothing is changed.
 */
export async function importPeople(
  applicationId: string,
  keeper: PeopleManager,
  file: Uint8Array,
  dry: boolean,
  { tell, signal }: Partial<Run> = {},
): Promise<PeopleImported> {
  const { definition } = await draftOf(applicationId);
  if (countRows(file) > MOST_ROWS + 1) throw tooLong();
  const rows = await readRows(definition, textOf(file));
  const planned = await planAll(applicationId, definition, rows, signal);
  const counts = { new: 0, changes: 0, same: 0, wrong: 0 };
  for (const { told } of planned) counts[told.does]++;
  const inOrder = planned.map((one) => one.told);
  const lines = [
    ...inOrder.filter(({ does }) => does === 'wrong'),
    ...inOrder.filter(({ does }) => does !== 'wrong'),
  ].slice(0, MOST_TOLD);
  if (!dry && counts.wrong === 0) await store(applicationId, definition, keeper, planned, tell, signal);
  return { lines, counts };
}

const tooLong = (): Refused =>
  new Refused(
    422,
    'csv',
    `Nothing was changed: it has more than ${MOST_ROWS.toLocaleString('en')} lines. Split it into several files.`,
  );

const othersTurn = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

async function planAll(
  applicationId: string,
  definition: Definition,
  rows: readonly CsvRow[],
  signal: AbortSignal | undefined,
): Promise<Planned[]> {
  const seen = new Set<string>();
  const planned: Planned[] = [];
  const emailOf = ({ record }: CsvRow): string => cell(record['email'] ?? '').toLowerCase();
  for (let n = 0; n < rows.length; n += STORED_AT_ONCE) {
    signal?.throwIfAborted();
    const some = rows.slice(n, n + STORED_AT_ONCE);
    const known = await database()
      .select(personColumns)
      .from(people)
      .where(
        and(eq(people.applicationId, applicationId), inArray(people.email, [...new Set(some.map(emailOf))])),
      );
    const byEmail = new Map(known.map((row) => [row.email, { ...personOf(row), active: row.active }]));
    for (const [m, row] of some.entries()) {
      if (m % AT_ONCE === 0) await othersTurn();
      const email = emailOf(row);
      const twice = seen.has(email);
      seen.add(email);
      planned.push(plan(definition, byEmail.get(email), email, row.record, row.line, twice));
    }
  }
  return planned;
}

/** Stores what is planned, in batches within one transaction. Of two imports the second waits. */
async function store(
  applicationId: string,
  definition: Definition,
  keeper: PeopleManager,
  planned: readonly Planned[],
  tell: Tell = () => undefined,
  signal: AbortSignal | undefined,
): Promise<void> {
  const doing = planned.filter(({ told }) => told.does === 'new' || told.does === 'changes');
  const added = doing.filter(({ person }) => !person);
  const changed = doing.filter(({ person }) => person);
  await patientDatabase().transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${applicationId}, 3))`);
    // Each row points to a person. How those are found is planned while the table may be small; it grows under this.
    await tx.execute(sql`set local enable_seqscan = off`);
    for (let n = 0; n < added.length; n += STORED_AT_ONCE) {
      signal?.throwIfAborted();
      const some = added.slice(n, n + STORED_AT_ONCE).flatMap(({ input }) => input ?? []);
      await addPeople(tx, applicationId, definition, keeper, some);
      tell(n + some.length, doing.length);
    }
    for (let n = 0; n < changed.length; n += STORED_AT_ONCE) {
      signal?.throwIfAborted();
      const some = changed
        .slice(n, n + STORED_AT_ONCE)
        .flatMap(({ input, person }) => (input && person ? [{ input, person }] : []));
      await changePeople(tx, applicationId, keeper, some);
      tell(added.length + n + some.length, doing.length);
    }
  });
}

interface CsvRow {
  readonly record: Record<string, string>;
  readonly line: number;
}

/** The rows of the file. What is wrong with it as a whole is told with what to do about it. */
async function readRows(definition: Definition, text: string): Promise<CsvRow[]> {
  const wrong = (detail: string): Refused => new Refused(422, 'csv', `Nothing was changed: ${detail}`);
  const may: readonly string[] = [...FIXED, ...ownAttributes(definition).map(({ id }) => id)];
  const checkHeader = (header: readonly string[]): string[] => {
    const names = header.map((one) => columnCalled(definition, one.trim()));
    if (names.length === 1 && names[0]?.includes(';'))
      throw wrong('the columns are separated by semicolons. Save the file with commas as separators.');
    const unknown = names.filter((one) => !may.includes(one));
    if (unknown.length > 0)
      throw wrong(`the columns ${some(unknown)} are not known. The possible columns are ${some(may, 40)}.`);
    const twice = names.find((one, n) => names.indexOf(one) !== n);
    if (twice !== undefined) throw wrong(`the column ${twice} appears twice.`);
    if (!names.includes('email')) throw wrong('the column email is missing.');
    return names;
  };
  const rows: CsvRow[] = [];
  const parser = Readable.from(slices(text)).pipe(
    parse({ columns: checkHeader, info: true, bom: true, skip_empty_lines: true }),
  );
  try {
    for await (const { record, info } of parser as AsyncIterable<{
      record: Record<string, string>;
      info: { lines: number };
    }>) {
      rows.push({ record, line: info.lines });
      if (rows.length % AT_ONCE === 0) await othersTurn();
      if (rows.length > MOST_ROWS) throw tooLong();
    }
  } catch (error) {
    if (error instanceof Refused) throw error;
    throw wrong(`it is not valid CSV (RFC 4180). ${(error as Error).message}.`);
  }
  if (rows.length === 0) throw wrong('the file contains no people.');
  return rows;
}

const WORDS: Readonly<Record<string, (typeof FIXED)[number]>> = {
  'e-mail': 'email',
  'email address': 'email',
  // As files of earlier versions call it.
  'e-mail address': 'email',
  'home unit': 'home_unit',
  role: 'roles',
};

/** A column by its word, in any case, or by what the builder calls it. */
function columnCalled(definition: Definition, name: string): string {
  const small = name.toLowerCase();
  const own = ownAttributes(definition);
  return (
    own.find(({ id }) => id === name)?.id ??
    FIXED.find((one) => one === small) ??
    WORDS[small] ??
    called(own, name)?.id ??
    name
  );
}

/** The one of these with that id, else the only one with that name, in any case. */
function called<T extends { readonly id: string; readonly name: string }>(
  all: readonly T[],
  text: string,
): T | undefined {
  const small = text.trim().toLowerCase();
  const named = all.filter(({ name }) => name.toLowerCase() === small);
  return all.find(({ id }) => id === text.trim()) ?? (named.length === 1 ? named[0] : undefined);
}

/** The text in pieces, so that no reading of it keeps others waiting. */
function* slices(text: string): Generator<string> {
  for (let n = 0; n < text.length; n += SLICE) yield text.slice(n, n + SLICE);
}

/** The first few, and how many more there are. */
const some = (names: readonly string[], most = 5): string =>
  names.length <= most
    ? names.join(', ')
    : `${names.slice(0, most).join(', ')} and ${names.length - most} more`;

function plan(
  definition: Definition,
  person: Person | undefined,
  email: string,
  record: Record<string, string>,
  line: number,
  twice: boolean,
): Planned {
  const told = (does: ImportLine['does'], ...says: string[]): Planned['told'] => ({
    line,
    email,
    does,
    says,
  });
  if (twice) return { told: told('wrong', 'The same email address already appears in an earlier line.') };
  const cells = Object.fromEntries(Object.entries(record).map(([key, one]) => [key, cell(one)]));
  const { input, problems } = inputOf(definition, cells, email);
  const named = person || input.name ? input : { ...input, name: '' };
  const result = checkPerson(definition, named);
  const all = [
    ...problems,
    ...('problems' in result ? result.problems.map((one) => `${one.field}: ${one.detail}`) : []),
  ];
  if (all.length > 0 || 'problems' in result) return { told: told('wrong', ...all) };
  if (!person)
    return {
      told: told('new', `${input.name ?? ''}, ${rolesText(definition, input.assignments ?? [])}`),
      input: result.value,
    };
  const changes = changesOf(definition, person, result.value);
  return {
    told: told(changes.length > 0 ? 'changes' : 'same', ...changes),
    input: result.value,
    person,
  };
}

/** What is held, by the names that the builder gave. */
const rolesText = (definition: Definition, given: readonly Assignment[]): string => {
  const nameOf = (all: readonly { readonly id: string; readonly name: string }[], id: string) =>
    all.find((one) => one.id === id)?.name ?? id;
  const named = given.map((one) =>
    assignmentText({
      ...one,
      role: nameOf(definition.roles, one.role),
      ...(one.unit !== undefined && { unit: nameOf(unitsOf(definition), one.unit) }),
    }),
  );
  return named.join('; ') || 'no role';
};

function changesOf(definition: Definition, person: Person, input: PersonInput): string[] {
  const changes: string[] = [];
  const compare = (what: string, was: unknown, is: unknown): void => {
    if (is !== undefined && !sameJson(was ?? null, is ?? null))
      changes.push(`${what}: ${text(was)} → ${text(is)}`);
  };
  const text = (one: unknown): string =>
    one === null || one === undefined || one === ''
      ? 'nothing'
      : typeof one === 'string'
        ? one
        : JSON.stringify(one);
  compare('name', person.name, input.name);
  compare('active', person.active, input.active);
  compare('home unit', person.attributes['home_unit'], input.homeUnit);
  for (const [id, value] of Object.entries(input.attributes ?? {})) compare(id, person.attributes[id], value);
  if (input.assignments)
    compare('roles', rolesText(definition, person.assignments), rolesText(definition, input.assignments));
  return changes;
}

/** A column that is not in the file leaves what is there; an empty cell empties it. */
function inputOf(
  definition: Definition,
  cells: Record<string, string>,
  email: string,
): { input: PersonInput; problems: string[] } {
  const problems: string[] = [];
  const yesNo = (what: string, cell: string): boolean => {
    if (!/^(yes|no|)$/i.test(cell)) problems.push(`${what}: enter yes or no.`);
    return /^yes$/i.test(cell);
  };
  const attributes: Record<string, Value | null> = {};
  for (const { id, type } of ownAttributes(definition)) {
    const cell = cells[id];
    if (cell === undefined) continue;
    if (cell === '') attributes[id] = null;
    else if (type.kind === 'boolean') attributes[id] = yesNo(id, cell);
    else attributes[id] = (type.kind === 'choice' && called(type.options, cell)?.id) || cell;
  }
  const { name, active, home_unit: home, roles } = cells;
  const assignments = roles === undefined ? undefined : readAssignments(definition, roles, problems);
  return {
    problems,
    input: {
      email,
      ...(name && { name }),
      ...(active && { active: yesNo('active', active) }),
      ...(home !== undefined && {
        homeUnit: home === '' ? null : (called(unitsOf(definition), home)?.id ?? home),
      }),
      ...(Object.keys(attributes).length > 0 && { attributes }),
      ...(assignments && { assignments }),
    },
  };
}

function readAssignments(definition: Definition, roles: string, problems: string[]): Assignment[] {
  const moment = (text: string | undefined): string | undefined =>
    text ? readMoment(text.trim(), definition.timeZone) : undefined;
  return roles
    .split(';')
    .map((one) => one.trim())
    .filter(Boolean)
    .flatMap((one) => {
      const [, held = '', begins, ends] = /^(.*?)(?:\[([^/\]]*)\/([^\]]*)\])?$/.exec(one) ?? [];
      const [from, until] = [moment(begins), moment(ends)];
      const given = heldBy(definition, held);
      if (!given || (begins && !from) || (ends && !until)) {
        problems.push(
          given
            ? `roles: “${one}” is not valid. Write ROLE, ROLE@UNIT or ROLE@UNIT[FROM/UNTIL], with dates such as 2026-03-14 or times such as 2026-03-14T09:30:00Z.`
            : `roles: “${held}” does not match exactly one role, or one role and unit. The roles are ${some(
                definition.roles.map(({ name }) => name),
                12,
              )}; add @UNIT to assign a role in one unit only.`,
        );
        return [];
      }
      return [{ ...given, ...(from && { from }), ...(until && { until }) }];
    });
}

/** The role, and the unit behind an @, by their ids or names. A name may have an @ in it. */
function heldBy(definition: Definition, text: string): Pick<Assignment, 'role' | 'unit'> | undefined {
  const whole = called(definition.roles, text);
  if (whole) return { role: whole.id };
  const cut = text.lastIndexOf('@');
  const role = cut > 0 ? called(definition.roles, text.slice(0, cut)) : undefined;
  const unit = cut > 0 ? called(unitsOf(definition), text.slice(cut + 1)) : undefined;
  return role && unit && { role: role.id, unit: unit.id };
}

const cell = (text: string): string => plainCell(text).trim();
