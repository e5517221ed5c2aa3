import { accessOf, compile } from '@/core';
import type { Circumstances, Viewer } from '@/core/access';
import { readConstants } from '@/core/condition';
import type { Definition, Value } from '@/core/model';
import { and, eq } from 'drizzle-orm';
import { database } from '../database/client';
import { isUuid } from '../database/uuid';
import { auditEvents, panes, type RecordKind } from '../database/schema';
import { draftAt, draftOf } from '../drafts/draft';
import { releasedDefinition } from '../releases';
import { notThere, Refused } from '../http/problem';
import type { RecordScope } from '../records/read';
import type { Writer } from '../records/write';
import type { Workplace } from '../studio/builder';
import { viewerByKey } from './viewers';

/** How a builder looks: through whose eyes, at which definition, when, and on which records. */
export interface Looking {
  readonly workplace: Workplace;
  readonly definition: Definition;
  /** The draft's revision; absent for a release. */
  readonly revision?: number;
  readonly viewerKey: string;
  readonly viewer: Viewer;
  readonly viewerName: string;
  readonly startScreen: string | undefined;
  readonly circumstances: Circumstances;
  readonly scope: RecordScope;
  /** Of what is written: only in a pane it is kept, for that pane. */
  readonly writer: Writer;
}

/**
 * Reads how a request looks: `viewer` (a key), `on` (`draft`, `draft:REVISION`, `release:NUMBER`), `moment`
 * (milliseconds since 1970; now where it is not there), `session` (values by id, as JSON), `records`
 * (`sample` or `live`), `taken` (lines whose condition is taken as true or false, as JSON), `pane` (a UUID). Live records take the right that the owner gives.
 */
export async function lookOf(workplace: Workplace, params: URLSearchParams, path = ''): Promise<Looking> {
  const { applicationId } = workplace;
  const kind = await kindOf(workplace, params, path);
  const { definition, revision } = await definitionOf(applicationId, params.get('on') ?? 'draft');
  const viewerKey = params.get('viewer') ?? '';
  const { viewer, name, startScreen } = await viewerByKey(applicationId, definition, viewerKey);
  const circumstances: Circumstances = {
    moment: readMoment(params.get('moment')),
    session: readConstants(definition, definition.sessionValues, readSession(params.get('session'))),
    ...(params.get('taken') && { taken: takenOf(params.get('taken') ?? '', kind) }),
  };
  const pane = await paneOf(workplace, kind, params.get('pane'));
  const access = accessOf(compile(definition), viewer, circumstances);
  return {
    workplace,
    definition,
    ...(revision !== undefined && { revision }),
    viewerKey,
    viewer,
    viewerName: name,
    startScreen,
    circumstances,
    scope: { applicationId, kind, access, pane },
    writer: {
      keep: pane !== undefined,
      refusal:
        kind === 'live' && workplace.live !== 'change'
          ? 'You can read live records here but cannot change them.'
          : undefined,
    },
  };
}

/**
 * Which records are asked for: `records=live` takes the right that the owner gives, and each such request is in
 * the audit trail, with the address that was looked at or the path that was asked for.
 */
export async function kindOf(
  workplace: Workplace,
  params: URLSearchParams,
  path: string,
): Promise<RecordKind> {
  if (params.get('records') !== 'live') return 'sample';
  if (workplace.live === 'none')
    throw new Refused(
      403,
      'live-records',
      'You do not have access to the live records of this application. Ask its owner for access.',
    );
  const viewer = (params.get('viewer') ?? '').slice(0, 200);
  await database()
    .insert(auditEvents)
    .values({
      applicationId: workplace.applicationId,
      builderId: workplace.builder.id,
      what: 'looked-live',
      detail: { viewer, address: (params.get('address') ?? path).slice(0, 500) },
    });
  return 'live';
}

/** The draft as it is or was, or a release. */
export async function definitionOf(
  applicationId: string,
  on: string,
): Promise<{ readonly definition: Definition; readonly revision?: number }> {
  const head = await draftOf(applicationId);
  if (on === 'draft') return head;
  const [, kind, number] = /^(draft|release):(\d{1,9})$/.exec(on) ?? [];
  if (kind === 'draft' && Number(number) <= head.revision) return draftAt(applicationId, Number(number));
  if (kind === 'release') {
    const definition = await releasedDefinition(applicationId, Number(number)).catch(() => undefined);
    if (definition) return { definition };
  }
  throw new Refused(422, 'on', `There is no ${on.replace(':', ' ')} of this application.`);
}

function readMoment(text: string | null): number {
  const moment = text === null || text === '' ? Date.now() : Number(text);
  if (!Number.isInteger(moment) || Math.abs(moment) > 8.64e15)
    throw new Refused(422, 'moment', 'moment must be a number of milliseconds since 1 January 1970 (UTC).');
  return moment;
}

function readSession(text: string | null): Record<string, Value | null> {
  if (!text) return {};
  try {
    const read: unknown = JSON.parse(text);
    return typeof read === 'object' && read !== null ? (read as Record<string, Value | null>) : {};
  } catch {
    throw new Refused(422, 'session', 'session must be a JSON object with session value ids as keys.');
  }
}

/** Conditions that are taken as true or false. Only over sample records: of live ones it would show what nobody gets. */
function takenOf(text: string, kind: RecordKind): Readonly<Record<string, boolean>> {
  if (kind === 'live')
    throw new Refused(422, 'taken', 'You can only override conditions when previewing sample records.');
  const read = readSession(text);
  return Object.fromEntries(
    Object.entries(read).flatMap(([id, as]) => (typeof as === 'boolean' ? [[id, as] as const] : [])),
  );
}

/** The builder's pane with this id, made when it is first asked for. Nobody else has it. */
async function paneOf(
  { applicationId, builder }: Workplace,
  kind: RecordKind,
  id: string | null,
): Promise<string | undefined> {
  if (!id) return undefined;
  if (!isUuid(id)) throw notThere();
  const found = async () =>
    (
      await database()
        .select({ kind: panes.kind })
        .from(panes)
        .where(and(eq(panes.id, id), eq(panes.applicationId, applicationId), eq(panes.builderId, builder.id)))
    )[0];
  let row = await found();
  if (!row) {
    await database()
      .insert(panes)
      .values({ id, applicationId, builderId: builder.id, kind })
      .onConflictDoNothing();
    row = await found();
  }
  if (row?.kind !== kind) throw notThere();
  return id;
}
