'use client';

import type { ShownRows, ShownUnlock } from '@/core/access';
import type { DrawnScreen } from './drawn';

export interface DrawnPage {
  readonly address: string;
  readonly screen: DrawnScreen;
  readonly lists: Readonly<Record<string, ShownRows>>;
  readonly version?: string;
  readonly leaveTo?: string;
  readonly unlocked?: readonly ShownUnlock[];
}
