import type { Entity } from '../model/definition';
import type { Id } from '../model/id';
import type { Value, Values } from '../model/value-type';
import type { Form } from '../model/values/kind';
import type { Truth } from './condition';
import { foldCase } from './fold';
import type { Test } from './operators';
import { registered, type Comparable } from './registered';

/** How a stored value is read: what is not of that form is missing. Folded: a text, in any case. */
export type Reading = Form | 'folded';

/** A field of the record, or of the one that its field `through` points to; or a constant. */
export type Term =
  | { readonly field: Id; readonly through?: Id; readonly as: Reading }
  | { readonly constant: Value; readonly as: Reading };

/** One question about a record, with all that is known of the viewer and the moment put in as constants. */
export type Atom =
  | {
      readonly is: Test;
      readonly left: Term;
      readonly right: Term;
    }
  | { readonly is: 'empty'; readonly of: Term }
  | { readonly is: 'one of'; readonly of: Term; readonly values: readonly Value[] }
  /** Is the record's unit one of these? */
  | { readonly is: 'in units'; readonly units: readonly Id[] }
  | { readonly is: 'record'; readonly id: Id }
  /** Is there a record at all? Of what is decided without one, this keeps that it depends on one. */
  | { readonly is: 'any record' }
  | { readonly is: 'call'; readonly name: string; readonly with: readonly Term[] };

/** A record that is decided on. */
export interface RecordFacts {
  readonly entity: Entity;
  readonly values: Values;
  /** Missing for one that is only being made. */
  readonly id?: Id;
  /** A record that this one points to, whoever may see it; undefined where there is none. */
  readonly lookUp?: ((entity: Id, id: Id) => Values | undefined) | undefined;
  /** The record as it is shown to who asks of it themselves, where that is another one. */
  readonly shown?: RecordFacts;
}

type Ask = (record: RecordFacts) => Truth;
type Get = (record: RecordFacts) => Comparable;

const [ZERO, NINE, MINUS, POINT] = [48, 57, 45, 46];

/** Up to 15 digits, and perhaps a point and up to 10 more. By hand: this is asked of every record. */
function isDecimal(text: string): boolean {
  const { length } = text;
  let at = text.charCodeAt(0) === MINUS ? 1 : 0;
  let digits = 0;
  let point = false;
  for (; at < length; at++) {
    const code = text.charCodeAt(at);
    if (code >= ZERO && code <= NINE) {
      if (++digits > (point ? 10 : 15)) return false;
    } else if (code === POINT && !point && digits > 0) {
      point = true;
      digits = 0;
    } else return false;
  }
  return digits > 0;
}

/** A stored value as it is compared; undefined where it is missing or not of that form. */
export function readAs(value: Value | null | undefined, as: Reading): Comparable {
  if (as === 'boolean') return typeof value === 'boolean' ? value : undefined;
  if (typeof value !== 'string') return undefined;
  if (as === 'folded') return foldCase(value);
  return as === 'text' || isDecimal(value) ? value : undefined;
}

/** Decimals (texts of up to 15 digits before and 10 after the point) in order: negative, zero or positive. */
export function compareDecimals(a: string, b: string): number {
  // Up to 15 significant digits, doubles keep the order of decimals.
  if (a.length <= 15 && b.length <= 15) return Number(a) - Number(b);
  const difference = scaled(a) - scaled(b);
  return difference < 0n ? -1 : difference > 0n ? 1 : 0;
}

function scaled(decimal: string): bigint {
  const [whole = '0', part = ''] = decimal.split('.');
  return BigInt(whole + part.padEnd(10, '0'));
}

/** The values of the record that the field points to. */
function targetOf({ entity, values, lookUp }: RecordFacts, through: Id): Values | undefined {
  const type = entity.fields.find((field) => field.id === through)?.type;
  const id = values[through];
  return type?.kind === 'record' && typeof id === 'string' ? lookUp?.(type.entity, id) : undefined;
}

function getter(term: Term): Get {
  if ('constant' in term) {
    const value = readAs(term.constant, term.as);
    return () => value;
  }
  const { field, through, as } = term;
  if (through === undefined) return (record) => readAs(record.values[field], as);
  return (record) => readAs(targetOf(record, through)?.[field], as);
}

