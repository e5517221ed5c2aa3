'use client';

import { useNeeded } from '../../parts/need-context';
import { createContext } from 'react';
import type { Edit } from '@/core/edit';
import type { Definition } from '@/core/model';

/** What the parts of the people bench share. */
export interface PeopleWork {
  readonly definition: Definition;
  /** `/studio/api/applications/<slug>` */
  readonly api: string;
  readonly mayChange: boolean;
  /** May they manage people, who are live? */
  readonly mayManage: boolean;
  /** Are they the application's owner, who gives rights? */
  readonly owns: boolean;
  readonly apply: (edit: Edit) => void;
  readonly tell: (message: string) => void;
}

const PeopleContext = createContext<PeopleWork | undefined>(undefined);
export const PeopleProvider = PeopleContext.Provider;

export const usePeopleWork = (): PeopleWork => useNeeded(PeopleContext, 'The people bench');
