import type { Definition, Entity, EntityField } from '../../model/definition';

/** The fields that a chart of an entity's records can count by; those with few values first. */
export function countedBy(entity: Entity | undefined): readonly EntityField[] {
  const kinds = ['choice', 'boolean', 'unit', 'date'];
  return (entity?.fields ?? [])
    .filter(({ type }) => kinds.includes(type.kind))
    .toSorted((a, b) => kinds.indexOf(a.type.kind) - kinds.indexOf(b.type.kind));
}

/** What a field holds, in a few words. */
export function typeInWords(definition: Pick<Definition, 'entities'>, { type }: EntityField): string {
  switch (type.kind) {
    case 'text':
      return type.long ? 'long text' : 'text';
    case 'number':
      return type.decimals === 0
        ? 'whole number'
        : `number, ${type.decimals} ${type.decimals === 1 ? 'decimal' : 'decimals'}`;
    case 'money':
      return 'money';
    case 'date':
      return 'a day';
    case 'boolean':
      return 'yes or no';
    case 'choice':
      return `one of ${type.options.length}`;
    case 'record':
      return `points to a ${definition.entities.find(({ id }) => id === type.entity)?.name ?? 'record'}`;
    case 'unit':
      return 'a unit';
  }
}