/** The question as a function. It never throws, and answers *cannot tell* where a value is missing. */
export function asked(atom: Atom): Ask {
  if ('left' in atom) return comparison(atom.is, atom.left, atom.right);
  switch (atom.is) {
    case 'empty':
      return isEmpty(atom.of);
    case 'one of': {
      const [get, same] = [getter(atom.of), testFor('=', atom.of.as)];
      return (record) => {
        const value = get(record);
        return value === undefined ? undefined : atom.values.some((one) => same(value, one));
      };
    }
    case 'in units': {
      const units = new Set<unknown>(atom.units);
      return ({ entity, values }) => {
        const unit = entity.unitField === undefined ? undefined : values[entity.unitField];
        return typeof unit === 'string' ? units.has(unit) : undefined;
      };
    }
    case 'record':
      return ({ id }) => id === atom.id;
    case 'any record':
      return () => true;
    case 'call':
      return call(atom.name, atom.with.map(getter));
  }
}

function isEmpty(term: Term): Ask {
  if ('constant' in term) return () => false;
  const { field, through } = term;
  const missing = (value: Value | null | undefined): boolean => value === undefined || value === null;
  if (through === undefined) return ({ values }) => missing(values[field]);
  return (record) => {
    const target = targetOf(record, through);
    return target && missing(target[field]);
  };
}

function call(name: string, gets: readonly Get[]): Ask {
  const found = registered(name);
  return (record) => {
    const values: (string | boolean)[] = [];
    for (const get of gets) {
      const value = get(record);
      if (value === undefined) return undefined;
      values.push(value);
    }
    return found?.decide(values);
  };
}

/**
 * A field of the record itself with a constant: what nearly all questions are. Written out, since it is
 * asked of every record.
 */
function withConstant(is: Test, field: Id, constant: string | boolean, as: Reading, turned: boolean): Ask {
  const test = testFor(is, as);
  if (as === 'boolean')
    return ({ values }) => (typeof values[field] === 'boolean' ? values[field] === constant : undefined);
  if (as === 'text') {
    if (is === '=')
      return ({ values }) => (typeof values[field] === 'string' ? values[field] === constant : undefined);
    return ({ values }) => {
      const value = values[field];
      if (typeof value !== 'string') return undefined;
      return turned ? test(constant, value) : test(value, constant);
    };
  }
  const inOrder = ORDER[is];
  const text = String(constant);
  const number = text.length <= 15 ? Number(text) : undefined;
  return ({ values }) => {
    const value = values[field];
    if (typeof value !== 'string' || !isDecimal(value)) return undefined;
    const order =
      number !== undefined && value.length <= 15 ? Number(value) - number : compareDecimals(value, text);
    return inOrder(turned ? -order : order);
  };
}

function comparison(is: Test, left: Term, right: Term): Ask {
  for (const [field, constant, turned] of [
    [left, right, false],
    [right, left, true],
  ] as const) {
    if (!('field' in field) || field.through !== undefined || !('constant' in constant)) continue;
    const value = readAs(constant.constant, constant.as);
    if (value !== undefined && field.as === constant.as && field.as !== 'folded')
      return withConstant(is, field.field, value, field.as, turned);
  }
  const [a, b] = [getter(left), getter(right)];
  const test = testFor(is, left.as);
  return (record) => {
    const x = a(record);
    if (x === undefined) return undefined;
    const y = b(record);
    return y === undefined ? undefined : test(x, y);
  };
}

type Compare = (a: string | boolean, b: string | boolean) => boolean;

/** How two values that stand in an order pass a test, by where the first stands; of words no decimals are asked. */
const ORDER: Readonly<Record<Test, (order: number) => boolean>> = {
  '=': (order) => order === 0,
  '<': (order) => order < 0,
  '<=': (order) => order <= 0,
  contains: () => false,
  'starts with': () => false,
  'ends with': () => false,
};

/** How two texts, or two truth values, pass it. They compare by code point; only dates and times are ever put in order. */
const TEXTS: Readonly<Record<Test, Compare>> = {
  '=': (a, b) => a === b,
  '<': (a, b) => a < b,
  '<=': (a, b) => a <= b,
  contains: (a, b) => String(a).includes(String(b)),
  'starts with': (a, b) => String(a).startsWith(String(b)),
  'ends with': (a, b) => String(a).endsWith(String(b)),
};

function testFor(is: Test, as: Reading): Compare {
  if (as !== 'decimal') return TEXTS[is];
  const inOrder = ORDER[is];
  return (a, b) => inOrder(compareDecimals(a as string, b as string));
}
