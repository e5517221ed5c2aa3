import { sql, type SQL } from 'drizzle-orm';
import {
  type EntityField,
  FORMS_OF_TEXT,
  type Id,
  newId,
  type Pointing,
  readerOf,
  type Value,
  type Values,
} from '@/core/model';
import type { Imported, Sheet } from '@/core/making';
import { patientDatabase, type Executor } from '../database/client';
import { records } from '../database/schema';
import { Refused } from '../http/problem';
import type { Run, Tell } from '../http/progress';
import type { Upload } from '@/contract/body';
import { partsOf } from '../http/upload';
import { sheetsIn } from '../making/sent-sheets';
import { today } from '../today';
import { beginWriting, tellOfMany } from '../records/store';
import { auditData, type DataAt } from './at';
import { calledRecords, whereOf } from './rows';

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
 * Takes the rows of a CSV file over, from a form: `files` (one); with `dry` it only says what would come of it; with
 * `leave-out`, cells that do not fit are left empty.
 */
export async function importUpload(at: DataAt, upload: Upload, { tell, signal }: Run): Promise<Imported> {
  const form = await partsOf(upload);
  const [sheet] = await sheetsIn(form, signal);
  if (!sheet) throw new Error('The upload must contain at least one file.');
  return importSheet(at, sheet, { dry: form.has('dry'), leaveOut: form.has('leave-out') }, tell, signal);
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
      `No column name matches a field of ${at.entity.plural}. The fields are: ${at.entity.fields.map(({ name }) => name).join(', ')}.`,
    );
  return patientDatabase().transaction(async (tx) => {
    if (!how.dry) await beginWriting(at, tx);
    const rows = new Rows(at, columns, await recordsThere(at, columns, tx));
    const stores = new Stores(at, sheet.rows.length, tx, tell);
    for (let n = 0; n < sheet.rows.length; n += AT_ONCE) {
      signal?.throwIfAborted();
      for (const { line, cells } of sheet.rows.slice(n, n + AT_ONCE)) rows.read(line, cells);
      const batch = rows.take();
      if (how.dry) await new Promise((resolve) => setImmediate(resolve));
      else {
        refuseMisfits(rows, how);
        // While these are stored, the next are read.
        await stores.put(batch);
      }
    }
    await stores.done();
    const { added, changed, wrong, wrongCount } = rows;
    if (!how.dry) await tellOfMany(at, added + changed, tx);
    if (!how.dry)
      await auditData(at, 'data-imported', { added: String(added), changed: String(changed) }, tx);
    return {
      columns: columns.map(({ name, field, isId }) => ({ name, field: isId ? 'id' : (field?.name ?? null) })),
      added,
      changed,
      wrong,
      wrongCount,
    };
  });
}

