import * as yup from 'yup';
import { failed, ok, type Problem, type Result } from './problem';
import { type Bounds, outOfBounds } from './bounds';

const A: Readonly<Record<string, string>> = {
  string: 'text',
  number: 'a number',
  boolean: 'true or false',
  object: 'an object',
  array: 'a list',
};

// What Yup says by itself names its own types; these are the words of the product.
yup.setLocale({
  mixed: {
    required: 'is missing',
    defined: 'is missing',
    notNull: 'must not be null',
    notType: ({ type }: { type: string }) => `must be ${A[type] ?? 'another type'}`,
    oneOf: ({ values }: { values: string }) => `must be one of ${values}`,
  },
  string: {
    max: ({ max }: { max: number }) => `must be at most ${max} characters`,
    min: ({ min }: { min: number }) => `must be at least ${min} characters`,
    uuid: 'must be a UUID',
  },
  number: {
    integer: 'must be a whole number',
    min: ({ min }: { min: number }) => `must be at least ${min}`,
    max: ({ max }: { max: number }) => `must be at most ${max}`,
  },
});

/** So many faults are told; then the rest is not looked at. */
const MOST_FAULTS = 20;
const MOST_ITEMS = 20_000;

/** How many more faults are told, counted down over a whole value. */
interface Counting {
  left: number;
}

/** A schema of ours for values of a type. */
export type Shape<T> = yup.ISchema<T>;
type Shapes = Readonly<Record<string, yup.ISchema<unknown>>>;
/** The values that a schema takes. */
export type ValueOf<S> = S extends yup.ISchema<infer T> ? T : never;
/** May the key be left out? Yup takes null in its place, which a document does not. */
type Left<S> = undefined extends ValueOf<S> ? true : false;
type Fields<S extends Shapes> = {
  readonly [K in keyof S as Left<S[K]> extends true ? never : K]: ValueOf<S[K]>;
} & {
  readonly [K in keyof S as Left<S[K]> extends true ? K : never]?: NonNullable<ValueOf<S[K]>>;
};
/** An object with such fields, told in one piece. */
type Exactly<S extends Shapes> = { readonly [K in keyof Fields<S>]: Fields<S>[K] };

/** What a schema of ours is made of, for whoever reads it rather than checks by it. */
export type SchemaParts =
  | { readonly is: 'object'; readonly fields: Shapes }
  | { readonly is: 'variants'; readonly variants: readonly yup.ISchema<unknown>[] }
  | { readonly is: 'list'; readonly of: yup.ISchema<unknown>; readonly most: number }
  | { readonly is: 'map'; readonly of: yup.ISchema<unknown> }
  | { readonly is: 'optional' | 'itself'; readonly of: yup.ISchema<unknown> };
const made = new WeakMap<object, () => SchemaParts>();

/** What the schema is made of; undefined for one of Yup's own. */
export const madeOf = (schema: yup.ISchema<unknown>): SchemaParts | undefined => made.get(schema)?.();

/** Notes what a schema is made of, and says of which values it is. */
function noted<T>(schema: yup.ISchema<unknown>, of: () => SchemaParts): Shape<T> {
  made.set(schema, of);
  return schema as Shape<T>;
}

/** An object with these keys and no others: a misspelt limit must not pass as no limit. */
export function exactly<const S extends Shapes>(fields: S): Shape<Exactly<S>> {
  const schema = yup
    .object(fields as yup.ObjectShape)
    .noUnknown(true, ({ unknown }: { unknown: string }) => `contains the unknown key ${unknown}`)
    .strict()
    .default(undefined)
    .required('is missing');
  return noted(schema, () => ({ is: 'object', fields }));
}

/** Where it is there at all, it is of that shape. */
export const optional = <T>(schema: yup.ISchema<T>): Shape<T | undefined> =>
  noted(
    yup.lazy((input: unknown) => (input === undefined ? yup.mixed().notRequired() : resolved(schema, input))),
    () => ({ is: 'optional', of: schema }),
  );

