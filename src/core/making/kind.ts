import type { Action, Entity, EntityField, Part, Screen } from '../model/definition';
import type { Id } from '../model/id';
import { addressFrom, type Names } from './names';

/** An address from what many are called, which no screen has yet. */
export function freeAddress(plural: string, taken: ReadonlySet<string>): string {
  const plain = addressFrom(plural, 'records');
  const start = /^(api|sign-in|sign-up|confirm|account)$/.test(plain) ? `${plain}-list` : plain;
  let address = start;
  for (let n = 2; taken.has(address); n++) address = `${start}-${n}`;
  return address;
}

/** A record is called by the text that names it best: a name or title, else the first text; one is made where there is none. */
export function entityFrom(
  entityId: Id,
  { name, plural }: Names,
  fields: EntityField[],
  id: () => Id,
): Entity {
  const texts = fields.filter(({ type }) => type.kind === 'text' && !type.long);
  const label = texts.find((one) => /\b(name|title|label|subject)\b/i.test(one.name)) ??
    texts[0] ?? { id: id(), name: 'Name', type: { kind: 'text' } };
  const usual = (['create', 'update', 'delete', 'export', 'bulk'] as const).map((kind): Action => ({
    kind,
    id: id(),
    name: { create: 'Create', update: 'Update', delete: 'Delete', export: 'Export', bulk: 'Bulk edit' }[kind],
  }));
  return {
    id: entityId,
    name,
    plural,
    labelField: label.id,
    fields: fields.includes(label) ? fields : [label, ...fields],
    actions: usual,
  };
}

const MOST_COLUMNS = 6;

/** Screens that work at once: a list, one for a record, and a form for a new one. */
export function workingScreens(entity: Entity, address: string, id: () => Id): Screen[] {
  const fieldsHere = (): Part[] =>
    entity.fields.map((field) => ({ kind: 'field', id: id(), field: field.id }));
  const button = (name: string, effect: Extract<Part, { kind: 'button' }>['effect']): Part => ({
    kind: 'button',
    id: id(),
    name,
    effect,
  });
  const [record, fresh, list] = [id(), id(), id()];
  const shown = [...entity.fields]
    .sort((a, b) => Number(b.id === entity.labelField) - Number(a.id === entity.labelField))
    .filter(({ type }) => type.kind !== 'text' || !type.long)
    .slice(0, MOST_COLUMNS);
  const one = entity.name.charAt(0).toLowerCase() + entity.name.slice(1);
  return [
    {
      id: id(),
      name: entity.plural,
      address,
      sections: [
        {
          id: id(),
          name: entity.plural,
          parts: [
            button(`New ${one}`, { do: 'open', screen: fresh }),
            button('Export', { do: 'export', list }),
            button('Bulk edit', { do: 'bulk', list }),
            {
              kind: 'list',
              id: list,
              name: entity.plural,
              entity: entity.id,
              columns: shown.map((field) => ({ id: id(), field: field.id })),
              opens: record,
              buttons: [],
            },
          ],
        },
      ],
    },
    {
      id: record,
      name: entity.name,
      address,
      binds: { entity: entity.id, record: 'existing' },
      sections: [
        { id: id(), name: 'Details', parts: fieldsHere() },
        {
          id: id(),
          name: 'Actions',
          parts: [button('Save changes', { do: 'save' }), button('Delete', { do: 'delete' })],
        },
      ],
    },
    {
      id: fresh,
      name: `New ${one}`,
      address: `${address}/new`,
      binds: { entity: entity.id, record: 'new' },
      sections: [
        { id: id(), name: 'Details', parts: fieldsHere() },
        { id: id(), name: 'Actions', parts: [button('Add', { do: 'save' })] },
      ],
    },
  ];
}
