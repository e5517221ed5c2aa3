import { auditData, dataAt } from '@/server/data/at';
import { handle } from '@/server/http/handle';
import { recordsFile } from '@/server/records/file';

type Params = { params: Promise<{ app: string; entity: string }> };

/** `GET …/records/<entity>?records=sample`: its records as CSV. Live ones only with the right to them, and told of. */
export const GET = handle<Params>(async (request, { params }) => {
  const { app, entity: id } = await params;
  const at = await dataAt(request, app, id, 'read');
  const { applicationId, definition, entity, kind, workplace } = at;
  await auditData(at, 'data-taken-out', {});
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
  const file = `${workplace.slug}-${entity.plural}${kind === 'live' ? '-live' : ''}.csv`;
  return new Response(body, {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8',
      // A name in any script (RFC 6266, RFC 8187).
      'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file)}`,
    },
  });
});
