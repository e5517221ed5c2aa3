import { decoded } from './encodings';
import { kindOf, showValue } from '../model/values';
import type { Literal } from '../model/values/kind';
import type { Definition, EntityField } from '../model/definition';
import type { Value, Values } from '../model/value-type';
import type { sectionsOf } from '../model/tree';
import type { Id } from '../model/id';

/** A mark that was found: the name of an element or a person, a record's id, or a value of a record's field. */
export type Mark =
  | { readonly of: 'element'; readonly number: number }
  | { readonly of: 'person'; readonly person: number }
  | { readonly of: 'record'; readonly record: number }
  | { readonly of: 'value'; readonly record: number; readonly field: number };

const FIELDS = 500;
/** Numbers that nothing else in an answer is likely to hold. */
const FIRST_NUMBER = 7_319_500_000;
const NUMBER_OF = 500_000;
/** Years that nothing else in an answer is likely to name. */
const FIRST_YEAR = 1500;
const YEARS = 400;

/** The id of a record of the sweep. */
export const recordMark = (record: number): Id => `Zr${record}rZ`;

/** The mark that a person's name ends with. */
export const personMark = (person: number): string => `Zp${person}pZ`;

const valueNumber = (record: number, field: number): number => record * FIELDS + field;

/**
 * A value of a field that is in no other record; undefined for a type whose values cannot be told apart (a choice, a
 * unit, yes and no), and for what points to another record, whose id and label are marks themselves.
 */
export function valueMark({ type }: EntityField, record: number, field: number): Value | undefined {
  const n = valueNumber(record, field);
  return MARKED[kindOf(type).literal]?.(n);
}

const MARKED: Readonly<Record<Literal, ((n: number) => Value | undefined) | undefined>> = {
  string: (n) => `Zq${n}qZ`,
  number: (n) => String(FIRST_NUMBER + n),
  // Days of which there are enough: each names its number by itself.
  date: (n) => (n < YEARS * 336 ? dayOf(n) : undefined),
  truth: undefined,
  name: undefined,
  id: undefined,
  time: undefined,
  moment: undefined,
  weekday: undefined,
};

/** Year, month and day, each from the number: 28 days in each of 12 months are in every year. */
function dayOf(n: number): string {
  const [year, month, day] = [FIRST_YEAR + Math.floor(n / 336), Math.floor((n % 336) / 28), n % 28];
  return `${year}-${String(month + 1).padStart(2, '0')}-${String(day + 1).padStart(2, '0')}`;
}

const valueOf = (n: number): Mark => ({
  of: 'value',
  record: Math.floor(n / FIELDS),
  field: n % FIELDS,
});

/** What makes two marks the same. */
function markKey(mark: Mark): string {
  switch (mark.of) {
    case 'element':
      return `e${mark.number}`;
    case 'person':
      return `p${mark.person}`;
    case 'record':
      return `r${mark.record}`;
    case 'value':
      return `v${mark.record} ${mark.field}`;
  }
}

const WORDS = /Z(?:e(\d+)e|p(\d+)p|r(\d+)r|q(\d+)q)Z|-ze(\d+)ez(?![a-z0-9])/g;
/** From the first number on, however its digits are grouped. */
const NUMBERS = /(?<!\d)7[,.\u00a0\u202f\u2009' ]?319(?:[,.\u00a0\u202f\u2009' ]?\d{3}){2}(?!\d)/g;
const YEARS_WRITTEN = /(?<!\d)1[5-8]\d\d(?!\d)/g;
const ISO_DAYS = /\b(1[5-8]\d\d)-(\d\d)-(\d\d)\b/g;

/** Finds the marks in answers of one application: built once, since how it writes days differs. */
export class MarkFinder {
  /** By how they are written. */
  private readonly days = new Map<string, Mark>();
  /** How much of a day in words stands before its year, and how long it is. */
  private readonly ways: readonly (readonly [before: number, length: number])[];

  constructor(definition: Definition, records: readonly { readonly values: Values }[], fields: FieldNumbers) {
    records.forEach(({ values }, record) => {
      for (const [id, value] of Object.entries(values)) {
        const field = fields.field(id);
        const number = fields.number(id);
        if (field?.type.kind !== 'date' || typeof value !== 'string' || number === undefined) continue;
        if (value === valueMark(field, record, number))
          this.days.set(showValue(field.type, value, definition), { of: 'value', record, field: number });
      }
    });
    const ways = [...this.days.keys()].map((words) => [words.search(YEARS_WRITTEN), words.length] as const);
    this.ways = [...new Map(ways.map((way) => [way.join(), way])).values()];
  }

