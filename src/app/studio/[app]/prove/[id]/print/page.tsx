import type { Metadata } from 'next';
import { signOffById } from '@/server/proving/sign-offs';
import { sheetOf } from '@/server/studio/grid';
import { benchOf } from '@/server/studio/entry';
import { PrintedGrid } from '@/ui/studio/grid/printed-grid';

export const metadata: Metadata = { title: 'Signed off' };

interface Props {
  params: Promise<{ app: string; id: string }>;
  searchParams: Promise<{ part?: string | string[] }>;
}

/** What was signed off, on paper: title, release, who and when, its SHA-256, who gets what, and who held which roles. */
export default async function PrintSignOff({ params, searchParams }: Props) {
  const { app, id } = await params;
  const part = Number((await searchParams).part ?? 1);
  const workplace = await benchOf(app, `prove/${id}/print`);
  const found = await signOffById(workplace.applicationId, id);
  const { definition, revision, people } = found;
  const sheet = sheetOf(
    { definition, revision, release: undefined, people },
    [],
    Number.isInteger(part) ? part : 1,
  );
  const roleName = (role: string): string => definition.roles.find((one) => one.id === role)?.name ?? role;
  return (
    <PrintedGrid
      name={definition.name}
      language={definition.language}
      timeZone={definition.timeZone}
      revision={revision}
      release={undefined}
      signed={{
        title: found.title,
        by: found.by,
        at: found.at,
        release: found.release,
        sha256: found.sha256,
        isWhole: found.isWhole,
        people: people.map(({ name, active, assignments }) => ({
          name,
          roles: active
            ? assignments.map(({ role }) => roleName(role)).join(', ') || 'no role'
            : 'switched off',
        })),
      }}
      printedAt={new Date()}
      printedBy={workplace.builder.name}
      columns={sheet.columns}
      part={sheet.part}
      rows={sheet.rows.map(({ element, depth, kind, cells }) => ({
        id: element.id,
        name: element.name,
        depth,
        kind,
        cells,
      }))}
    />
  );
}
