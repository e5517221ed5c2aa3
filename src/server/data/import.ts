import { sql } from 'drizzle-orm';
import { type Pointing, readerOf } from '@/core/converting';
import { type EntityField, FORMS_OF_TEXT, type Id, newId, type Value } from '@/core/model';
import type { Sheet } from '@/core/making';
import { patientDatabase, type Executor } from '../database/client';
import { records } from '../database/schema';
import { Refused } from '../http/problem';
import type { Tell } from '../http/progress';
import { today } from '../making/sent-sheets';
import { beginWriting } from '../records/store';
import { auditData, type DataAt } from './at';
import { calledRecords, whereOf } from './rows';

/** What a file would do, or has done. */
export interface Imported {
  /** Each of its columns, and the field that it goes to; null: it goes to none. */
  readonly columns: readonly { readonly name: string; readonly field: string | null }[];
  readonly added: number;
  readonly changed: number;
  /** What does not fit, the first of it, and how often. */
  readonly wrong: readonly { readonly line: number; readonly column: string; readonly says: string }[];
  readonly wrongCount: number;
}

interface How {
  /** Only say what would come of it. */
  readonly dry: boolean;
  /** Cells that do not fit are left empty, rather than nothing taken over. */
  readonly leaveOut: boolean;
}

/** So many records are stored by one statement. */
const AT_ONCE = 2000;
const MOST_TOLD = 20;

interface Column {
  readonly name: string;
  readonly field: EntityField | undefined;
  readonly isId: boolean;
  readonly read: (text: string) => Value | undefined;
}

/**
 * Takes the rows of a sheet over as records: all of them or none. Columns go to the fields of the same name. With a column
 * `id`, rows whose record is there change it, and only in the fields that the sheet has.
 */
export async function importSheet(
  at: DataAt,
  sheet: Sheet,
  how: How,
  tell?: Tell,
  signal?: AbortSignal,
): Promise<Imported> {
  const columns = await columnsOf(at, sheet);
  if (!columns.some(({ field }) => field))
    throw new Refused(
      422,
      'columns',
      `No column of it is called as a field of ${at.entity.plural} is: ${at.entity.fields.map(({ name }) => name).join(', ')}.`,
    );
  return patientDatabase().transaction(async (tx) => {
    if (!how.dry) await beginWriting(at, tx);
    const there = await idsThere(at, columns, tx);
    const rows = new Rows(at, columns, there);
    for (const [n, { line, cells }] of sheet.rows.entries()) {
      rows.read(line, cells);
      if (n % AT_ONCE !== 0) continue;
      signal?.throwIfAborted();
      // Others have their turn.
      await new Promise((resolve) => setImmediate(resolve));
    }
    const { added, changed, wrong, wrongCount } = rows;
    const told: Imported = {
      columns: columns.map(({ name, field, isId }) => ({ name, field: isId ? 'id' : (field?.name ?? null) })),
      added: added.size,
      changed: changed.size,
      wrong,
      wrongCount,
    };
    if (how.dry) return told;
    if (wrongCount > 0 && !how.leaveOut) {
      const [first] = wrong;
      throw new Refused(
        422,
        'values',
        `Line ${first?.line}, ${first?.column}: ${first?.says} Nothing was taken over.`,
      );
    }
    await store(at, added, changed, sheet.rows.length, tx, tell, signal);
    await auditData(at, 'data-imported', { added: String(added.size), changed: String(changed.size) }, tx);
    return told;
  });
}

/** Which field each column goes to, by its name, and how its cells are read. */
async function columnsOf(at: DataAt, sheet: Sheet): Promise<Column[]> {
  const { definition, entity } = at;
  const called = new Map<Id, Awaited<ReturnType<typeof calledRecords>>>();
  for (const { type } of entity.fields) {
    if (type.kind !== 'record' || called.has(type.entity)) continue;
    const target = definition.entities.find(({ id }) => id === type.entity);
    if (target) called.set(type.entity, await calledRecords(at, target));
  }
  const pointing: Pointing = {
    called: (of, label) => called.get(of)?.ids.get(label.toLowerCase()),
    labelOf: (of, id) => called.get(of)?.labels.get(id),
  };
  const by = { definition, pointing, today: today() };
  return sheet.columns.map((name) => {
    const plain = name.toLowerCase();
    const field = entity.fields.find((one) => one.name.trim().toLowerCase() === plain || one.id === name);
    return {
      name,
      field,
      isId: !field && plain === 'id',
      read: field ? readerOf(field.type, by) : () => undefined,
    };
  });
}

