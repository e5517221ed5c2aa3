import { resolve } from '@/core';
import { bulkChanges, EDIT, type KnownRecord, listed, NONE, resolveRow, type ShownList } from '@/core/access';
import { all, type Formula, holds } from '@/core/condition';
import type { Entity, Id, List } from '@/core/model';
import { type Choice, MOST_CHANGED } from '@/contract/records';
import { toCsv } from '../csv';
import { notThere, Refused } from '../http/problem';
import type { Run } from '../http/progress';
import {
  knownRecords,
  listedOf,
  listIds,
  openRecord,
  type Query,
  type RecordScope,
  type StoredRecord,
} from './read';
import { tagOf } from './tag';
import { changeMany, type Input, type Writer } from './write';

/** So many records are read at once, and after so many it is asked again who asks. */
const PER_READ = 1000;
const ASKED_AGAIN = 20_000;
/** So many can be chosen of a list at once, for being changed in batches. */
const MOST_CHOSEN = 20_000;

/** A list as a whole, where the viewer has it and the action on it; else it is as one that does not exist. */
export class WholeList {
  readonly list: List;
  readonly entity: Entity;
  readonly shown: ShownList;
  /** The records that it shows, of those for which the action's own door is open. */
  private readonly carries: Formula;

  private constructor(
    private readonly scope: RecordScope,
    id: Id,
    kind: 'export' | 'bulk',
    shown: ShownList,
    screenRecord: Id | undefined,
  ) {
    const { tree } = scope.access.compiled;
    this.list = tree.need(id, 'list').node;
    this.entity = tree.need(this.list.entity, 'rows').node;
    const action = tree.optionalAction(this.entity, kind);
    if (!action || scope.access.level(scope.access.element(action.id), undefined) === NONE) throw notThere();
    this.carries = all(
      listed(scope.access, this.list, screenRecord),
      scope.access.doors.action(action.id).edit,
    );
    this.shown = shown;
  }

  /** `screenRecord` is the record of the screen that it stands on, where that shows one. */
  static async find(
    scope: RecordScope,
    id: Id,
    kind: 'export' | 'bulk',
    screenRecord?: Id,
  ): Promise<WholeList> {
    const { tree } = scope.access.compiled;
    const element = tree.get(id);
    if (element?.kind !== 'list' || !element.screen) throw notThere();
    const { screen } = element;
    const entity = screen.binds && tree.need(screen.binds.entity, 'rows').node;
    const stored =
      entity && screenRecord !== undefined ? await openRecord(scope, entity, screenRecord) : undefined;
    const [record] = entity && stored ? await knownRecords(scope, entity, [stored]) : [];
    const faces = [undefined, ...(screen.faces ?? []).map((face) => face.id)];
    const parts = faces.flatMap((face) => resolve(scope.access, screen, record, face)?.sections ?? []);
    const shown = parts.flatMap((section) => section.parts).find((part) => part.id === id);
    if (shown?.kind !== 'list') throw notThere();
    return new WholeList(scope, id, kind, shown, record?.id);
  }

  /**
   * The list's records as CSV (RFC 4180), part by part: the columns that the viewer has, each cell only where they may
   * see it, of the records that the export's own door is open for. No cell can act as a spreadsheet's formula. Which
   * records there are, and in which order, is asked once; each part is decided anew by the list that `again` finds.
   */
  async *csv(
    query: Pick<Query, 'q' | 'filter' | 'sort'>,
    again: () => Promise<WholeList> = () => Promise.resolve(this),
  ): AsyncGenerator<{ readonly text: string; readonly done: number; readonly of: number }> {
    const { columns } = this.shown;
    const ids = await this.found(query);
    yield { text: toCsv([columns.map((column) => column.label)]), done: 0, of: ids.length };
    let list = await again();
    for (let from = 0; from < ids.length; from += PER_READ) {
      if (from % ASKED_AGAIN === 0 && from > 0) list = await again();
      const rows = await list.cells(ids.slice(from, from + PER_READ), columns);
      yield { text: toCsv(rows), done: Math.min(from + PER_READ, ids.length), of: ids.length };
    }
  }

  /**
   * The records of the list, as far as they are found, for changing many of them at once: each as it is seen now, with
   * the fields of it that may be changed.
   */
  async choices(
    query: Pick<Query, 'q' | 'filter' | 'sort'>,
    { tell, signal }: Partial<Run> = {},
  ): Promise<Choice[]> {
    const { access } = this.scope;
    const fields = this.entity.fields
      .map(({ id }) => id)
      .filter((id) => access.level(access.element(id), undefined) === EDIT);
    const ids = await this.found(query);
    if (ids.length > MOST_CHOSEN)
      throw new Refused(
        422,
        'how-many',
        `At most ${MOST_CHOSEN.toLocaleString('en')} records can be chosen at once, and ${ids.length.toLocaleString('en')} are found. Search or filter for fewer.`,
      );
    const found: Choice[] = [];
    for (let from = 0; from < ids.length; from += PER_READ) {
      signal?.throwIfAborted();
      tell?.(from, ids.length);
      for (const record of await this.read(ids.slice(from, from + PER_READ)))
        found.push({
          id: record.id,
          version: tagOf(access, record),
          changes: bulkChanges(access, this.list, record, fields),
        });
    }
    return found;
  }

  /** The cells of those of these records that the list shows, in their order. */
  private async cells(ids: readonly Id[], columns: ShownList['columns']): Promise<string[][]> {
    return (await this.read(ids)).map((record) => {
      const { cells } = resolveRow(this.scope.access, this.list, record);
      return columns.map((column) => cells[column.id] ?? '');
    });
  }

  /** The ids of those of its records that are found, in the list's order. */
  private found(query: Pick<Query, 'q' | 'filter' | 'sort'>): Promise<Id[]> {
    const { columns } = this.shown;
    const fields = this.entity.fields.filter((field) => columns.some((column) => column.field === field.id));
    return listIds(this.scope, this.entity, this.carries, fields, query);
  }

  /** Those of these records that the list still shows, in their order. */
  private async read(ids: readonly Id[]): Promise<KnownRecord[]> {
    const stored = await listedOf(this.scope, this.entity, this.carries, ids);
    return knownRecords(this.scope, this.entity, stored);
  }

  /**
   * Changes the same fields of many records: all of them or none. Each is decided by itself, as if it were
   * changed alone, and the list must carry it and the bulk change's own door be open for it.
   */
  async change(
    writer: Writer,
    chosen: readonly { readonly id: Id; readonly version: string }[],
    input: Input,
  ): Promise<StoredRecord[]> {
    if (chosen.length === 0 || chosen.length > MOST_CHANGED)
      throw new Refused(422, 'how-many', `Select between 1 and ${MOST_CHANGED} records.`);
    const { carries } = this;
    return changeMany(this.scope, writer, this.entity, chosen, input, (record) => holds(carries, record));
  }
}