function refuseMisfits({ wrong, wrongCount }: Rows, { leaveOut }: How): void {
  if (wrongCount === 0 || leaveOut) return;
  const [first] = wrong;
  throw new Refused(
    422,
    'values',
    `Line ${first?.line}, ${first?.column}: ${first?.says} Nothing was imported.`,
  );
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

/** The records that are there, where the sheet names records by their ids. */
async function recordsThere(
  at: DataAt,
  columns: readonly Column[],
  tx: Executor,
): Promise<ReadonlyMap<Id, Values>> {
  if (!columns.some(({ isId }) => isId)) return new Map();
  const rows = await tx.select({ id: records.id, values: records.data }).from(records).where(whereOf(at));
  return new Map(rows.map(({ id, values }) => [id, values]));
}

type Read = Record<Id, Value | null>;
type ReadRow = readonly [Id, Read];

/** Rows that have been read: new records, and others for those that are there. */
interface Batch {
  readonly added: readonly ReadRow[];
  readonly changed: readonly ReadRow[];
}

/** Reads row by row what is added and what is changed, and tells what does not fit. */
class Rows {
  added = 0;
  changed = 0;
  readonly wrong: Imported['wrong'][number][] = [];
  wrongCount = 0;
  private readonly seen = new Set<Id>();
  private batch: { added: ReadRow[]; changed: ReadRow[] } = { added: [], changed: [] };
  private readonly initial: Read;
  private readonly needed: readonly EntityField[];

  constructor(
    { entity }: DataAt,
    private readonly columns: readonly Column[],
    private readonly there: ReadonlyMap<Id, Values>,
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
        value === undefined
          ? `“${cell.slice(0, 60)}” is not a valid value for ${field.name}.`
          : checked(field, value);
      if (problem !== undefined) this.tell(line, name, problem);
      values[field.id] = problem === undefined ? (value ?? null) : null;
    }
    const before = id === undefined ? undefined : this.there.get(id);
    const changes = before !== undefined;
    const whole = changes ? values : nonEmpty({ ...this.initial, ...values });
    for (const field of this.needed)
      if ((whole[field.id] ?? null) === null && (!changes || field.id in whole))
        this.tell(line, field.name, `${field.name} is required.`);
    if (before && id !== undefined) {
      const same = Object.entries(whole).every(([field, value]) => (before[field] ?? null) === value);
      if (!same) {
        this.changed++;
        this.batch.changed.push([id, whole]);
      }
    } else {
      this.added++;
      this.batch.added.push([id ?? newId(), whole]);
    }
    if (id !== undefined) this.seen.add(id);
  }

  /** What has been read since it was last taken. */
  take(): Batch {
    const taken = this.batch;
    this.batch = { added: [], changed: [] };
    return taken;
  }

  private idIn(line: number, column: string, cell: string): Id | undefined {
    const twice = this.seen.has(cell);
    if (!twice && /^[A-Za-z0-9_-]{1,40}$/.test(cell)) return cell;
    this.tell(line, column, twice ? `“${cell}” appears twice.` : `“${cell.slice(0, 60)}” is not a valid id.`);
    return undefined;
  }

  private tell(line: number, column: string, says: string): void {
    if (this.wrongCount++ < MOST_TOLD) this.wrong.push({ line, column, says });
  }
}

/** What the field checks beyond its type. */
function checked({ check }: EntityField, value: Value | null): string | undefined {
  if (!check || typeof value !== 'string') return undefined;
  if (check.most !== undefined && value.length > check.most) return `Use at most ${check.most} characters.`;
  return check.form && !FORMS_OF_TEXT[check.form].fits(value) ? FORMS_OF_TEXT[check.form].says : undefined;
}

const nonEmpty = (values: Read): Read =>
  Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null));

/** Stores batch after batch in a transaction: one at a time, and without making its reader wait for the last. */
class Stores {
  private going: Promise<void> = Promise.resolve();
  private added = 0;
  private stored = 0;

  constructor(
    private readonly at: DataAt,
    private readonly all: number,
    private readonly tx: Executor,
    private readonly tell: Tell | undefined,
  ) {}

  /** Waits for the batch before, and begins with this one. */
  async put(batch: Batch): Promise<void> {
    await this.going;
    this.going = this.store(batch);
    // What fails is told where it is waited for.
    this.going.catch(() => undefined);
  }

  done(): Promise<void> {
    return this.going;
  }

  private async store({ added, changed }: Batch): Promise<void> {
    const { applicationId, kind, entity } = this.at;
    if (added.length > 0) {
      const from = this.added;
      this.added += added.length;
      await this.tx.execute(sql`
        insert into ${records} (application_id, kind, entity, id, data, created_at)
        select ${applicationId}, ${kind}, ${entity.id}, id, data::jsonb, now() + (${from}::int + n) * interval '1 microsecond'
        from unnest(${ids(added)}, ${values(added)}) with ordinality as new (id, data, n)`);
    }
    if (changed.length > 0)
      await this.tx.execute(sql`
        update ${records} set data = records.data || new.data::jsonb, version = version + 1, updated_at = now()
        from unnest(${ids(changed)}, ${values(changed)}) as new (id, data)
        where application_id = ${applicationId} and kind = ${kind} and entity = ${entity.id} and records.id = new.id`);
    this.stored += added.length + changed.length;
    this.tell?.(this.stored, this.all);
  }
}

/** As texts of lines: neither ids nor JSON have line breaks, and to write arrays out takes longer. */
const lines = (all: readonly string[]): SQL => sql`string_to_array(${all.join('\n')}, E'\n')`;
const ids = (rows: readonly ReadRow[]): SQL => lines(rows.map(([id]) => id));
const values = (rows: readonly ReadRow[]): SQL => lines(rows.map(([, read]) => JSON.stringify(read)));