/** The ids that are there, where the sheet names records by theirs. */
async function idsThere(at: DataAt, columns: readonly Column[], tx: Executor): Promise<ReadonlySet<Id>> {
  if (!columns.some(({ isId }) => isId)) return new Set();
  const rows = await tx.select({ id: records.id }).from(records).where(whereOf(at));
  return new Set(rows.map(({ id }) => id));
}

type Read = Record<Id, Value | null>;

/** Reads row by row what is added and what is changed, and tells what does not fit. */
class Rows {
  readonly added = new Map<Id, Read>();
  readonly changed = new Map<Id, Read>();
  readonly wrong: Imported['wrong'][number][] = [];
  wrongCount = 0;
  private readonly initial: Read;
  private readonly needed: readonly EntityField[];

  constructor(
    { entity }: DataAt,
    private readonly columns: readonly Column[],
    private readonly there: ReadonlySet<Id>,
  ) {
    this.initial = Object.fromEntries(
      entity.fields.flatMap(({ id, initial }) => (initial === undefined ? [] : [[id, initial] as const])),
    );
    this.needed = entity.fields.filter(({ required }) => required);
  }

  read(line: number, cells: readonly string[]): void {
    let id: Id | undefined;
    const values: Read = {};
    for (const [n, { name, field, isId, read }] of this.columns.entries()) {
      const cell = cells[n]?.trim() ?? '';
      if (isId && cell !== '') id = this.idIn(line, name, cell);
      if (!field) continue;
      const value = cell === '' ? null : read(cell);
      const problem =
        value === undefined ? `“${cell.slice(0, 60)}” does not fit ${field.name}.` : checked(field, value);
      if (problem !== undefined) this.tell(line, name, problem);
      values[field.id] = problem === undefined ? (value ?? null) : null;
    }
    const changes = id !== undefined && this.there.has(id);
    const whole = changes ? values : nonEmpty({ ...this.initial, ...values });
    for (const field of this.needed)
      if ((whole[field.id] ?? null) === null && (!changes || field.id in whole))
        this.tell(line, field.name, `${field.name} is needed.`);
    if (changes && id !== undefined) this.changed.set(id, whole);
    else this.added.set(id ?? newId(), whole);
  }

  private idIn(line: number, column: string, cell: string): Id | undefined {
    const twice = this.added.has(cell) || this.changed.has(cell);
    if (!twice && /^[A-Za-z0-9_-]{1,40}$/.test(cell)) return cell;
    this.tell(line, column, twice ? `“${cell}” stands there twice.` : `“${cell.slice(0, 60)}” is no id.`);
    return undefined;
  }

  private tell(line: number, column: string, says: string): void {
    if (this.wrongCount++ < MOST_TOLD) this.wrong.push({ line, column, says });
  }
}

/** What the field checks beyond its type. */
function checked({ check }: EntityField, value: Value | null): string | undefined {
  if (!check || typeof value !== 'string') return undefined;
  if (check.most !== undefined && value.length > check.most) return `At most ${check.most} characters.`;
  return check.form && !FORMS_OF_TEXT[check.form].fits(value) ? FORMS_OF_TEXT[check.form].says : undefined;
}

const nonEmpty = (values: Read): Read =>
  Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null));

async function store(
  { applicationId, kind, entity }: DataAt,
  added: ReadonlyMap<Id, Read>,
  changed: ReadonlyMap<Id, Read>,
  all: number,
  tx: Executor,
  tell: Tell | undefined,
  signal: AbortSignal | undefined,
): Promise<void> {
  let done = 0;
  for (const [rows, isNew] of [
    [added, true],
    [changed, false],
  ] as const) {
    const entries = [...rows];
    for (let n = 0; n < entries.length; n += AT_ONCE) {
      signal?.throwIfAborted();
      const some = entries.slice(n, n + AT_ONCE);
      const ids = sql.param(some.map(([id]) => id));
      const data = sql.param(some.map(([, values]) => JSON.stringify(values)));
      await tx.execute(
        isNew
          ? sql`insert into ${records} (application_id, kind, entity, id, data, created_at)
              select ${applicationId}, ${kind}, ${entity.id}, id, data, now() + (${n}::int + n) * interval '1 microsecond'
              from unnest(${ids}::text[], ${data}::jsonb[]) with ordinality as new (id, data, n)`
          : sql`update ${records} set data = records.data || new.data, version = version + 1, updated_at = now()
              from unnest(${ids}::text[], ${data}::jsonb[]) as new (id, data)
              where application_id = ${applicationId} and kind = ${kind} and entity = ${entity.id} and records.id = new.id`,
      );
      done += some.length;
      tell?.(done, all);
    }
  }
}
