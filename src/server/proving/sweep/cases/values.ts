import type { KnownRecord } from '@/core/access';
import { type Entity, type EntityField, type Id, type TextForm, unitIds, type Value } from '@/core/model';
import { type SweepContext, isOpen, recordsOf } from './case';

const WRITTEN: Readonly<Record<TextForm, string>> = {
  email: 'sweep@sweep.example',
  web: 'https://sweep.example',
  telephone: '+441234567',
  digits: '12',
};

/** Another value than the record's, such as this viewer may write where the field is open; undefined where there is none. */
export function other(asked: SweepContext, field: EntityField, { values }: KnownRecord): Value | undefined {
  const now = values[field.id] ?? null;
  const { type, check } = field;
  switch (type.kind) {
    case 'text':
      return check?.form ? WRITTEN[check.form] : 'Swept';
    case 'number':
    case 'money':
      return '1';
    case 'date':
      return '2001-02-03';
    case 'boolean':
      return now !== true;
    case 'choice':
      return type.options.find(({ id }) => id !== now)?.id;
    case 'unit':
      return unitIds(asked.copy.definition).find((id) => id !== now);
    case 'record':
      return recordsOf(asked, type.entity).find((one) => one.id !== now && isOpen(asked, one))?.id;
  }
}

/** A new record's values, with everything filled in that can be. */
export function filled(asked: SweepContext, entity: Entity): Record<Id, Value> {
  const bare = { entity, id: '', values: {} };
  return Object.fromEntries(
    entity.fields.flatMap((field) => {
      const to = other(asked, field, bare);
      return to === undefined ? [] : [[field.id, to] as const];
    }),
  );
}

/** Why it must be refused to write that. */
export const SINCE_HIDDEN = 'it refers to a record that is hidden from them';

/** A record that a field could point to, and that is hidden from the viewer: what is hidden is not there to be pointed to. */
export function hiddenFor(asked: SweepContext, { type }: EntityField): Id | undefined {
  if (type.kind !== 'record') return undefined;
  return recordsOf(asked, type.entity).find((one) => !isOpen(asked, one))?.id;
}
