import type { Entity } from '@/core/model';
import { knownRecord, openRecord, type RecordScope, type StoredRecord } from '@/server/records/read';
import { tagOf } from '@/server/records/tag';
import { deleteRecord, runAction, updateRecord, type Input, type Writer } from '@/server/records/write';

/** The record's tag as this viewer sees it now; one that nothing has where they do not see it. */
export async function seen(scope: RecordScope, entity: Entity, id: string): Promise<string> {
  const stored = await openRecord(scope, entity, id);
  return stored ? tagOf(scope.access, await knownRecord(scope, entity, stored)) : 'unseen';
}

/** Reads the record first, as people do, and then changes it. */
export const change = async (
  scope: RecordScope,
  writer: Writer,
  entity: Entity,
  id: string,
  input: Input,
): Promise<StoredRecord> => updateRecord(scope, writer, entity, id, await seen(scope, entity, id), input);

export const remove = async (scope: RecordScope, writer: Writer, entity: Entity, id: string): Promise<void> =>
  deleteRecord(scope, writer, entity, id, await seen(scope, entity, id));

export const act = async (
  scope: RecordScope,
  writer: Writer,
  entity: Entity,
  id: string,
  action: string,
): Promise<StoredRecord> => runAction(scope, writer, entity, id, await seen(scope, entity, id), action);
