import { bind } from '../../condition/bind';
import { allWithin, operandsOf, type Condition, type Operand } from '../../condition/condition';
import { readConstant, attributesOf } from '../../condition/type';
import type { Definition } from '../../model/definition';
import type { Id } from '../../model/id';
import type { Value } from '../../model/value-type';
import { Grants } from '../deciding/grants';
import { conditionsOf } from '../deciding/reads';
import {
  counts,
  viewerOfPerson,
  type Assignment,
  type Circumstances,
  type Person,
  type Viewer,
} from '../deciding/viewer';

/** What a definition asks of people: those who are the same in all of it get the same everywhere. */
export interface UsedPersonData {
  /** Those who are each for themselves: lines name them. */
  readonly people: readonly Id[];
  /** Questions that are answered by the person and the moment alone. */
  readonly questions: readonly Condition[];
  /** Attributes of which the value itself counts. */
  readonly values: readonly Id[];
  /**
   * Attributes that are compared with what a record holds. It is not known which record, so it counts only whether
   * there is a value, and which of them are the same.
   */
  readonly compared: readonly Id[];
}

/** People between whom nothing that is asked differs. */
export interface PeopleGroup {
  /** Any of them. It has who it is only where lines ask for that. */
  readonly viewer: Viewer;
  readonly count: number;
  /** The first few of them, in the order in which they were given. */
  readonly some: readonly { readonly id: Id; readonly name: string }[];
}

/** What a bench knows of an application's people. */
export interface PeopleKnown {
  /** All who may sign in, by what is asked of them. */
  readonly alike: readonly PeopleGroup[];
  /** Those who are asked for by name, switched off or not. */
  readonly named: readonly Person[];
  /** How many of them have not activated their accounts yet: they cannot sign in until then. */
  readonly waiting: number;
}

/** So many of each are told by name. */
const SOME = 3;

/** What the definition's lines and conditions ask of people; `named`: others who are to be known by name. */
export function askedOfPeople(definition: Definition, named: readonly Id[] = []): UsedPersonData {
  const people = new Set(named);
  const [values, compared] = [new Set<Id>(), new Set<Id>()];
  const questions = new Map<string, Condition>();
  for (const { lines } of Object.values(definition.gates))
    for (const { who } of lines) {
      if (who.kind === 'person') people.add(who.person);
      if (who.kind === 'unit') values.add('home_unit');
    }
  for (const condition of conditionsOf(definition).flatMap(allWithin)) {
    const operands = operandsOf(condition);
    const attributes = operands.flatMap((one) => ('user' in one ? [one.user] : []));
    if (attributes.length === 0) continue;
    if (!('call' in condition) && operands.every(isOfThePerson))
      questions.set(JSON.stringify(condition), condition);
    else if ('compare' in condition && operands.some((one) => 'record' in one))
      attributes.forEach((id) => compared.add(id));
    else attributes.forEach((id) => values.add(id));
  }
  return {
    people: [...people].sort(),
    questions: [...questions.keys()].sort().flatMap((key) => questions.get(key) ?? []),
    values: [...values].sort(),
    compared: [...compared].sort(),
  };
}

const isOfThePerson = (operand: Operand): boolean =>
  'user' in operand || 'value' in operand || 'clock' in operand;

/**
 * People by what they are asked: each of the list is people who get the same of everything at this moment. Those who
 * are switched off are not among them.
 *
 * @example
 * const person = (id: string, role: string) => ({ id, name: id, active: true, assignments: [{ role }], attributes: {} });
 * const people = [person('ada', 'lender'), person('bo', 'lender'), person('cy', 'curator')];
 * groupSimilarPeople(LARKFIELD, people, at).map(({ count, some }) => [count, some[0]?.id]) // → [[2, 'ada'], [1, 'cy']]
 */
export function groupSimilarPeople(
  definition: Definition,
  people: readonly Person[],
  at: Circumstances,
  asked: UsedPersonData = askedOfPeople(definition),
): PeopleGroup[] {
  const found = new Map<string, { viewer: Viewer; count: number; some: { id: Id; name: string }[] }>();
  const keep = new Set([...asked.values, ...asked.compared, ...attributesIn(asked.questions)]);
  for (const person of people) {
    if (!person.active) continue;
    const named = asked.people.includes(person.id);
    const assignments = countingAt(person.assignments, at.moment);
    const key = JSON.stringify([
      named ? person.id : '',
      assignments,
      asked.values.map((id) => person.attributes[id] ?? null),
      answersOf(definition, asked.questions, person, at),
      shapeOf(definition, asked.compared, person),
    ]);
    let group = found.get(key);
    if (!group) {
      const attributes = Object.fromEntries(Object.entries(person.attributes).filter(([id]) => keep.has(id)));
      const viewer: Viewer = {
        kind: 'signed-in',
        assignments,
        attributes,
        ...(named && { person: person.id }),
      };
      found.set(key, (group = { viewer, count: 0, some: [] }));
    }
    group.count++;
    if (group.some.length < SOME) group.some.push({ id: person.id, name: person.name });
  }
  return [...found.values()];
}

/** The assignments that count now, in one order, each once. */
function countingAt(assignments: readonly Assignment[], moment: number): Assignment[] {
  const found = new Map<string, Assignment>();
  for (const one of assignments)
    if (counts(one, moment))
      found.set(`${one.role} ${one.unit ?? ''}`, {
        role: one.role,
        ...(one.unit !== undefined && { unit: one.unit }),
      });
  return [...found.keys()].sort().flatMap((key) => found.get(key) ?? []);
}

const attributesIn = (questions: readonly Condition[]): Id[] =>
  questions.flatMap(operandsOf).flatMap((one) => ('user' in one ? [one.user] : []));

/** To each question: yes, no, or in doubt. */
function answersOf(
  definition: Definition,
  questions: readonly Condition[],
  person: Person,
  at: Circumstances,
): string {
  if (questions.length === 0) return '';
  const { facts } = new Grants(definition, viewerOfPerson(person), at);
  const is = (question: Condition, must: 'be true' | 'be false'): boolean =>
    bind(facts, { definition }, question, must) === true;
  return questions.map((one) => (is(one, 'be true') ? 'y' : is(one, 'be false') ? 'n' : '?')).join('');
}

/** Which of the attributes have a value that can be compared, and which have the same, whatever it is. */
function shapeOf(
  definition: Definition,
  compared: readonly Id[],
  { attributes }: Person,
): readonly unknown[] {
  const values = compared.map((id) => attributes[id] ?? null);
  const types = new Map(attributesOf(definition).map(({ id, type }) => [id, type]));
  const first = (of: (value: Value | null) => string): number[] => {
    const written = values.map(of);
    return written.map((one) => written.indexOf(one));
  };
  return [
    values.map((value, n) => {
      const type = types.get(compared[n] ?? '');
      if (value === null || value === '') return value;
      return type !== undefined && readConstant(definition, type, value) !== undefined;
    }),
    first((value) => JSON.stringify(value)),
    first((value) => JSON.stringify(value).toLowerCase()),
  ];
}
