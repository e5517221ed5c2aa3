import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { review } from '@/server/drafts/review';
import { applicationsOf, workplaceOf } from '@/server/studio/builder';
import { signedInBuilder } from '@/server/studio/page';
import { ReleaseBench } from '@/ui/studio/release-bench';

export const metadata: Metadata = { title: 'Release' };

export default async function ReleasePage({ params }: { params: Promise<{ app: string }> }) {
  const { app } = await params;
  const builder = await signedInBuilder(`/studio/${app}/release`);
  const workplace = await workplaceOf(builder, app);
  if (!workplace) notFound();
  const [found, applications] = await Promise.all([
    review(workplace.applicationId),
    applicationsOf(builder.id),
  ]);
  return (
    <ReleaseBench
      slug={app}
      name={found.name}
      applications={applications}
      builder={builder.name}
      mayChange={workplace.role !== 'reviewer'}
      review={found}
    />
  );
}
