import type { Definition, Entity, EntityField } from '../../model/definition';
import { kindOf } from '../../model/values';

/** The fields that a chart of an entity's records can count by; those with few values first. */
export function countedBy(entity: Entity | undefined): readonly EntityField[] {
  return (entity?.fields ?? [])
    .flatMap((field) => {
      const place = kindOf(field.type).countedBy;
      return place === undefined ? [] : [{ field, place }];
    })
    .toSorted((a, b) => a.place - b.place)
    .map(({ field }) => field);
}

/** What a field holds, in a few words. */
export const typeInWords = (definition: Pick<Definition, 'entities'>, { type }: EntityField): string =>
  kindOf(type).label(type, definition);