/** A shape that stands within itself. */
export const itself = <T>(schema: () => yup.ISchema<T>): Shape<T> =>
  noted(
    yup.lazy((input: unknown) => resolved(schema(), input)),
    () => ({ is: 'itself', of: schema() }),
  );

const resolved = (schema: yup.ISchema<unknown>, value: unknown): yup.Schema =>
  (yup.isSchema(schema) && 'resolve' in schema
    ? (schema as yup.Lazy<unknown>).resolve({ value })
    : schema) as yup.Schema;

/**
 * What was found sound, by the schema that it was looked at with. Documents never change, and an edit's shares all
 * but what it changes with the one before: so a document is read again at the price of what is new in it.
 */
const soundBy = new WeakMap<object, WeakSet<object>>();

/** What is wrong with the values of a list or a map, each at its own place; ends at the last fault that is told. */
function faultsWithin(
  values: Iterable<readonly [string, unknown]>,
  of: yup.ISchema<unknown>,
  path: string | undefined,
  counting: Counting,
): yup.ValidationError[] {
  const found: yup.ValidationError[] = [];
  let sound = soundBy.get(of);
  if (!sound) soundBy.set(of, (sound = new WeakSet()));
  for (const [step, value] of values) {
    if (counting.left <= 0) break;
    const object = typeof value === 'object' && value !== null ? value : undefined;
    if (object && sound.has(object)) continue;
    try {
      resolved(of, value).validateSync(value, { strict: true, abortEarly: false, context: counting });
      if (object) sound.add(object);
    } catch (error) {
      if (!(error instanceof yup.ValidationError)) throw error;
      for (const one of error.inner.length > 0 ? error.inner : [error]) {
        const below = one.path ? `${one.path.startsWith('[') ? '' : '.'}${one.path}` : '';
        found.push(new yup.ValidationError(one.message, one.value, `${path ?? ''}${step}${below}`));
        // What stands deeper was counted there.
        if (!/[[\]]/.test(below)) counting.left--;
      }
    }
  }
  return found;
}

const countingOf = (context: unknown): Counting => (context as Counting | undefined) ?? { left: MOST_FAULTS };

/** A list of such things. Each is looked at by itself, so that one full of faults costs no more than its first few. */
export function listOf<T>(of: yup.ISchema<T>, most = MOST_ITEMS): Shape<readonly T[]> {
  const schema = yup
    .mixed()
    .required('is missing')
    .test('list', 'must be a list', function (value: unknown) {
      if (!Array.isArray(value)) return value === undefined || value === null;
      if (value.length > most) return this.createError({ message: `must have at most ${most} entries` });
      const steps = value.entries() as IterableIterator<[number, unknown]>;
      const found = faultsWithin(
        map(steps, ([n, one]) => [`[${n}]`, one] as const),
        of,
        this.path,
        countingOf(this.options.context),
      );
      return found.length === 0 || new yup.ValidationError(found);
    });
  return noted(schema, () => ({ is: 'list', of, most }));
}

/** A map from ids to such things. */
export function mapOf<T>(of: yup.ISchema<T>): Shape<Readonly<Record<string, T>>> {
  const schema = yup
    .mixed()
    .required('is missing')
    .test('map', 'must be an object', function (value: unknown) {
      if (value === undefined || value === null) return true;
      if (typeof value !== 'object' || Array.isArray(value)) return false;
      const found = faultsWithin(
        map(Object.entries(value), ([key, one]) => [this.path ? `.${key}` : key, one] as const),
        of,
        this.path,
        countingOf(this.options.context),
      );
      return found.length === 0 || new yup.ValidationError(found);
    });
  return noted(schema, () => ({ is: 'map', of }));
}

function* map<T, U>(from: Iterable<T>, to: (one: T) => U): Iterable<U> {
  for (const one of from) yield to(one);
}