  /** By their keys. They are found in whatever form the text has them. */
  findInAnyForm(text: string): Map<string, Mark> {
    const found = this.find(text);
    for (const one of decoded(text)) for (const [key, mark] of this.find(one)) found.set(key, mark);
    return found;
  }

  /** By their keys, as they are written. */
  find(text: string): Map<string, Mark> {
    const found = new Map<string, Mark>();
    const put = (mark: Mark): void => void found.set(markKey(mark), mark);
    for (const [, named, person, record, value, addressed] of text.matchAll(WORDS)) {
      const element = named ?? addressed;
      if (element !== undefined) put({ of: 'element', number: Number(element) });
      else if (person !== undefined) put({ of: 'person', person: Number(person) });
      else if (record !== undefined) put({ of: 'record', record: Number(record) });
      else put(valueOf(Number(value)));
    }
    for (const [number] of text.matchAll(NUMBERS)) {
      const n = Number(number.replace(/\D/g, '')) - FIRST_NUMBER;
      if (n >= 0 && n < NUMBER_OF) put(valueOf(n));
    }
    for (const [, year, month, day] of text.matchAll(ISO_DAYS)) {
      const n = (Number(year) - FIRST_YEAR) * 336 + (Number(month) - 1) * 28 + Number(day) - 1;
      if (Number(day) <= 28) put(valueOf(n));
    }
    if (this.days.size > 0)
      for (const { index } of text.matchAll(YEARS_WRITTEN))
        for (const [before, length] of this.ways) {
          const mark = this.days.get(text.slice(index - before, index - before + length));
          if (mark) put(mark);
        }
    return found;
  }
}

/** The fields of all data, each with a number. */
export class FieldNumbers {
  private readonly all: readonly EntityField[];
  private readonly numbers: ReadonlyMap<Id, number>;

  constructor({ entities }: Pick<Definition, 'entities'>) {
    this.all = entities.flatMap(({ fields }) => fields);
    this.numbers = new Map(this.all.map(({ id }, n) => [id, n]));
  }

  number(id: Id): number | undefined {
    return this.numbers.get(id);
  }

  field(id: Id): EntityField | undefined {
    return this.all[this.numbers.get(id) ?? -1];
  }

  at(number: number): EntityField | undefined {
    return this.all[number];
  }
}

/** The mark that an element's name ends with, and that is its id. */
export const elementMark = (number: number): string => `Ze${number}eZ`;

/** The definition in which the name of each element, its words where it is a text, and its address where it is a screen, end with its mark. */
export function marked(definition: Definition, numberOf: (id: Id) => number): Definition {
  const named = <T extends { readonly id: Id; readonly name: string }>(one: T): T => ({
    ...one,
    name: `${one.name} ${elementMark(numberOf(one.id))}`,
  });
  const item = (one: Definition['menu']['items'][number]): typeof one => ({
    ...named(one),
    items: one.items.map(item),
  });
  type Sections = ReturnType<typeof sectionsOf>;
  const sections = (all: Sections): Sections =>
    all.map((section) => ({
      ...named(section),
      parts: section.parts.map((part) => {
        if (part.kind === 'field') return part;
        if (part.kind === 'text') return { ...part, text: `${part.text} ${elementMark(numberOf(part.id))}` };
        if (part.kind === 'list') return { ...named(part), buttons: part.buttons.map(named) };
        return named(part);
      }),
    }));
  return {
    ...definition,
    entities: definition.entities.map((entity) => ({
      ...entity,
      fields: entity.fields.map(named),
      actions: entity.actions.map(named),
    })),
    areas: definition.areas.map((area) => ({
      ...named(area),
      ...(area.frame && { frame: { ...named(area.frame), items: area.frame.items.map(item) } }),
      screens: area.screens.map((screen) => ({
        ...named(screen),
        address: `${screen.address}-${elementMark(numberOf(screen.id)).toLowerCase()}`,
        sections: sections(screen.sections as Sections),
        ...(screen.faces && {
          faces: screen.faces.map((face) => ({
            ...named(face),
            sections: sections(face.sections as Sections),
          })),
        }),
      })),
    })),
    menu: { ...definition.menu, items: definition.menu.items.map(item) },
  };
}
