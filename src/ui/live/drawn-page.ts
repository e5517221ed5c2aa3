'use client';

import type { ChartPoint, ShownRows, ShownUnlock } from '@/core/access';
import type { DrawnScreen } from './drawn';

export interface DrawnPage {
  readonly address: string;
  readonly screen: DrawnScreen;
  readonly lists: Readonly<Record<string, ShownRows>>;
  readonly charts?: Readonly<Record<string, readonly ChartPoint[]>>;
  readonly version?: string;
  readonly leaveTo?: string;
  readonly unlocked?: readonly ShownUnlock[];
}
