import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { asc, eq } from 'drizzle-orm';
import type { Assignment, Person } from '@/core/access/viewer';
import type { Definition } from '@/core/model/definition';
import { sameJson } from '@/core/model/same-json';
import type { Value } from '@/core/model/value';
import { database } from '../database/client';
import { people } from '../database/schema';
import { Refused } from '../http/problem';
import { checkPerson, ownAttributes, type PersonInput } from './input';
import { personColumns, personOf } from './read';
import { createPerson, newPassword, updatePerson, type Keeper } from './write';

const FIXED = ['email', 'name', 'active', 'home_unit', 'roles'] as const;

/** What an import would do, or has done, with one line of the file. */
export interface ImportLine {
  readonly line: number;
  readonly email: string;
  readonly does: 'new' | 'changes' | 'same' | 'wrong';
  /** What changes, or what is wrong, in words. */
  readonly says: readonly string[];
}

/** An assignment as a cell has it: `ROLE`, `ROLE@UNIT`, `ROLE[FROM/UNTIL]` (ISO 8601), either end left open. */
export const assignmentText = ({ role, unit, from, until }: Assignment): string =>
  `${role}${unit === undefined ? '' : `@${unit}`}${from || until ? `[${plainMoment(from)}/${plainMoment(until)}]` : ''}`;

const plainMoment = (text: string | undefined): string => (text ? new Date(text).toISOString() : '');

/** Everybody as CSV (RFC 4180), sorted by email. No cell can act as a spreadsheet's formula. */
export async function exportPeople(applicationId: string, definition: Definition): Promise<string> {
  const rows = await database()
    .select(personColumns)
    .from(people)
    .where(eq(people.applicationId, applicationId))
    .orderBy(asc(people.email));
  const own = ownAttributes(definition);
  const header = [...FIXED, ...own.map(({ id }) => id)];
  const cells = rows.map((row) => {
    const person = personOf(row);
    return [
      row.email,
      row.name,
      row.active ? 'yes' : 'no',
      row.homeUnit ?? '',
      person.assignments.map(assignmentText).join('; '),
      ...own.map(({ id }) => cellOf(row.attributes[id])),
    ];
  });
  return stringify([header, ...cells], { escape_formulas: true, record_delimiter: 'windows' });
}

const cellOf = (value: Value | null | undefined): string =>
  typeof value === 'boolean' ? (value ? 'yes' : 'no') : (value ?? '');

/** What kept a cell from acting as a formula is taken off again. */
const plainCell = (cell: string): string => cell.replace(/^'(?=[=+\-@\t\r])/, '').trim();

interface Planned {
  readonly told: ImportLine;
  readonly input?: PersonInput;
  readonly id?: string;
}

/**
 * Reads a file of people: known by their email address, others are new. With `dry`, tells line by line what
 * would happen; without, does it, all or nothing: where one line is wrong, nothing is changed.
 */
export async function importPeople(
  applicationId: string,
  definition: Definition,
  keeper: Keeper,
  text: string,
  dry: boolean,
): Promise<readonly ImportLine[]> {
  const rows = readRows(definition, text);
  // Nobody is told the password of those who are new: it is reset when they first need it.
  const { passwordHash } = await newPassword();
  return database().transaction(async (tx) => {
    const known = await tx
      .select(personColumns)
      .from(people)
      .where(eq(people.applicationId, applicationId))
      .for('update', { of: people });
    const byEmail = new Map(known.map((row) => [row.email, { ...personOf(row), active: row.active }]));
    const seen = new Set<string>();
    const planned = rows.map(({ record, line }): Planned => {
      const email = plainCell(record['email'] ?? '').toLowerCase();
      const twice = seen.has(email);
      seen.add(email);
      return plan(definition, byEmail.get(email), email, record, line, twice);
    });
    const told = planned.map((one) => one.told);
    if (dry || told.some(({ does }) => does === 'wrong')) return told;
    for (const { told: one, input, id } of planned) {
      if (!input || one.does === 'same') continue;
      if (id === undefined) await createPerson(tx, applicationId, definition, keeper, input, passwordHash);
      else await updatePerson(tx, applicationId, definition, keeper, id, input);
    }
    return told;
  });
}

function readRows(definition: Definition, text: string): { record: Record<string, string>; line: number }[] {
  const wrong = (detail: string): Refused => new Refused(422, 'csv', `Nothing was changed: ${detail}`);
  let rows: { record: Record<string, string>; info: { lines: number } }[];
  try {
    rows = parse(text, {
      columns: (header: string[]) => header.map((one) => one.trim()),
      info: true,
      bom: true,
      skip_empty_lines: true,
    });
  } catch (error) {
    throw wrong(`it is not CSV as in RFC 4180. ${(error as Error).message}`);
  }
  const header = Object.keys(rows[0]?.record ?? {});
  if (rows.length === 0) throw wrong('the file has a header at most, and no people.');
  if (!header.includes('email')) throw wrong('the column email is missing.');
  const may: readonly string[] = [...FIXED, ...ownAttributes(definition).map(({ id }) => id)];
  const unknown = header.filter((one) => !may.includes(one));
  if (unknown.length > 0)
    throw wrong(`there is no place for ${unknown.join(', ')}. The columns are ${may.join(', ')}.`);
  return rows.map(({ record, info }) => ({ record, line: info.lines }));
}

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
  if (twice) return { told: told('wrong', 'The same email address is in a line above.') };
  const cells = Object.fromEntries(Object.entries(record).map(([key, cell]) => [key, plainCell(cell)]));
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
      told: told('new', `${input.name ?? ''}, ${rolesText(input.assignments ?? [])}`),
      input: result.value,
    };
  const changes = changesOf(person, result.value);
  return {
    told: told(changes.length > 0 ? 'changes' : 'same', ...changes),
    input: result.value,
    id: person.id,
  };
}

