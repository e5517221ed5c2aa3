import type { Definition, Entity, EntityField } from '../model/definition';
import type { Id } from '../model/id';
import { unitsOf } from '../model/units';
import type { Value, Values, ValueType } from '../model/value-type';
import { plainDecimal } from '../model/values/decimal';
import { isShortEnough } from '../model/values/text';
import { Random } from './random';

/** The ids of the records that can be pointed to, by their entity. */
export type PointedTo = Readonly<Record<Id, readonly Id[]>>;

/** A field that is not needed is empty in so many of a hundred. */
const EMPTY = 12;
const DAY = 86_400_000;

/**
 * Made-up values for so many records: by each field's type and by what it is called, the same for the same seed.
 * Nothing in it is about anybody; addresses end in `.example` (RFC 2606).
 *
 * @param today `2026-11-26`: days are up to a year before and half a year after it
 */
export function* madeUp(
  definition: Definition,
  entity: Entity,
  { seed, count, pointedTo, today }: { seed: number; count: number; pointedTo: PointedTo; today: string },
): Generator<Values> {
  const random = new Random(seed);
  const units = unitsOf(definition).map(({ id }) => id);
  for (let n = 1; n <= count; n++)
    yield Object.fromEntries(
      entity.fields.flatMap((field) => {
        const kept = field.required || field.id === entity.labelField;
        if (!kept && random.whole(1, 100) <= EMPTY) return [];
        const value = valueFor(field, { random, n, units, pointedTo, today });
        return value === undefined ? [] : [[field.id, value] as const];
      }),
    );
}

interface At {
  readonly random: Random;
  /** Which record it is, from 1. */
  readonly n: number;
  readonly units: readonly Id[];
  readonly pointedTo: PointedTo;
  readonly today: string;
}

/** How a value of each type is made up; undefined where there is nothing to choose from. */
const MADE_UP: {
  readonly [K in ValueType['kind']]: (
    type: Extract<ValueType, { readonly kind: K }>,
    at: At,
    field: EntityField,
  ) => Value | undefined;
} = {
  text: (_, at, field) => textFor(field, at),
  number: ({ decimals }, { random }) =>
    plainDecimal((random.whole(0, 1000 * 10 ** decimals) / 10 ** decimals).toFixed(decimals)),
  money: (_, { random }) => plainDecimal((random.whole(100, 100_000) / 100).toFixed(2)),
  date: (_, { random, today }) =>
    new Date(Date.parse(`${today}T00:00:00Z`) + random.whole(-365, 180) * DAY).toISOString().slice(0, 10),
  boolean: (_, { random }) => random.whole(0, 1) === 1,
  choice: ({ options }, { random }) => (options.length > 0 ? random.one(options).id : undefined),
  unit: (_, { random, units }) => (units.length > 0 ? random.one(units) : undefined),
  record: ({ entity }, { random, pointedTo }) => {
    const all = pointedTo[entity] ?? [];
    return all.length > 0 ? random.one(all) : undefined;
  },
};

function valueFor(field: EntityField, at: At): Value | undefined {
  const make = MADE_UP[field.type.kind] as (type: ValueType, at: At, field: EntityField) => Value | undefined;
  return make(field.type, at, field);
}

const STARTS = [
  'Bra',
  'Cor',
  'Del',
  'Fen',
  'Gor',
  'Hal',
  'Ist',
  'Kel',
  'Lor',
  'Mar',
  'Nes',
  'Ost',
  'Per',
  'Ros',
  'Tam',
  'Ver',
];
const ENDS = [
  'by',
  'den',
  'field',
  'gate',
  'ham',
  'ick',
  'low',
  'mere',
  'ney',
  'ow',
  'ridge',
  'ton',
  'wick',
  'worth',
];
const THINGS = [
  'bench',
  'box',
  'bowl',
  'chart',
  'frame',
  'jar',
  'lamp',
  'ledger',
  'map',
  'model',
  'rack',
  'tray',
];
const LIKE = [
  'amber',
  'broad',
  'copper',
  'early',
  'grey',
  'green',
  'large',
  'late',
  'plain',
  'small',
  'tall',
  'white',
];
const SAID = [
  'Inspected and in good order.',
  'Inspect again before the end of the season.',
  'Location unchanged.',
  'One part is missing.',
  'Nothing to add.',
];

/** What fields are often called, and what stands in them then; the first that fits. */
const BY_NAME: readonly (readonly [RegExp, (at: At) => string])[] = [
  [/e-?mail/, ({ n }) => `someone${n}@made-up.example`],
  [/web|site|url|link/, ({ n }) => `https://made-up.example/${n}`],
  [/phone|tel\b|mobile/, ({ random }) => `01632 960${String(random.whole(0, 999)).padStart(3, '0')}`],
  [/postcode|zip/, ({ random }) => `ZZ${random.whole(1, 9)} ${random.whole(1, 9)}ZZ`],
  [/\b(no|nr|id|ref|key|code|number)\b|no\./, ({ n }) => String(n).padStart(5, '0')],
  [/street|address|road/, ({ random }) => `${random.whole(1, 200)} ${name(random)} Road`],
  [/town|city|place|village/, ({ random }) => name(random)],
  [
    /name|person|owner|member|holder|\bby\b|contact|tenant|keeper/,
    ({ random }) => `${name(random)} ${name(random)}`,
  ],
  [/note|comment|remark|description|finding|detail/, ({ random }) => random.one(SAID)],
];

const name = (random: Random): string => random.one(STARTS) + random.one(ENDS);

function textFor({ name: called, type, check }: EntityField, at: At): string {
  const [, make] = BY_NAME.find(([pattern]) => pattern.test(called.toLowerCase())) ?? [];
  const { random, n } = at;
  const made =
    check?.form === 'email'
      ? `someone${n}@made-up.example`
      : check?.form === 'web'
        ? `https://made-up.example/${n}`
        : check?.form === 'digits' || check?.form === 'telephone'
          ? String(n).padStart(5, '0')
          : make
            ? make(at)
            : `${random.one(LIKE)} ${random.one(THINGS)} ${n}`;
  const text = made.slice(0, check?.most ?? made.length);
  return isShortEnough(text, type.kind === 'text' ? type : {}) ? text : text.slice(0, 100);
}
