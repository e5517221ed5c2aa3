import type { Metadata } from 'next';
import { gridSheet } from '@/server/studio/grid';
import { benchOf } from '@/server/studio/entry';
import { PrintedGrid } from '@/ui/studio/grid/printed-grid';

export const metadata: Metadata = { title: 'Who gets what' };

/** The grid on paper, for somebody to sign. */
interface Props {
  params: Promise<{ app: string }>;
  searchParams: Promise<{ part?: string | string[] }>;
}

export default async function PrintPage({ params, searchParams }: Props) {
  const { app } = await params;
  const part = Number((await searchParams).part ?? 1);
  const workplace = await benchOf(app, 'gates/print');
  const sheet = await gridSheet(workplace, Number.isInteger(part) ? part : 1);
  const { definition, revision, release, columns, rows } = sheet;
  return (
    <PrintedGrid
      name={definition.name}
      language={definition.language}
      timeZone={definition.timeZone}
      revision={revision}
      release={release}
      printedAt={new Date()}
      printedBy={workplace.builder.name}
      columns={columns}
      part={sheet.part}
      rows={rows.map(({ element, depth, kind, cells }) => ({
        id: element.id,
        name: element.name,
        depth,
        kind,
        cells,
      }))}
    />
  );
}
