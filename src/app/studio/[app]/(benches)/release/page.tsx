import type { Metadata } from 'next';
import { review } from '@/server/drafts/review';
import { breakingOf } from '@/server/proving/breaking';
import { benchOf } from '@/server/studio/entry';
import { ReleaseBench } from '@/ui/studio/release/release-bench';

export const metadata: Metadata = { title: 'Release' };

export default async function ReleasePage({ params }: { params: Promise<{ app: string }> }) {
  const { applicationId } = await benchOf((await params).app, 'release');
  const [reviewed, breaking] = await Promise.all([review(applicationId), breakingOf(applicationId)]);
  return <ReleaseBench review={reviewed} breaking={breaking} />;
}
