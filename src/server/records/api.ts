import { addressOf, type KnownRecord, labelOf, levelOn, NONE, screenShowing, showField } from '@/core/access';
import type { Entity, Id, Value } from '@/core/model';
import type { RecordDone, RecordSent, RecordsPage, SentRecord, Written } from '@/contract/records';
import type { Answered } from '../http/answering';
import { json } from '../http/handle';
import { notThere, Refused } from '../http/problem';
import {
  listRecords,
  knownRecord,
  knownRecords,
  openRecord,
  PAGE_SIZES,
  type Query,
  type RecordScope,
  type StoredRecord,
} from './read';
import { tagOf } from './tag';
import { createRecord, deleteRecord, runAction, updateRecord, type Writer } from './write';

/** The records API for one viewer: the same whether they are live, or sample ones on the studio's canvas. */
export class RecordsApi {
  constructor(
    private readonly scope: RecordScope,
    private readonly writer: Writer,
  ) {}

  /** `GET …/ENTITY?q=&filter=&sort=[-]FIELD&page=&size=` */
  async list(entityId: Id, params: URLSearchParams): Promise<RecordsPage> {
    const entity = this.entity(entityId);
    const found = await listRecords(this.scope, entity, true, entity.fields, readListQuery(params));
    const known = await knownRecords(this.scope, entity, found.records);
    const { total, page, size } = found;
    return { records: known.map((record) => this.sent(record)), total, page, size };
  }

  /** `GET …/ENTITY/ID` */
  async read(entityId: Id, id: Id): Promise<Answered<SentRecord>> {
    const entity = this.entity(entityId);
    const record = await openRecord(this.scope, entity, id);
    if (!record) throw notThere();
    return this.answer(entity, record);
  }

  /** `POST …/ENTITY` */
  async create(entityId: Id, values: Written): Promise<Answered<SentRecord | RecordSent>> {
    const entity = this.entity(entityId, 'making');
    const record = await createRecord(this.scope, this.writer, entity, values);
    // Made by a form for those who do not see what becomes of it.
    if (!record.readable) return json({ sent: true }, { status: 201 });
    // Relative to the list that it was sent to (RFC 9110, section 10.2.2).
    return this.answer(entity, record, 201, { Location: `${entity.id}/${record.id}` });
  }

  /** `PATCH …/ENTITY/ID`, with `If-Match` */
  async update(entityId: Id, id: Id, request: Request, values: Written): Promise<Answered<SentRecord>> {
    const entity = this.entity(entityId);
    const record = await updateRecord(this.scope, this.writer, entity, id, seenVersion(request), values);
    return this.answer(entity, record);
  }

  /** `DELETE …/ENTITY/ID`, with `If-Match` */
  async delete(entityId: Id, id: Id, request: Request): Promise<void> {
    await deleteRecord(this.scope, this.writer, this.entity(entityId), id, seenVersion(request));
  }

  /** `POST …/ENTITY/ID/actions/ACTION`, with `If-Match` */
  async act(entityId: Id, id: Id, action: Id, request: Request): Promise<Answered<SentRecord | RecordDone>> {
    const entity = this.entity(entityId);
    const record = await runAction(this.scope, this.writer, entity, id, seenVersion(request), action);
    // It may take the record out of sight of who runs it: then that it is done is all that is said.
    const known = await knownRecord(this.scope, entity, record);
    if (levelOn(this.scope.access.doors.rows(entity.id), known) === NONE) return json({ done: true });
    return this.answer(entity, record);
  }

  /** The entity, if some record of it, or making one, is open to the viewer; a closed one is as one that does not exist. */
  private entity(id: Id, what?: 'making'): Entity {
    const { access } = this.scope;
    const element = access.compiled.tree.get(id);
    if (element?.kind !== 'rows') throw notThere();
    const door = what ? access.compiled.tree.action(element.node, 'create').id : id;
    if (access.level(access.element(door), undefined) === NONE) throw notThere();
    return element.node;
  }

  private async answer(
    entity: Entity,
    record: StoredRecord,
    status = 200,
    headers = {},
  ): Promise<Answered<SentRecord>> {
    const sent = this.sent(await knownRecord(this.scope, entity, record));
    return json(sent, { status, headers: { ...headers, ETag: `"${sent.version}"` } });
  }

  private sent(record: StoredRecord & KnownRecord): SentRecord {
    const { access } = this.scope;
    const { entity, lookUp } = record;
    const values: Record<Id, Value | null> = {};
    const labels: Record<Id, string> = {};
    for (const field of entity.fields) {
      if (access.level(access.element(field.id), record) === NONE) continue;
      const shown = showField(access, field, record.values[field.id] ?? null, lookUp);
      values[field.id] = shown.value;
      if (field.type.kind === 'record' && shown.value !== null) labels[field.id] = shown.text;
    }
    const label = labelOf(access, record);
    const screen = screenShowing(access, record);
    return {
      id: record.id,
      version: tagOf(access, record),
      ...(label !== undefined && { label }),
      values,
      labels,
      ...(screen && { address: addressOf(screen, record.id) }),
    };
  }
}

/** The version that the writer has seen, from `If-Match` (RFC 9110, section 13.1.1). Needed: no write is blind. */
function seenVersion(request: Request): string {
  const tag = /^"([A-Za-z0-9_-]{1,40})"$/.exec(request.headers.get('if-match') ?? '');
  if (!tag?.[1])
    throw new Refused(
      428,
      'version-needed',
      'The If-Match header is missing. Send the ETag of the record as you last read it.',
    );
  return tag[1];
}

function readListQuery(params: URLSearchParams): Query {
  const whole = (name: string, usual: number, most: number): number => {
    const text = params.get(name) ?? String(usual);
    const number = Number(text);
    if (!/^\d{1,6}$/.test(text) || number < 1 || number > most)
      throw new Refused(422, 'query', `${name} must be a whole number from 1 to ${most}.`);
    return number;
  };
  const sort = params.get('sort');
  return {
    q: params.get('q') ?? '',
    filter: params.get('filter')?.slice(0, 2000) ?? '',
    ...(sort && { sort: { field: sort.replace(/^-/, ''), descending: sort.startsWith('-') } }),
    page: whole('page', 1, 100_000),
    size: whole('size', PAGE_SIZES.usual, PAGE_SIZES.most),
  };
}
