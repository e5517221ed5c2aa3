import { lineScopes } from './conditions';
import { addDays, readClock } from '../condition/clock';
import { allWithin, type Condition, operandsOf } from '../condition/condition';
import { reachable, type Witness } from '../condition/reachable';
import type { Definition, Entity } from '../model/definition';
import type { Id } from '../model/id';
import { unitsOf } from '../model/units';
import type { Value, Values } from '../model/value-type';
import { kindOf, listedIn } from '../model/values';
import { FieldNumbers, recordMark, valueMark } from './marks';

/** A record of the sweep: its place in the list is its number. */
export interface SweepRecord {
  readonly entity: Id;
  readonly id: Id;
  readonly values: Values;
}

/** So many of one kind of data: they fit on one page of a list. */
const MOST = 25;
const UNITS = 4;

/** What is known of the people who are looked through. */
export type PersonValues = readonly { readonly attributes: Values }[];

/**
 * Records on both sides of every condition that asks of them, with a mark of its own in every value that can have one:
 * one that is all marks, one that is empty, and for each condition one for which it is true and one for which it is
 * false; one in each unit; where records are compared with who looks, one for each of some people; and where they are
 * compared with the day, one on that of the moment (milliseconds since 1970) and on those beside it.
 */
export function sweepRecords(
  definition: Definition,
  people: PersonValues,
  moment: number,
): readonly SweepRecord[] {
  const maker = new Maker(definition, people, readClock(moment, definition.timeZone).today);
  for (const entity of definition.entities) maker.first(entity);
  for (const entity of definition.entities) maker.others(entity);
  return maker.records;
}

class Maker {
  readonly records: SweepRecord[] = [];
  private readonly fields: FieldNumbers;
  private readonly known = new Set<string>();
  private readonly counts = new Map<Id, number>();

  constructor(
    private readonly definition: Definition,
    private readonly people: PersonValues,
    private readonly today: string,
  ) {
    this.fields = new FieldNumbers(definition);
  }

  /** The record that is all marks. Those that it points to are the first of their kind, which have known numbers. */
  first(entity: Entity): void {
    this.add(entity, {});
  }

  others(entity: Entity): void {
    for (const condition of this.conditionsOf(entity)) {
      const answers = reachable({ definition: this.definition, entity }, condition);
      for (const witness of [answers?.whenTrue, answers?.whenFalse]) if (witness) this.asIn(entity, witness);
    }
    if (entity.unitField !== undefined)
      for (const { id } of unitsOf(this.definition).slice(0, UNITS))
        this.add(entity, { [entity.unitField]: id });
    for (const [field, attribute] of comparedWithPeople(this.definition, entity))
      for (const { attributes } of this.people) {
        const value = attributes[attribute];
        if (value !== undefined && value !== null) this.add(entity, { [field]: value });
      }
    for (const [field, plus] of comparedWithDays(this.definition, entity))
      for (const beside of [-1, 0, 1]) this.add(entity, { [field]: addDays(this.today, plus + beside) });
    this.add(entity, Object.fromEntries(entity.fields.map(({ id }) => [id, null])));
  }

  private asIn(entity: Entity, { record, behind }: Witness): void {
    const pointing: Record<Id, Value> = {};
    for (const [field, values] of Object.entries(behind)) {
      const type = entity.fields.find(({ id }) => id === field)?.type;
      const target =
        type?.kind === 'record' ? this.definition.entities.find(({ id }) => id === type.entity) : undefined;
      const made = target && this.add(target, values);
      if (made !== undefined) pointing[field] = made;
    }
    this.add(entity, { ...record, ...pointing });
  }

  /** Adds a record with these values in place of its marks, unless there is one; its id. */
  private add(entity: Entity, instead: Values): Id | undefined {
    const key = JSON.stringify([entity.id, Object.entries(instead).sort()]);
    const count = this.counts.get(entity.id) ?? 0;
    if (this.known.has(key) || count >= MOST) return undefined;
    this.known.add(key);
    this.counts.set(entity.id, count + 1);
    const number = this.records.length;
    const values: Record<Id, Value | null> = {};
    for (const field of entity.fields) {
      const own = instead[field.id];
      values[field.id] = own === undefined ? this.usual(entity, field.id, number) : own;
    }
    const id = recordMark(number);
    this.records.push({ entity: entity.id, id, values });
    return id;
  }

  private usual(entity: Entity, id: Id, record: number): Value | null {
    const field = entity.fields.find((one) => one.id === id);
    const number = this.fields.number(id);
    if (!field || number === undefined) return null;
    const { type } = field;
    const { form, listed } = kindOf(type);
    if (form === 'boolean') return false;
    if (listed) return listedIn(type, this.definition)[0]?.id ?? null;
    if (type.kind === 'record') {
      // The first records are made in the order of the entities.
      const at = this.definition.entities.findIndex((one) => one.id === type.entity);
      return at < 0 ? null : recordMark(at);
    }
    return valueMark(field, record, number) ?? null;
  }

  private conditionsOf(entity: Entity): Condition[] {
    return lineScopes(this.definition)
      .filter((one) => one.entity?.id === entity.id)
      .map(({ condition }) => condition)
      .filter((one, n, all) => all.findIndex((other) => JSON.stringify(other) === JSON.stringify(one)) === n);
  }
}

/** The dates that some condition compares with the day, and how many days from it. */
function comparedWithDays(definition: Definition, entity: Entity): (readonly [field: Id, plus: number])[] {
  const dates = new Set(entity.fields.filter(({ type }) => type.kind === 'date').map(({ id }) => id));
  const found = lineScopes(definition)
    .filter((one) => one.entity?.id === entity.id)
    .flatMap(({ condition }) => allWithin(condition))
    .flatMap((one) => {
      const operands = operandsOf(one);
      const days = operands.flatMap((each) => ('clock' in each ? (each.plus ?? 0) : []));
      return operands.flatMap((each) =>
        'record' in each && each.through === undefined && dates.has(each.record)
          ? days.map((plus) => [each.record, plus] as const)
          : [],
      );
    });
  return [...new Map(found.map((one) => [one.join(' '), one])).values()];
}

/** The fields that some condition compares with an attribute of who looks. */
function comparedWithPeople(definition: Definition, entity: Entity): (readonly [field: Id, attribute: Id])[] {
  const found = new Map<string, readonly [Id, Id]>();
  for (const { condition, entity: of } of lineScopes(definition)) {
    if (of?.id !== entity.id) continue;
    for (const one of allWithin(condition)) {
      const sides = 'compare' in one ? [one.left, one.right] : 'inUnit' in one ? [one.inUnit, one.unit] : [];
      const field = sides.flatMap((side) =>
        'record' in side && side.through === undefined ? side.record : [],
      )[0];
      const attribute = sides.flatMap((side) => ('user' in side ? side.user : []))[0];
      if (field !== undefined && attribute !== undefined)
        found.set(`${field} ${attribute}`, [field, attribute]);
    }
  }
  return [...found.values()];
}
