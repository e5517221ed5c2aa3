import type * as yup from 'yup';
import { madeOf } from './shape';

type Json = Readonly<Record<string, unknown>>;
type AnySchema = yup.ISchema<unknown>;

/**
 * The JSON Schema (draft 2020-12) of what a schema of ours takes. Parts that are named stand under `$defs`; those that
 * stand within themselves have to be. What only code can check, such as that there is a time zone of that name, it
 * does not say.
 */
export function jsonSchemaOf(
  schema: AnySchema,
  about: Json,
  names: Readonly<Record<string, AnySchema>>,
): Json {
  const nameOf = new Map(Object.entries(names).map(([name, one]) => [one, name]));
  const tell = (one: AnySchema, inside = true): Json => {
    const name = nameOf.get(one);
    if (inside && name !== undefined) return { $ref: `#/$defs/${name}` };
    const made = madeOf(one);
    switch (made?.is) {
      case undefined:
        return tellLeaf(one);
      case 'optional':
        return tell(made.of);
      case 'itself':
        return tell(made.of);
      case 'list':
        return { type: 'array', items: tell(made.of), maxItems: made.most };
      case 'map':
        return { type: 'object', additionalProperties: tell(made.of) };
      case 'variants':
        return { oneOf: made.variants.map((variant) => tell(variant)) };
      case 'object':
        return {
          type: 'object',
          properties: Object.fromEntries(
            Object.entries(made.fields).map(([key, field]) => [key, tell(field)]),
          ),
          required: Object.keys(made.fields).filter((key) => isNeeded(made.fields[key] as AnySchema)),
          additionalProperties: false,
        };
    }
  };
  const $defs = Object.fromEntries(Object.entries(names).map(([name, one]) => [name, tell(one, false)]));
  return { $schema: 'https://json-schema.org/draft/2020-12/schema', ...about, ...tell(schema, false), $defs };
}

/** Has the key to be there? */
function isNeeded(field: AnySchema): boolean {
  const made = madeOf(field);
  if (made) return made.is !== 'optional';
  return (field as yup.Schema).spec.optional === false;
}

/** A schema of Yup's own: a text, a number, true or false, or one whose `json` says what it is. */
function tellLeaf(schema: AnySchema): Json {
  const { type, meta, oneOf, tests } = (schema as yup.Schema).describe();
  const json = (meta as { readonly json?: readonly string[] } | undefined)?.json;
  if (json) return { type: json };
  if (oneOf.length === 1) return { const: oneOf[0] };
  if (oneOf.length > 1) return { enum: oneOf };
  const told: Record<string, unknown> = { type: type === 'mixed' ? undefined : type };
  for (const { name, params } of tests) {
    const { min, max, regex } = (params ?? {}) as { min?: number; max?: number; regex?: RegExp };
    if (name === 'integer') told['type'] = 'integer';
    if (name === 'min') told[type === 'string' ? 'minLength' : 'minimum'] = min;
    if (name === 'max') told[type === 'string' ? 'maxLength' : 'maximum'] = max;
    if (name === 'matches' && regex) told['pattern'] = regex.source;
  }
  return told;
}
