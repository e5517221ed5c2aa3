import { createHash } from 'node:crypto';
import { type Access, type KnownRecord, NONE, showField } from '@/core/access';

/**
 * A record's version as one viewer knows it (RFC 9110, section 8.8.3, without its quotes): it is another one when
 * something of it that they may see has changed, and only then. What is hidden from them changes unnoticed.
 */
export function tagOf(access: Access, record: KnownRecord): string {
  const seen = record.entity.fields.flatMap((field) =>
    access.level(access.element(field.id), record) === NONE
      ? []
      : [[field.id, showField(access, field, record.values[field.id] ?? null, record.lookUp).value]],
  );
  return createHash('sha256')
    .update(JSON.stringify([record.id, seen]))
    .digest('base64url')
    .slice(0, 22);
}
