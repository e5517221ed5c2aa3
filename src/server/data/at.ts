import { type Definition, type Entity } from '@/core/model';
import { database, type Executor } from '../database/client';
import { auditEvents } from '../database/schema';
import { draftOf } from '../drafts/draft';
import { releasedDefinition, releaseInForce } from '../releases';
import { notThere, Refused } from '../http/problem';
import type { Place } from '../records/store';
import type { Workplace } from '../studio/builder';
import type { DataRequest } from './request';

/** The records of one entity as data, for its builders: sample ones as the draft has them, live ones as the release. */
export interface DataAt extends Place {
  readonly workplace: Workplace;
  readonly definition: Definition;
  readonly entity: Entity;
}

/** The records of an entity, for who may have them: sample ones by the draft, live ones by the release. */
export async function dataOf({ workplace, kind, entity: entityId }: DataRequest): Promise<DataAt> {
  const { applicationId } = workplace;
  if (kind === 'sample') {
    const { definition } = await draftOf(applicationId);
    return { applicationId, kind, workplace, definition, entity: entityIn(definition, entityId) };
  }
  const inForce = await releaseInForce(applicationId);
  if (!inForce)
    throw new Refused(
      409,
      'not-released',
      'There are no live records because the application has not been released yet. Release it first.',
    );
  const definition = await releasedDefinition(applicationId, inForce.number);
  const entity = definition.entities.find(({ id }) => id === entityId);
  if (!entity)
    throw new Refused(
      409,
      'not-released',
      'This entity is not in the current release. Release the draft first.',
    );
  return { applicationId, kind, workplace, definition, entity, release: inForce.number };
}

function entityIn({ entities }: Definition, id: string): Entity {
  const entity = entities.find((one) => one.id === id);
  if (!entity) throw notThere();
  return entity;
}

/** Keeps in the audit trail what a builder did to live records. */
export async function auditData(
  { kind, applicationId, workplace, entity }: DataAt,
  what: 'data-added' | 'data-changed' | 'data-deleted' | 'data-imported' | 'data-taken-out',
  detail: Record<string, string>,
  tx: Executor = database(),
): Promise<void> {
  if (kind !== 'live') return;
  await tx.insert(auditEvents).values({
    applicationId,
    builderId: workplace.builder.id,
    what,
    detail: { entity: entity.id, ...detail },
  });
}
