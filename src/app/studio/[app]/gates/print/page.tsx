import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { workplaceOf } from '@/server/studio/builder';
import { gridSheet } from '@/server/studio/grid';
import { signedInBuilder } from '@/server/studio/page';
import { PrintedGrid } from '@/ui/studio/grid/printed-grid';

export const metadata: Metadata = { title: 'Who gets what' };

/** The grid on paper, for somebody to sign. */
export default async function PrintPage({ params }: { params: Promise<{ app: string }> }) {
  const { app } = await params;
  const builder = await signedInBuilder(`/studio/${app}/gates/print`);
  const workplace = await workplaceOf(builder, app);
  if (!workplace) notFound();
  const { definition, revision, release, columns, rows } = await gridSheet(workplace);
  return (
    <PrintedGrid
      name={definition.name}
      language={definition.language}
      timeZone={definition.timeZone}
      revision={revision}
      release={release}
      printedAt={new Date()}
      printedBy={builder.name}
      columns={columns}
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
