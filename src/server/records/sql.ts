import { sql, type SQL } from 'drizzle-orm';
import type { Access } from '@/core/access';
import {
  type Atom,
  CAPITALS,
  type Formula,
  type RequiredResult,
  readAs,
  type Reading,
  readingOf,
  SMALL,
  type Term,
  type Test,
} from '@/core/condition';
import { type Entity, type EntityField, type Id, kindOf, listedIn, type Value } from '@/core/model';
import { registeredSql } from './registered';

/** A row of `records` under the name that a query gives it. */
export interface Row {
  readonly alias: SQL;
  readonly entity: Entity;
  /** What records are read from, where it is not the table: as one pane of the look bench has them. */
  readonly from?: SQL;
  /** Who asks, where they ask themselves: a field that points to a record is what they are shown of it. */
  readonly shownTo?: Access | undefined;
}

const RECORDS = sql`records`;

/** The field's stored value, as JSON. */
const stored = ({ alias }: Row, field: Id): SQL => sql`${alias}.data -> ${field}::text`;

/** The field's value as SQL of its own type; null where it is missing or not of that type. */
const valueSql = (row: Row, field: EntityField): SQL => readSql(stored(row, field.id), readingOf(field.type));

/** A field's value as SQL of the form that it is compared in; null where it is missing or of another form. */
function readSql(json: SQL, as: Reading): SQL {
  if (as === 'decimal') return sql`zg_decimal(${json})`;
  if (as === 'folded') return sql`(translate(zg_text(${json}), ${CAPITALS}, ${SMALL}) collate "C")`;
  return as === 'boolean' ? sql`zg_boolean(${json})` : sql`(zg_text(${json}) collate "C")`;
}

function constantSql(value: Value, as: Reading): SQL {
  const read = readAs(value, as);
  if (read === undefined) return sql`null`;
  if (as === 'decimal') return sql`${String(read)}::numeric`;
  return as === 'boolean' ? sql`${read}::boolean` : sql`${String(read)}::text collate "C"`;
}

const pointingField = ({ entity }: Row, id: Id): EntityField | undefined =>
  entity.fields.find((field) => field.id === id && field.type.kind === 'record');

/** Something of the record that the row's field `through` points to; null where there is none. */
function stepSql(row: Row, through: Id, read: (target: SQL) => SQL): SQL {
  const type = row.entity.fields.find((one) => one.id === through)?.type;
  if (type?.kind !== 'record') return sql`null`;
  const target = sql.raw('step');
  return sql`(select ${read(target)} from ${row.from ?? RECORDS} ${target}
    where ${target}.application_id = ${row.alias}.application_id and ${target}.kind = ${row.alias}.kind
      and ${target}.entity = ${type.entity} and ${target}.id = zg_text(${stored(row, through)}))`;
}

function termSql(row: Row, term: Term): SQL {
  if ('constant' in term) return constantSql(term.constant, term.as);
  const { field, through, as } = term;
  const pointing = pointingField(row, field);
  if (pointing && row.shownTo) return wordsSql(row.shownTo, row, pointing);
  if (through === undefined) return readSql(stored(row, field), as);
  return stepSql(row, through, (target) => readSql(sql`${target}.data -> ${field}::text`, as));
}

/** How each test is asked of two terms of the same form. */
const TESTS: Readonly<Record<Test, (left: SQL, right: SQL) => SQL>> = {
  '=': (left, right) => sql`(${left} = ${right})`,
  '<': (left, right) => sql`(${left} < ${right})`,
  '<=': (left, right) => sql`(${left} <= ${right})`,
  contains: (left, right) => sql`(strpos(${left}, ${right}) > 0)`,
  'starts with': (left, right) => sql`starts_with(${left}, ${right})`,
  'ends with': (left, right) => sql`(right(${left}, length(${right})) = ${right})`,
};

