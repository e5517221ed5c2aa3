import { and, asc, eq } from 'drizzle-orm';
import { compile } from '@/core/access/compile';
import type { Outcome } from '@/core/access/page';
import { resolveMenu } from '@/core/access/resolve';
import type { ShownMenuItem } from '@/core/access/shown';
import { rightNow } from '@/core/access/viewer';
import { database } from '../database/client';
import { records } from '../database/schema';
import { draftOf } from '../drafts/draft';
import { notThere } from '../http/problem';
import { pageAt } from '../live/page';
import { viewerByKey } from '../people/read';
import { RecordsApi } from '../records/api';
import type { Scope } from '../records/read';

/** What the canvas draws: a page of the draft, as a viewer has it, on the sample records. */
export interface CanvasPage {
  readonly revision: number;
  readonly outcome: Outcome;
  readonly menu: readonly ShownMenuItem[];
}

async function scopeFor(
  applicationId: string,
  viewerKey: string,
): Promise<{ scope: Scope; revision: number }> {
  const viewer = await viewerByKey(applicationId, viewerKey);
  if (!viewer) throw notThere();
  const { definition, revision } = await draftOf(applicationId);
  return {
    scope: { applicationId, kind: 'sample', access: compile(definition).access(viewer, rightNow()) },
    revision,
  };
}

export async function canvasPage(
  applicationId: string,
  viewerKey: string,
  address: string,
  query: URLSearchParams,
): Promise<CanvasPage> {
  const { scope, revision } = await scopeFor(applicationId, viewerKey);
  return { revision, outcome: await pageAt(scope, address, query), menu: resolveMenu(scope.access) };
}

/** The records API behind the canvas: it decides as the real one does, and keeps nothing. */
export async function canvasRecords(applicationId: string, viewerKey: string): Promise<RecordsApi> {
  const { scope } = await scopeFor(applicationId, viewerKey);
  return new RecordsApi(scope, { keep: false });
}

/** Sample records of an entity by label, for choosing the canvas's record. Builders may see all samples. */
export async function samplesOf(
  applicationId: string,
  entityId: string,
): Promise<{ id: string; label: string }[]> {
  const { definition } = await draftOf(applicationId);
  const entity = definition.entities.find((one) => one.id === entityId);
  if (!entity) throw notThere();
  const rows = await database()
    .select({ id: records.id, values: records.data })
    .from(records)
    .where(
      and(eq(records.applicationId, applicationId), eq(records.kind, 'sample'), eq(records.entity, entityId)),
    )
    .orderBy(asc(records.createdAt), asc(records.id))
    .limit(100);
  return rows.map(({ id, values }) => ({ id, label: String(values[entity.labelField] ?? id) }));
}
