import type { Metadata } from 'next';
import { benchOf } from '@/server/studio/entry';
import { ReleaseBench } from '@/ui/studio/release/release-bench';

export const metadata: Metadata = { title: 'Release' };

export default async function ReleasePage({ params }: { params: Promise<{ app: string }> }) {
  await benchOf((await params).app, 'release');
  return <ReleaseBench />;
}