/** One question as SQL: true, false, or null where it cannot be told. */
function atomSql(row: Row, atom: Atom): SQL {
  if ('left' in atom) return TESTS[atom.is](termSql(row, atom.left), termSql(row, atom.right));
  switch (atom.is) {
    case 'empty': {
      const { of } = atom;
      if ('constant' in of) return sql`false`;
      const pointing = pointingField(row, of.field);
      // Whether it is empty, or points to what is hidden, is the same to who asks.
      if (pointing && row.shownTo) return sql`(${wordsSql(row.shownTo, row, pointing)} is null)`;
      const empty = (json: SQL): SQL => sql`coalesce(jsonb_typeof(${json}) = 'null', true)`;
      return of.through === undefined
        ? empty(stored(row, of.field))
        : stepSql(row, of.through, (target) => empty(sql`${target}.data -> ${of.field}::text`));
    }
    case 'one of': {
      const values = atom.values.map((value) => constantSql(value, atom.of.as));
      if (values.length === 0) return sql`(${termSql(row, atom.of)} is null and null)`;
      return sql`(${termSql(row, atom.of)} in (${sql.join(values, sql`, `)}))`;
    }
    case 'in units': {
      const { unitField } = row.entity;
      if (unitField === undefined || atom.units.length === 0) return sql`null::boolean`;
      const units = atom.units.map((unit) => sql`${unit}`);
      return sql`(zg_text(${stored(row, unitField)}) in (${sql.join(units, sql`, `)}))`;
    }
    case 'record':
      return sql`(${row.alias}.id = ${atom.id})`;
    case 'any record':
      return sql`true`;
    case 'call':
      return registeredSql(
        atom.name,
        atom.with.map((term) => termSql(row, term)),
      );
  }
}

/**
 * What most questions are: is a text or a yes-or-no of the record itself one of some constants? Asked of the
 * JSON as it is, which is a good deal faster than reading it first. A value of another form is none of them,
 * and where it matters that it cannot be told (`be false`), its form is looked at.
 */
function quickSql(row: Row, atom: Atom, must: RequiredResult): FieldTest | undefined {
  const asked = constantsAsked(row, atom);
  if (!asked || asked.values.length === 0) return undefined;
  const json = stored(row, asked.field);
  const values = asked.values.map((value) => sql`${JSON.stringify(value)}::jsonb`);
  const [only] = values;
  const isOne =
    values.length === 1 && only ? sql`${json} = ${only}` : sql`${json} in (${sql.join(values, sql`, `)})`;
  const isNone =
    values.length === 1 && only
      ? sql`${json} <> ${only}`
      : sql`${json} not in (${sql.join(values, sql`, `)})`;
  const form = asked.as === 'boolean' ? 'boolean' : 'string';
  if (must === 'be true' && asked.as === 'text') {
    const texts = asked.values.map(String);
    // As text it is faster still, and an index can find it: as a list even of one, since PostgreSQL would ask a plain
    // comparison last. Where another JSON value could be written so, it is looked at too.
    const written = sql`${writtenSql(row, asked.field)} = any(${sql.param(texts)}::text[])`;
    const same = texts.some((one) => LIKE_JSON.test(one)) ? sql` and coalesce(${isOne}, false)` : sql``;
    return { sql: sql`(${written}${same})`, unsure: false, found: true };
  }
  switch (must) {
    case 'be true':
      return { sql: isOne, unsure: false };
    case 'not be true':
      return { sql: isNone, unsure: true };
    case 'be false':
      return { sql: sql`(${isNone} and jsonb_typeof(${json}) = ${form})`, unsure: false };
    case 'not be false':
      return { sql: sql`(${isOne} or jsonb_typeof(${json}) <> ${form})`, unsure: true };
  }
}

/** The field's value as it is written in JSON, of a text without the quotes: what an index finds it by. */
const writtenSql = ({ alias }: Pick<Row, 'alias'>, field: Id): SQL => sql`${alias}.data ->> ${field}::text`;

