import { auditData, dataOf } from '@/server/data/at';
import { dataRequest } from '@/server/data/request';
import { handle } from '@/server/http/handle';
import { answerStream } from '@/server/work/run';

type Params = { params: Promise<{ app: string; entity: string }> };

/** `GET …/records/<entity>?records=sample`: its records as CSV. Live ones only with the right to them, and told of. */
export const GET = handle<Params>(async (request, { params }) => {
  const { app, entity: id } = await params;
  const of = await dataRequest(request, app, id, 'read');
  const { workplace, kind } = of;
  const at = await dataOf(workplace, kind, id);
  await auditData(at, 'data-taken-out', {});
  const file = `${workplace.slug}-${at.entity.plural}${kind === 'live' ? '-live' : ''}.csv`;
  return answerStream(request, 'records-file', of, workplace.builder.id, {
    'Content-Type': 'text/csv; charset=utf-8',
    // A name in any script (RFC 6266, RFC 8187).
    'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file)}`,
  });
});
