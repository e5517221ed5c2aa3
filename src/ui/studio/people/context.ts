'use client';

import { createContext, useContext } from 'react';
import type { Edit } from '@/core/edit/edit';
import type { Definition } from '@/core/model/definition';

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

export function usePeopleWork(): PeopleWork {
  const work = useContext(PeopleContext);
  if (!work) throw new Error('A part of the people bench is drawn outside it');
  return work;
}
