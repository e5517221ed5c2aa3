import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { Refused } from '@/server/http/problem';
import { benchOf } from '@/server/studio/entry';
import { inWorker } from '@/server/work/run';
import { PrintedGrid } from '@/ui/studio/grid/printed-grid';

export const metadata: Metadata = { title: 'Sign-off' };

interface Props {
  params: Promise<{ app: string; id: string }>;
  searchParams: Promise<{ part?: string | string[] }>;
}

/** What was signed off, on paper: title, release, who and when, its SHA-256, who gets what, and who held which roles. */
export default async function PrintSignOff({ params, searchParams }: Props) {
  const { app, id } = await params;
  const part = Number((await searchParams).part ?? 1);
  const workplace = await benchOf(app, `prove/${id}/print`);
  const { sheet, signed } = await inWorker(
    'sign-off-sheet',
    { applicationId: workplace.applicationId, id, part: Number.isInteger(part) ? part : 1 },
    { owner: workplace.builder.id },
  ).catch((error: unknown) => {
    if (error instanceof Refused && error.status === 404) notFound();
    throw error;
  });
  return (
    <PrintedGrid
      {...sheet.about}
      revision={sheet.revision}
      release={undefined}
      signed={{ ...signed, at: new Date(signed.at) }}
      printedAt={new Date()}
      printedBy={workplace.builder.name}
      columns={sheet.columns}
      part={sheet.part}
      rows={sheet.rows}
    />
  );
}
