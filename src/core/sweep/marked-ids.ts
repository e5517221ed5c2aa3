import { jsonSchemaOf } from '../model/json-schema';
import type { Definition } from '../model/definition';
import type { Id } from '../model/id';
import { definitionSchema, NAMED_SHAPES } from '../model/schema';
import { treeOf } from '../model/tree';
import { elementMark } from './marks';

/** All that is a word of the document's own format. */
let words: ReadonlySet<string> | undefined;

const textsIn = (json: unknown): string[] => {
  if (typeof json === 'string') return [json];
  if (typeof json !== 'object' || json === null) return [];
  return Object.entries(json).flatMap(([key, value]) => [key, ...textsIn(value)]);
};

/** The ids of elements, by the marks that stand for them: but for the application's, and those that are words of the format. */
export function idsByMark(definition: Definition): ReadonlyMap<string, Id> {
  const format = (words ??= new Set(textsIn(jsonSchemaOf(definitionSchema, {}, NAMED_SHAPES))));
  const elements = treeOf(definition).elements.filter(
    ({ kind, id }) => kind !== 'application' && !format.has(id),
  );
  return new Map(elements.map(({ id, number }) => [elementMark(number), id]));
}

/** The definition in which the marks are the ids, wherever an element is named. */
export function withMarkedIds(definition: Definition, ids: ReadonlyMap<string, Id>): Definition {
  const marks = new Map([...ids].map(([mark, id]) => [id, mark]));
  const renamed = (one: unknown): unknown => {
    if (typeof one === 'string') return marks.get(one) ?? one;
    if (typeof one !== 'object' || one === null) return one;
    if (Array.isArray(one)) return one.map(renamed);
    return Object.fromEntries(Object.entries(one).map(([key, of]) => [marks.get(key) ?? key, renamed(of)]));
  };
  return renamed(definition) as Definition;
}
