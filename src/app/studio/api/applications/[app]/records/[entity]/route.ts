import { recordsFile } from '@/contract/studio/data';
import { aboutRecords } from '@/server/data/answering';
import { auditData, dataOf } from '@/server/data/at';
import { answerStream } from '@/server/work/run';

/** Taking live records out is in the audit trail. */
export const GET = aboutRecords(recordsFile, async (of, { request }) => {
  const at = await dataOf(of);
  await auditData(at, 'data-taken-out', {});
  const { workplace, kind } = of;
  const file = `${workplace.slug}-${at.entity.plural}${kind === 'live' ? '-live' : ''}.csv`;
  return answerStream(request, 'records-file', of, workplace.builder.id, {
    'Content-Type': 'text/csv; charset=utf-8',
    // A name in any script (RFC 6266, RFC 8187).
    'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file)}`,
  });
});