/** What a number, a truth value, a list or an object can look like when it is written as text. */
const LIKE_JSON = /^[-\d[{]|^(true|false|null)$/;

/** A field of the record itself, and the texts or truth values that it is compared with; else undefined. */
function constantsAsked(
  row: Row,
  atom: Atom,
): { readonly field: Id; readonly values: readonly Value[]; readonly as: Reading } | undefined {
  if (atom.is === 'in units') {
    const { unitField } = row.entity;
    return unitField === undefined ? undefined : { field: unitField, values: atom.units, as: 'text' };
  }
  const [term, values] =
    atom.is === 'one of'
      ? [atom.of, atom.values]
      : atom.is === '=' && 'constant' in atom.right
        ? [atom.left, [atom.right.constant]]
        : atom.is === '=' && 'constant' in atom.left
          ? [atom.right, [atom.left.constant]]
          : [];
  if (!term || !values || !('field' in term) || term.through !== undefined) return undefined;
  if (term.as === 'decimal' || term.as === 'folded') return undefined;
  if (row.shownTo && pointingField(row, term.field)) return undefined;
  if (values.some((value) => readAs(value, term.as) === undefined)) return undefined;
  return { field: term.field, values, as: term.as };
}

/** A question as SQL, what null stands for, and whether an index may find what it asks for. */
interface FieldTest {
  readonly sql: SQL;
  readonly unsure: boolean;
  readonly found?: boolean;
}

/** One question that must be answered so. */
function askedSql(row: Row, atom: Atom, must: RequiredResult): FieldTest {
  const quick = quickSql(row, atom, must);
  if (quick) return quick;
  const asked = atomSql(row, atom);
  const turned = must === 'be false' || must === 'not be true';
  const found =
    must === 'be true' && 'left' in atom && [atom.left, atom.right].some(({ as }) => as === 'decimal');
  return { sql: turned ? sql`not ${asked}` : asked, unsure: must.startsWith('not'), found };
}

/**
 * The formula as SQL. It is true or false, never null, and answers as the core's `holds`. Doors are decided on
 * what is stored; only what `shownTo` asks themselves is read as it is shown to them.
 */
export const formulaSql = (row: Row, formula: Formula, shownTo?: Access): SQL =>
  partSql(row, formula, shownTo, false);

/** As `formulaSql`, for a WHERE, which null passes as little as false: what it asks for, an index can find. */
export const passesSql = (row: Row, formula: Formula, shownTo?: Access): SQL =>
  partSql(row, formula, shownTo, true);

function partSql(row: Row, formula: Formula, shownTo: Access | undefined, mayBeNull: boolean): SQL {
  if (typeof formula === 'boolean') return formula ? sql`true` : sql`false`;
  const answer = (on: Row, atom: Atom, must: RequiredResult): SQL => {
    const { sql: asked, unsure, found } = askedSql(on, atom, must);
    return mayBeNull && found ? asked : sql`coalesce(${asked}, ${sql.raw(String(unsure))})`;
  };
  if ('atom' in formula) return answer(row, formula.atom, formula.must);
  if ('asks' in formula)
    return behind(formulaSql(row, formula.doors), answer({ ...row, shownTo }, formula.asks, formula.must));
  const all = 'all' in formula;
  const parts = (all ? formula.all : formula.any).map((part) => partSql(row, part, shownTo, mayBeNull));
  return join(parts, all ? sql` and ` : sql` or `);
}

/**
 * What is asked only behind a door. PostgreSQL may work the two sides of an `and` out in any order, the cheap one
 * first, and how long that takes would tell of records behind the door; a `case` it does not turn round.
 */
export const behind = (door: SQL, asked: SQL): SQL => sql`(case when ${door} then ${asked} else false end)`;

const join = (parts: SQL[], by: SQL): SQL => sql`(${sql.join(parts, by)})`;

/** What a list is sorted by: what the field says to people, of a text no more than it may be long. */
export function sortedSql(access: Access, row: Row, field: EntityField): SQL {
  const door = access.doors.field(field.id, 'existing').see;
  return sql`case when ${formulaSql(row, door)} then ${orderedBy(field) ? valueOrder(row, field) : wordsSql(access, row, field)} end`;
}

/** Is a list sorted by what is stored in the field itself, so that an index can give the order? */
export const orderedBy = ({ type }: EntityField): boolean =>
  kindOf(type).asks === 'order' || (type.kind === 'text' && !type.long);

/** The order of a field's values; of texts by as much as an index can hold, which is all of those that may be stored. */
function valueOrder(row: Row, field: EntityField): SQL {
  const value = valueSql(row, field);
  return readingOf(field.type) === 'decimal' ? value : sql`left(${value}, ${sql.raw(String(MOST_IN_ORDER))})`;
}

/** As many characters as a text that is not long may have: 1,200 bytes, where an entry of an index has room for 2,700. */
const MOST_IN_ORDER = 300;

/** What an index of a field holds, to find records by its value or by words in it, or to have them in its order. */
export const indexedSql = (entity: Entity, field: EntityField, by: 'value' | 'order' | 'words'): SQL => {
  const row: Row = { alias: sql.raw('records'), entity };
  const of = {
    value: () => writtenSql(row, field.id),
    order: () => valueOrder(row, field),
    words: () => wordsIndexedSql(row, field),
  };
  return of[by]().inlineParams();
};

/**
 * What the field says to people, as SQL text to search and sort by: an option's name, a pointed-to
 * record's label. Null on each record where the viewer may not see it: *cannot tell*.
 */
export function shownSql(access: Access, row: Row, field: EntityField): SQL {
  const door = access.doors.field(field.id, 'existing').see;
  return sql`case when ${formulaSql(row, door)} then ${wordsSql(access, row, field)} end`;
}

/**
 * Does the field say these words to the viewer, in any case? Undefined where it says them on no record. `openToAll`: every
 * record is open to the viewer. Then, of a field that is too, an index of words may find them: neither it nor the time
 * that it takes can tell of anything that is hidden from them.
 */
export function saysSql(
  access: Access,
  row: Row,
  field: EntityField,
  words: string,
  openToAll: boolean,
): SQL | undefined {
  const { type } = field;
  if (openToAll && access.doors.field(field.id, 'existing').see === true) {
    if (kindOf(type).listed) {
      const found = listedIn(type, access.compiled.definition).filter(({ name }) =>
        name.toLowerCase().includes(words.toLowerCase()),
      );
      if (found.length === 0) return undefined;
      return sql`${writtenSql(row, field.id)} = any(${sql.param(found.map(({ id }) => id))}::text[])`;
    }
    if (type.kind === 'text') {
      const pattern = words.replace(/[\\%_]/g, '\\$&');
      return sql`${wordsIndexedSql(row, field)} like '%' || lower(${pattern}) || '%'`;
    }
  }
  return sql`position(lower(${words}) in lower(${shownSql(access, row, field)})) > 0`;
}

/** What an index of words holds of a field. */
const wordsIndexedSql = (row: Row, field: EntityField): SQL => sql`lower(${valueSql(row, field)})`;

function wordsSql(access: Access, row: Row, field: EntityField): SQL {
  const { type } = field;
  if (kindOf(type).listed) {
    const named = listedIn(type, access.compiled.definition);
    if (named.length === 0) return sql`null::text`;
    const cases = named.map((one) => sql`when ${one.id}::text then ${one.name}::text`);
    return sql`(case zg_text(${stored(row, field.id)}) ${sql.join(cases, sql` `)} end collate "C")`;
  }
  if (type.kind !== 'record') return valueSql(row, field);
  const entity = access.compiled.tree.need(type.entity, 'rows').node;
  const from = row.from ?? RECORDS;
  const target: Row = { alias: sql.raw(`target_${field.id.replaceAll('-', '_')}`), entity, from };
  const label = access.compiled.tree.need(entity.labelField, 'data-field').node;
  return sql`(select ${valueSql(target, label)} from ${from} ${target.alias}
    where ${target.alias}.application_id = ${row.alias}.application_id and ${target.alias}.kind = ${row.alias}.kind
      and ${target.alias}.entity = ${entity.id} and ${target.alias}.id = zg_text(${stored(row, field.id)})
      and ${formulaSql(target, access.doors.rows(entity.id).see)}
      and ${formulaSql(target, access.doors.field(label.id, 'existing').see)})`;
}
