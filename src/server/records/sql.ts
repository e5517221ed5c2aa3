import { sql, type SQL } from 'drizzle-orm';
import type { Access } from '@/core/access/access';
import type { Formula } from '@/core/access/formula';
import type { Entity, EntityField } from '@/core/model/definition';
import type { Id } from '@/core/model/id';

/** A row of `records` under the name that a query gives it. */
export interface Row {
  readonly alias: SQL;
  readonly entity: Entity;
}

/** The field's stored value, as JSON. */
const stored = ({ alias }: Row, field: Id): SQL => sql`${alias}.data -> ${field}::text`;

/** The field's value as SQL of its own type; null where it is missing or not of that type. */
export function valueSql(row: Row, field: EntityField): SQL {
  const json = stored(row, field.id);
  switch (field.type.kind) {
    case 'number':
    case 'money':
      return sql`zg_decimal(${json})`;
    case 'boolean':
      return sql`zg_boolean(${json})`;
    default:
      return sql`(zg_text(${json}) collate "C")`;
  }
}

/** The formula as SQL. It is true or false, never null, and answers as the core's `holds`. */
export function formulaSql(row: Row, formula: Formula): SQL {
  if (typeof formula === 'boolean') return formula ? sql`true` : sql`false`;
  if ('all' in formula)
    return join(
      formula.all.map((part) => formulaSql(row, part)),
      sql` and `,
    );
  if ('any' in formula)
    return join(
      formula.any.map((part) => formulaSql(row, part)),
      sql` or `,
    );
  const { field: id, equals } = formula.surely;
  const field = row.entity.fields.find((one) => one.id === id);
  if (!field) return sql`false`;
  return sql`coalesce(${stored(row, id)} = ${JSON.stringify(equals)}::jsonb, false)`;
}

const join = (parts: SQL[], by: SQL): SQL => sql`(${sql.join(parts, by)})`;

/**
 * What the field says to people, as SQL text to search and sort by: an option's name, a pointed-to
 * record's label. Null on each record where the viewer may not see it: *cannot tell*.
 */
export function shownSql(access: Access, row: Row, field: EntityField): SQL {
  const door = access.doors.field(field.id, 'existing').see;
  return sql`case when ${formulaSql(row, door)} then ${wordsSql(access, row, field)} end`;
}

function wordsSql(access: Access, row: Row, field: EntityField): SQL {
  const { type } = field;
  if (type.kind === 'choice') {
    if (type.options.length === 0) return sql`null::text`;
    const cases = type.options.map((option) => sql`when ${option.id}::text then ${option.name}::text`);
    return sql`(case zg_text(${stored(row, field.id)}) ${sql.join(cases, sql` `)} end collate "C")`;
  }
  if (type.kind !== 'record') return valueSql(row, field);
  const entity = access.compiled.tree.need(type.entity, 'rows').node;
  const target: Row = { alias: sql.raw(`target_${field.id.replaceAll('-', '_')}`), entity };
  const label = access.compiled.tree.need(entity.labelField, 'data-field').node;
  return sql`(select ${valueSql(target, label)} from records ${target.alias}
    where ${target.alias}.application_id = ${row.alias}.application_id and ${target.alias}.kind = ${row.alias}.kind
      and ${target.alias}.entity = ${entity.id} and ${target.alias}.id = zg_text(${stored(row, field.id)})
      and ${formulaSql(target, access.doors.rows(entity.id).see)}
      and ${formulaSql(target, access.doors.field(label.id, 'existing').see)})`;
}