/** An object of which nothing but these keys can be said, since it is of no known variant. */
export const tagged = (shape: yup.ObjectShape): yup.Schema =>
  yup.object(shape).strict().default(undefined).required('is missing') as unknown as yup.Schema;

type Variants<K extends string, V extends Readonly<Record<string, Shapes>>> = {
  readonly [N in keyof V]: Exactly<{ readonly [P in K]: Shape<N> } & V[N]>;
}[keyof V];

/** Picks the shape by the key that tells the variants apart. */
export function oneOf<const K extends string, const V extends Readonly<Record<string, Shapes>>>(
  key: K,
  variants: V,
): Shape<Variants<K, V>> {
  const names = Object.keys(variants);
  const tag = yup
    .string()
    .oneOf(names, `must be one of ${names.join(', ')}`)
    .required('is missing');
  const schemas = new Map<string, yup.Schema>(
    names.map((name) => {
      const its = yup.string().oneOf([name]).required('is missing');
      return [name, exactly({ [key]: its, ...variants[name] }) as unknown as yup.Schema];
    }),
  );
  const unknown = tagged({ [key]: tag });
  const schema = yup.lazy((input: unknown): yup.Schema => {
    const given: unknown =
      typeof input === 'object' && input !== null ? (input as Record<string, unknown>)[key] : undefined;
    return (typeof given === 'string' ? schemas.get(given) : undefined) ?? unknown;
  });
  return noted(schema, () => ({ is: 'variants', variants: [...schemas.values()] }));
}

/** Picks the shape by whichever of the keys is there: variants that no key tells apart by its value. */
export function byKey<T>(what: string, variants: () => Readonly<Record<string, Shapes>>): Shape<T> {
  let known: Map<string, yup.Schema> | undefined;
  const all = (): Map<string, yup.Schema> =>
    (known ??= new Map(
      Object.entries(variants()).map(([key, fields]) => [key, exactly(fields) as unknown as yup.Schema]),
    ));
  const schema = yup.lazy((input: unknown) => {
    const schemas = all();
    const keys = typeof input === 'object' && input !== null ? Object.keys(input) : [];
    const key = [...schemas.keys()].find((one) => keys.includes(one));
    if (key !== undefined) return schemas.get(key) as yup.Schema;
    return yup
      .mixed()
      .test(
        'variant',
        `must be ${what}: an object with one of ${[...schemas.keys()].join(', ')}`,
        () => false,
      );
  });
  return noted(schema, () => ({ is: 'variants', variants: [...all().values()] }));
}

/** What is wrong with the shape of a value: at most twenty faults, each place once; empty where there is none. */
export function shapeFaults(schema: yup.ISchema<unknown>, value: unknown, bounds: Bounds): Problem[] {
  const large = outOfBounds(value, bounds);
  if (large) return [large];
  const counting: Counting = { left: MOST_FAULTS };
  try {
    resolved(schema, value).validateSync(value, { strict: true, abortEarly: false, context: counting });
    return [];
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    return toProblems(error);
  }
}

/** The value, where its shape is right. */
export function checkShape<T>(schema: yup.ISchema<T>, value: unknown, bounds: Bounds): Result<T> {
  const faults = shapeFaults(schema, value, bounds);
  return faults.length > 0 ? failed(...faults) : ok(value as T);
}

/** What Yup found, as problems: the path in the value is the place. */
function toProblems(error: yup.ValidationError): Problem[] {
  const places = new Map<string, Problem>();
  for (const one of error.inner.length > 0 ? error.inner : [error]) {
    const place = one.path || 'the document';
    if (places.size >= MOST_FAULTS) break;
    if (!places.has(place))
      places.set(place, {
        code: 'shape',
        place,
        message: one.errors.join('; ').replace(/^this /, ''),
        mend: 'Correct the value at this place.',
      });
  }
  return [...places.values()];
}
