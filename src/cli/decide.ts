import { accessOf, compile, explain } from '@/core';
import type { Explanation } from '@/core/access';
import { levelName, readLevels } from '@/core/expectations';
import { type Id, isMoment, type Problem } from '@/core/model';
import { parse } from 'csv-parse/sync';
import { wrong, WrongInput } from './failure';
import { readText } from './files';
import type { World } from './world';

/** One question: who, what, on which record, when. */
export interface Case {
  readonly viewer: string;
  readonly element: Id;
  readonly record?: string;
  /** RFC 3339; empty: now. */
  readonly at?: string;
  /** What is expected: a level, or `LEAST..MOST`. */
  readonly expect?: string;
}

/** A case of a file: its line, and what it protects, where it says so. */
export interface NamedCase extends Case {
  readonly line: number;
  readonly name?: string;
}

/** A case with its answer; one that cannot be answered has none, and its problems. */
export interface Decision extends Case {
  readonly least: string;
  readonly most: string;
  readonly decided_by: string;
  /** False where it is not as expected. */
  readonly asExpected: boolean;
  readonly problems: readonly Problem[];
}

const COLUMNS = ['viewer', 'element', 'record', 'at'] as const;
/** What is answered may be read again, as what is expected. */
const KNOWN: readonly string[] = [
  ...COLUMNS,
  'expect',
  'as_expected',
  'least',
  'most',
  'decided_by',
  'problem',
  // Of expectations.
  'name',
  'reason',
];

/** The columns of a case file: those that are needed, none twice, and none that is not known. */
function checkHeader(file: string, header: readonly string[]): string[] {
  const names = header.map((one) => one.trim());
  const fault = (message: string): WrongInput =>
    new WrongInput([wrong(`${file}, line 1`, message, `The possible columns are ${KNOWN.join(', ')}.`)]);
  const missing = COLUMNS.slice(0, 2).filter((one) => !names.includes(one));
  if (missing.length > 0) throw fault(`The column ${missing.join(' and ')} is missing.`);
  const unknown = names.filter((one) => !KNOWN.includes(one));
  if (unknown.length > 0) throw fault(`There is no column ${unknown.slice(0, 5).join(', ')}.`);
  const twice = names.find((one, n) => names.indexOf(one) !== n);
  if (twice !== undefined) throw fault(`The column ${twice} appears twice.`);
  return names;
}

/** The cases of a CSV file (RFC 4180) with a header, each with the number of its line. */
export function readCases(file: string): NamedCase[] {
  let rows: { record: Record<string, string>; info: { lines: number } }[];
  try {
    rows = parse(readText(file), {
      columns: (header: string[]) => checkHeader(file, header),
      info: true,
      bom: true,
      skip_empty_lines: true,
      trim: true,
    });
  } catch (error) {
    if (error instanceof WrongInput) throw error;
    throw new WrongInput([wrong(file, (error as Error).message, 'Use CSV (RFC 4180) with a header.')]);
  }
  if (rows.length === 0)
    throw new WrongInput([
      wrong(file, 'The file contains no cases.', 'Add one line for each case below the header.'),
    ]);
  return rows.map(({ record, info }) => ({
    viewer: record['viewer'] ?? '',
    element: record['element'] ?? '',
    ...(record['record'] && { record: record['record'] }),
    ...(record['at'] && { at: record['at'] }),
    ...(record['expect'] && { expect: record['expect'] }),
    ...(record['name'] && { name: record['name'] }),
    line: info.lines,
  }));
}

/** What is wrong with a question; nothing, where it can be answered. */
export function faultsOf(world: World, one: Case, place: string): Problem[] {
  const faults: Problem[] = [];
  const { tree } = compile(world.definition);
  const element = tree.get(one.element);
  if (!world.viewer(one.viewer))
    faults.push(
      wrong(
        place,
        `There is no viewer “${one.viewer}”.`,
        'Write signed-out, signed-in, person:ID, role:ID or group:ID.',
      ),
    );
  if (!element)
    faults.push(
      wrong(place, `There is no element “${one.element}”.`, 'Use the id of an element in the definition.'),
    );
  const record = one.record === undefined ? undefined : world.record(one.record);
  if (one.record !== undefined && !record)
    faults.push(
      wrong(place, `There is no record “${one.record}”.`, 'Use entity:ID for a record in the world file.'),
    );
  const about = element && tree.recordOf(element);
  if (record && about && record.entity !== about)
    faults.push(
      wrong(
        place,
        `${element.name} needs a record of ${about.id}, but this is a record of ${record.entity.id}.`,
        `Give a record of ${about.id}, or leave the record empty.`,
      ),
    );
  if (one.at !== undefined && !isMoment(one.at))
    faults.push(
      wrong(place, `“${one.at}” is not a valid date and time.`, 'Write it like 2026-03-14T09:30:00Z.'),
    );
  if (one.expect !== undefined && !readLevels(one.expect))
    faults.push(
      wrong(place, `“${one.expect}” is not a level.`, 'Use none, see or edit, or a range such as see..edit.'),
    );
  return faults;
}

/** Answers one question that has no faults. */
export function explained(world: World, one: Case, now: number): Explanation {
  const viewer = world.viewer(one.viewer);
  if (!viewer) throw new Error(`No viewer ${one.viewer}`);
  const moment = one.at === undefined ? now : Date.parse(one.at);
  const access = accessOf(compile(world.definition), viewer, { moment, session: world.session(one.viewer) });
  return explain(access, one.element, one.record === undefined ? undefined : world.record(one.record));
}

/** Answers each case by itself: one that cannot be answered keeps no other from its answer. */
export function decide(world: World, cases: readonly NamedCase[], file: string, now: number): Decision[] {
  return cases.map(({ line, name: _, ...one }) => {
    const problems = faultsOf(world, one, `${file}, line ${line}`);
    if (problems.length > 0)
      return { ...one, least: '', most: '', decided_by: '', asExpected: false, problems };
    const { answer, decided } = explained(world, one, now);
    const expected = one.expect === undefined ? undefined : readLevels(one.expect);
    return {
      ...one,
      least: levelName(answer.least),
      most: levelName(answer.most),
      decided_by: decidedBy(decided),
      asExpected: !expected || (expected.least === answer.least && expected.most === answer.most),
      problems,
    };
  });
}

/** What decided, for programs and for people alike. */
export function decidedBy(decided: Explanation['decided']): string {
  switch (decided.by) {
    case 'line':
      return `line ${decided.line.id} on ${decided.gate}`;
    case 'no-line':
      return `no line on ${decided.gate}`;
    case 'handles':
      return `handles of ${decided.door}: ${decided.handles.join(' ')}`;
    case 'no-handle':
      return `no handle of ${decided.door}`;
  }
}