const rolesText = (given: readonly Assignment[]): string => given.map(assignmentText).join('; ') || 'no role';

function changesOf(person: Person, input: PersonInput): string[] {
  const changes: string[] = [];
  const compare = (what: string, was: unknown, is: unknown): void => {
    if (is !== undefined && !sameJson(was ?? null, is ?? null))
      changes.push(`${what}: ${text(was)} → ${text(is)}`);
  };
  const text = (one: unknown): string =>
    one === null || one === undefined || one === '' ? 'nothing' : String(one);
  compare('name', person.name, input.name);
  compare('active', person.active, input.active);
  compare('home unit', person.attributes['home_unit'], input.homeUnit);
  for (const [id, value] of Object.entries(input.attributes ?? {})) compare(id, person.attributes[id], value);
  if (input.assignments && rolesText(person.assignments) !== rolesText(input.assignments))
    compare('roles', rolesText(person.assignments), rolesText(input.assignments));
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
    if (!/^(yes|no|)$/i.test(cell)) problems.push(`${what}: write yes or no.`);
    return /^yes$/i.test(cell);
  };
  const attributes: Record<string, Value | null> = {};
  for (const { id, type } of ownAttributes(definition)) {
    const cell = cells[id];
    if (cell === undefined) continue;
    attributes[id] = cell === '' ? null : type.kind === 'boolean' ? yesNo(id, cell) : cell;
  }
  const { name, active, home_unit: home, roles } = cells;
  const assignments = roles === undefined ? undefined : readAssignments(roles, problems);
  return {
    problems,
    input: {
      email,
      ...(name && { name }),
      ...(active && { active: yesNo('active', active) }),
      ...(home !== undefined && { homeUnit: home === '' ? null : home }),
      ...(Object.keys(attributes).length > 0 && { attributes }),
      ...(assignments && { assignments }),
    },
  };
}

function readAssignments(cell: string, problems: string[]): Assignment[] {
  return cell
    .split(';')
    .map((one) => one.trim())
    .filter(Boolean)
    .flatMap((one) => {
      const found = /^([\w-]+)(?:@([\w-]+))?(?:\[([^/\]]*)\/([^\]]*)\])?$/.exec(one);
      const [, role, unit, from, until] = found ?? [];
      const moments = [from, until].filter(Boolean) as string[];
      if (role === undefined || moments.some((text) => Number.isNaN(Date.parse(text)))) {
        problems.push(`roles: “${one}” cannot be read; write ROLE, ROLE@UNIT or ROLE@UNIT[FROM/UNTIL].`);
        return [];
      }
      return [{ role, ...(unit && { unit }), ...(from && { from }), ...(until && { until }) }];
    });
}
