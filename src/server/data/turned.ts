import type { DataChange } from '@/core/edit';
import type { Id, ValueType } from '@/core/model';
import { dataChanges } from '../drafts/data-changes';
import type { DataAt } from './at';

/** What becomes of an entity's records where one of its fields holds another type, in words. */
export async function turnedBy(
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
