import { createHash } from 'node:crypto';
import { sql, type SQL } from 'drizzle-orm';
import { PgDialect } from 'drizzle-orm/pg-core';
import { allWithin, operandsOf, type Condition } from '@/core/condition';
import { type AppElement, type Definition, type EntityField, type Id, treeOf } from '@/core/model';
import { indexedSql, orderedBy } from './sql';

/** An index on what live records of one entity hold in a field: only of them, and only made where there are many. */
export interface RecordIndex {
  /** Says all that it is, so that one of the same name need not be made again. */
  readonly name: string;
  readonly entity: Id;
  /** What makes it, without blocking who reads or writes meanwhile. */
  readonly make: string;
  /** Does it need PostgreSQL's own module for parts of words (`pg_trgm`)? */
  readonly ofWords: boolean;
}

export const INDEX_PREFIX = 'zg_records_';

/**
 * The indexes that a released application asks for: to find records by a field that its doors or its lists compare
 * with something, to have them in the order of each column that a list can be sorted by, and to find words in its texts.
 *
 * Nobody learns by them what is behind a door: what who looks at it chooses (a filter, an order, the record that a list
 * belongs to) is asked only behind the rows door, and so finds an index only where that is open to them for all records.
 */
export function indexesFor(applicationId: string, definition: Definition): readonly RecordIndex[] {
  const { found, ordered } = askedOf(definition);
  const made = (by: SQL, using: SQL, entity: Id): RecordIndex => {
    const on = sql`${using} (${by}) where application_id = ${applicationId} and kind = 'live' and entity = ${entity}`;
    const text = new PgDialect().sqlToQuery(on.inlineParams()).sql;
    const name = INDEX_PREFIX + createHash('sha256').update(text).digest('hex').slice(0, 24);
    const ofWords = text.includes('gin_trgm_ops');
    return { name, entity, make: `create index concurrently ${name} on records using ${text}`, ofWords };
  };
  return definition.entities.flatMap((entity) =>
    entity.fields.flatMap((field) => {
      const of = (by: 'value' | 'order' | 'words', using: SQL, end = sql``) =>
        made(sql`(${indexedSql(entity, field, by)})${end}`, using, entity.id);
      return [
        ...(found.has(field.id) ? [of('value', fewValues(field) ? sql`btree` : sql`hash`)] : []),
        ...(ordered.has(field.id) && orderedBy(field)
          ? [of('order', sql`btree`, sql` asc nulls last`), of('order', sql`btree`, sql` desc nulls last`)]
          : []),
        ...(ordered.has(field.id) && field.type.kind === 'text'
          ? [of('words', sql`gin`, sql` gin_trgm_ops`)]
          : []),
      ];
    }),
  );
}

/** A hash takes values of any length; where many records have the same few, a tree takes less. */
const fewValues = ({ type }: EntityField): boolean => type.kind === 'choice' || type.kind === 'unit';

/** Fields by which records are found, or that give them their order. */
function askedOf(definition: Definition): { found: ReadonlySet<Id>; ordered: ReadonlySet<Id> } {
  const tree = treeOf(definition);
  const found = new Set<Id>();
  const ordered = new Set<Id>();
  const units = new Set(definition.entities.flatMap(({ unitField }) => unitField ?? []));
  const ask = (condition: Condition): void => {
    for (const one of allWithin(condition)) {
      for (const operand of operandsOf(one))
        if ('record' in operand && operand.through === undefined) found.add(operand.record);
      // Named conditions name no loops.
      const named = 'meets' in one ? definition.conditions.find(({ id }) => id === one.meets) : undefined;
      if (named) ask(named.condition);
    }
  };
  for (const element of tree.elements) {
    if (!opensRows(element)) continue;
    for (const { when } of definition.gates[element.id]?.lines ?? []) if (when) ask(when);
    if (element.kind !== 'list') continue;
    const { of, filter, columns } = element.node;
    if (of !== undefined) found.add(of);
    if (filter) ask(filter);
    for (const column of columns) ordered.add(column.field);
  }
  const textual = (id: Id): boolean => {
    const kind = tree.get(id)?.kind === 'data-field' ? tree.need(id, 'data-field').node.type : undefined;
    return kind !== undefined && ['text', 'choice', 'unit', 'record'].includes(kind.kind);
  };
  return { found: new Set([...found, ...units].filter(textual)), ordered };
}

/** Does its gate decide which records are open? */
const opensRows = ({ kind }: AppElement): boolean =>
  ['application', 'area', 'screen', 'face', 'section', 'list', 'rows'].includes(kind);
