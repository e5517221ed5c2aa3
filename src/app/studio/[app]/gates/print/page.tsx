import type { Metadata } from 'next';
import { benchOf } from '@/server/studio/entry';
import { inWorker } from '@/server/work/run';
import { PrintedGrid } from '@/ui/studio/grid/printed-grid';

export const metadata: Metadata = { title: 'Access overview' };

/** The grid on paper, for somebody to sign. */
interface Props {
  params: Promise<{ app: string }>;
  searchParams: Promise<{ part?: string | string[] }>;
}

export default async function PrintPage({ params, searchParams }: Props) {
  const { app } = await params;
  const part = Number((await searchParams).part ?? 1);
  const workplace = await benchOf(app, 'gates/print');
  const sheet = await inWorker(
    'grid-sheet',
    { workplace, part: Number.isInteger(part) ? part : 1 },
    { owner: workplace.builder.id },
  );
  const { release } = sheet;
  return (
    <PrintedGrid
      {...sheet.about}
      revision={sheet.revision}
      release={release && { ...release, at: new Date(release.at) }}
      printedAt={new Date()}
      printedBy={workplace.builder.name}
      columns={sheet.columns}
      part={sheet.part}
      rows={sheet.rows}
    />
  );
}
