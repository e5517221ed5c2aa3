import type { DataChange } from '@/core/edit';
import type { Id, ValueType } from '@/core/model';
import { turnedSchema } from '@/contract/schemas/data';
import { parseBody } from '../http/body';
import { dataChanges } from '../drafts/data-changes';
import type { DataAt } from './at';

/** What would become of the records if a field held another type, as it was sent. Nothing is changed. */
export async function turnedAsSent(at: DataAt, body: string): Promise<readonly DataChange[]> {
  const { field, type } = parseBody(body, turnedSchema);
  return turnedBy(at, field, type);
}

/** What becomes of an entity's records where one of its fields holds another type, in words. */
async function turnedBy(
  { applicationId, kind, definition, entity }: DataAt,
  field: Id,
  type: ValueType,
): Promise<readonly DataChange[]> {
  const turned = {
    ...entity,
    fields: entity.fields.map((one) => (one.id === field ? { ...one, type } : one)),
  };
  const entities = definition.entities.map((one) => (one.id === entity.id ? turned : one));
  return dataChanges({ applicationId, kind }, definition, { ...definition, entities });
}
