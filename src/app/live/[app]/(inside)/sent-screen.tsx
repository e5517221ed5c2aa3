'use client';

import { useMemo } from 'react';
import type { ShownPage } from '@/core/access';
import { ScreenView } from '@/ui/live/screen-view';
import { readSent, type Sent } from '@/ui/live/sent';

/** A screen from what the server has sent of it. */
export function SentScreen({ page }: { page: Sent<ShownPage> }) {
  const read = useMemo(() => readSent(page), [page]);
  return <ScreenView page={read} />;
}
