import { database } from '@/server/database/client';
import { auditEvents, RECORD_KINDS, type RecordKind } from '@/server/database/schema';
import { draftOf } from '@/server/drafts/draft';
import { handle } from '@/server/http/handle';
import { notThere, Refused } from '@/server/http/problem';
import { recordsFile } from '@/server/records/file';
import { needWorkplace } from '@/server/studio/builder';

type Params = { params: Promise<{ app: string; entity: string }> };

/** `GET …/records/<entity>?kind=sample`: its records as CSV. Live ones only with the right to them, and told of. */
export const GET = handle<Params>(async (request, { params }) => {
  const { app, entity: id } = await params;
  const { applicationId, slug, live, builder } = await needWorkplace(app, 'read');
  const kind = (new URL(request.url).searchParams.get('kind') ?? 'sample') as RecordKind;
  if (!RECORD_KINDS.includes(kind)) throw new Refused(422, 'query', 'kind must be sample or live.');
  const { definition } = await draftOf(applicationId);
  const entity = definition.entities.find((one) => one.id === id);
  if (!entity) throw notThere();
  if (kind === 'live') {
    if (live === 'none')
      throw new Refused(
        403,
        'live',
        'You have no right to the live records here. An owner can give it to you.',
      );
    await database()
      .insert(auditEvents)
      .values({ applicationId, builderId: builder.id, what: 'taken-out-live', detail: { entity: id } });
  }
  const pieces = recordsFile(applicationId, definition, entity, kind);
  const text = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    async pull(controller) {
      const piece = await pieces.next();
      if (piece.done) controller.close();
      else controller.enqueue(text.encode(piece.value));
    },
    cancel: () => void pieces.return(undefined),
  });
  const file = `${slug}-${entity.plural}${kind === 'live' ? '-live' : ''}.csv`;
  return new Response(body, {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8',
      // A name in any script (RFC 6266, RFC 8187).
      'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file)}`,
    },
  });
});
